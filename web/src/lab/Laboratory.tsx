import { PendulumPartOnBench, PendulumSheetChange, SHEET_PART_TITLES } from '@treadle/contract'
import {
  addedMassSecondsPerDay,
  compensationsOf,
  FieldError,
  laboratoryOf,
  MATERIAL_FACTS,
  neededAgainst,
  proposedPendulum,
  withShot,
  type Laboratory as Told,
  type LaboratorySetting,
  type SheetPart,
} from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { memo, useCallback, useDeferredValue, useMemo, useState, type ReactNode } from 'react'
import { wordsOf } from '../parts/fieldWords.ts'
import { Figure } from '../parts/Figure.tsx'
import { Mark } from '../parts/Mark.tsx'
import parts from '../parts/parts.module.css'
import { signed } from '../parts/say.ts'
import { useLatest } from '../parts/useLatest.ts'
import { CompensationPicture } from './CompensationPicture.tsx'
import { Effects, type Effect } from './Effects.tsx'
import styles from './Lab.module.css'
import { PartsList } from './PartsList.tsx'
import { PendulumPicture } from './PendulumPicture.tsx'
import { compensationWords, headlineOf, remedyOf } from './words.ts'

const WORDS = wordsOf(PendulumPartOnBench)

export interface LaboratoryProps {
  sheet: readonly SheetPart[]
  onParts: (parts: SheetPart[]) => void
  thread: { threadUpMm: number | null; threadDownMm: number | null }
  onThread: (part: Partial<LaboratoryProps['thread']>) => void
  setting: LaboratorySetting
  /** of the train; null: not known, so nothing is asked of the pendulum */
  beatsPerHour: number | null
  /** where it is reckoned for: "at Ternholm" */
  place: string
  /** what carrying it somewhere does: "to its owner, 45°" */
  moved: Effect | null
  /** beside the drawing, below what it tells */
  children?: ReactNode
}

/** A pendulum of real parts, drawn and dragged: what it beats, what changes it, what it needs, what holds it in the heat. */
export function Laboratory(props: LaboratoryProps) {
  const { sheet, onParts, thread, onThread, setting, beatsPerHour, place, moved, children } = props
  const [dragged, setDragged] = useState<SheetPart[] | null>(null)
  const shown = dragged ?? sheet
  const latest = useLatest(onParts)
  // What does not move with the drawing is drawn once: a dragged frame has no time for forty fields.
  const keep = useCallback((next: SheetPart[]) => latest.current(next), [latest])
  // What holds it in the heat takes a hundred pendulums to find: it follows the hand when there is time.
  const calm = useDeferredValue(shown)
  const told = useMemo(() => reckoned(shown, setting, beatsPerHour, thread), [shown, setting, beatsPerHour, thread])
  if (sheet.length === 0) {
    const begin = (
      <section>
        <h2>Pendulum</h2>
        <p className={parts.say}>
          Lay its parts out and every figure follows them.{' '}
          {beatsPerHour === null
            ? 'Begin with a seconds pendulum and change it to what lies on the bench.'
            : `Begin with one for ${beatsPerHour} beats an hour: of the usual proportions, and as long as its train asks. So is a lost one found; how heavy a bob its drive keeps stands in the Reckoner.`}
        </p>
        <Button size="lg" onClick={() => onParts(proposedPendulum(beatsPerHour ?? 3600, setting))}>
          Begin with a pendulum for {beatsPerHour ?? 3600} beats
        </Button>
      </section>
    )
    // A run-down asks for no drawing: the pendulum's weight is enough.
    return children === undefined ? (
      begin
    ) : (
      <div className={parts.columns}>
        {begin}
        <div className={styles.aside}>{children}</div>
      </div>
    )
  }
  return (
    <div className={styles.box}>
      <div className={styles.lab} data-aside={children !== undefined}>
        <div>
          {told.lab && (
            <PendulumPicture
              parts={shown}
              lab={told.lab}
              suspension={setting.suspension ?? null}
              {...thread}
              onDrag={(next, over) => {
                setDragged(over ? null : next)
                if (over) onParts(next)
              }}
            />
          )}
          <p className="quiet">
            Drag the bob, the rod’s foot, a tray or a column; arrow keys move what is chosen. True to scale.
          </p>
          {told.lab && <Facts lab={told.lab} />}
        </div>
        <div>
          {told.wrong !== null && (
            <p role="alert">
              <Mark state="must" label="can’t be reckoned" /> {told.wrong}
            </p>
          )}
          {told.lab && (
            <>
              {told.needed ? (
                <>
                  <h2 className={styles.headline} role="status">
                    {headlineOf(told.needed)}
                  </h2>
                  <p className="quiet">
                    {told.lab.workingBeatsPerHour.toFixed(1)} beats an hour{place === '' ? '' : ` ${place}`}. The train
                    asks for {beatsPerHour}.
                  </p>
                  <p className={parts.say}>{remedyOf(told.needed)}</p>
                </>
              ) : (
                <h2 className={styles.headline} role="status">
                  {told.lab.workingBeatsPerHour.toFixed(1)} beats an hour
                </h2>
              )}
              <Effects effects={effectsOf(told.lab, setting, moved)} />
              <Compensations sheet={calm} />
            </>
          )}
        </div>
        {children !== undefined && <div className={styles.aside}>{children}</div>}
        <PartsList sheet={sheet} onParts={keep} />
        <Group align="end" className={styles.parts}>
          {(
            [
              ['threadUpMm', 'Thread left to raise'],
              ['threadDownMm', 'Thread left to lower'],
            ] as const
          ).map(([key, label]) => (
            <Figure
              key={key}
              label={label}
              unit="mm"
              w="12rem"
              value={thread[key]}
              of={[PendulumSheetChange, key]}
              onKeep={(value) => onThread({ [key]: value })}
            />
          ))}
        </Group>
      </div>
    </div>
  )
}

interface Reckoned {
  lab: Told | null
  needed: ReturnType<typeof neededAgainst> | null
  wrong: string | null
}

function reckoned(
  sheet: readonly SheetPart[],
  setting: LaboratorySetting,
  beatsPerHour: number | null,
  { threadUpMm, threadDownMm }: LaboratoryProps['thread'],
): Reckoned {
  if (sheet.length === 0) return { lab: null, needed: null, wrong: null }
  try {
    const lab = laboratoryOf(sheet, setting)
    const needed =
      beatsPerHour === null
        ? null
        : neededAgainst(sheet, beatsPerHour, setting, { upMm: threadUpMm, downMm: threadDownMm })
    return { lab, needed, wrong: null }
  } catch (error) {
    if (error instanceof FieldError) return { lab: null, needed: null, wrong: inWords(error, sheet) }
    throw error
  }
}

/** "Bob: its thickness is needed" */
function inWords(error: FieldError, sheet: readonly SheetPart[]): string {
  const at = /^parts\[(\d+)\]\.(\w+)$/.exec(error.field)
  const part = at && sheet[Number(at[1])]
  if (!at || !part) return `Its parts: ${error.allowed}.`
  return `${SHEET_PART_TITLES[part.kind]}, ${(WORDS[at[2] ?? '']?.label ?? at[2] ?? '').toLowerCase()}: ${error.allowed}.`
}

/** What a coin weighs, more or less, g. */
const COIN_G = 4

function effectsOf(lab: Told, { semiArcDeg }: LaboratorySetting, moved: Effect | null): Effect[] {
  const held = Math.round(100 * lab.heldBack)
  const effects: (Effect | false)[] = [
    lab.secondsPerDayPerTurn !== null && {
      what: 'one turn of the nut, raising',
      secondsPerDay: lab.secondsPerDayPerTurn,
      note: held > 0 ? `the rod and what stays with it take ${held} % of it` : 'all that it raises tells',
      act: true,
    },
    lab.secondsPerDayPerTurn === null && {
      what: 'a millimetre up',
      secondsPerDay: lab.secondsPerDayPerMm,
      note: 'give the pitch of the nut’s thread, and it says what a turn does',
      act: true,
    },
    {
      what: 'one gram laid on',
      secondsPerDay: lab.secondsPerDayPerGram,
      note: `${lab.gramAtMm.toFixed(0)} mm down; a coin of ${COIN_G} g ${signed(addedMassSecondsPerDay(COIN_G, lab.gramAtMm, lab.massG, lab.cgMm, lab.lengthMm), 1)}`,
      act: true,
    },
    { what: 'one degree warmer', secondsPerDay: lab.secondsPerDayPerC, note: 'the whole pendulum' },
    lab.secondsPerDayPerDamp !== null && {
      what: 'ten in a hundred damper',
      secondsPerDay: lab.secondsPerDayPerDamp,
      note: 'a bare wooden rod, in the end; varnish slows it and makes it less',
    },
    lab.secondsPerDayPerTenthDeg !== null && {
      what: 'a tenth of a degree more arc',
      secondsPerDay: lab.secondsPerDayPerTenthDeg,
      note: `from ${(semiArcDeg ?? 0).toFixed(2)}°; a millimetre more at its foot ${signed(lab.secondsPerDayPerArcMm ?? 0, 2)}`,
    },
    moved ?? false,
  ]
  return effects.filter((e): e is Effect => e !== false)
}

function Facts({ lab }: { lab: Told }) {
  return (
    <dl className={parts.facts}>
      <dt>weighs</dt>
      <dd>{lab.massG >= 1000 ? `${(lab.massG / 1000).toFixed(3)} kg` : `${lab.massG.toFixed(1)} g`}</dd>
      <dt>weight’s centre</dt>
      <dd>{lab.cgMm.toFixed(2)} mm below the cock</dd>
      <dt>swings as if</dt>
      <dd>all of it hung at {lab.lengthMm.toFixed(2)} mm</dd>
      {lab.hung && (
        <>
          <dt>its spring</dt>
          <dd>
            has it gain {lab.hung.secondsPerDay.toFixed(1)} s a day against a hinge at the cock, and bends{' '}
            {lab.hung.bendsAtMm.toFixed(1)} mm below it
          </dd>
        </>
      )}
    </dl>
  )
}

const Compensations = memo(function Compensations({ sheet }: { sheet: readonly SheetPart[] }) {
  const found = compensated(sheet)
  if (found === null) return null
  const { ways, shot, perC } = found
  return (
    <section aria-label="Summer and winter" className={parts.next}>
      {ways.map((way) => {
        const material = way.index === null ? 'zinc' : (sheet[way.index]?.material ?? '')
        const { title, words, state } = compensationWords(way, perC, material)
        return (
          <div key={way.index ?? 'none'}>
            <h3>
              {state !== 'none' && <Mark state={state} />} {title}
            </h3>
            <p>{words}</p>
            {way.index !== null && <CompensationPicture way={way} />}
          </div>
        )
      })}
      {shot && (
        <p>
          With shot in the jar instead, to the same height: {signed(shot.secondsPerDayPerC, 2)} s a day for a degree, so{' '}
          {Math.abs(12 * shot.secondsPerDayPerC).toFixed(0)} s a day between the seasons, and it would{' '}
          {shot.secondsPerDay >= 0 ? 'gain' : 'lose'} {Math.abs(shot.secondsPerDay).toFixed(0)} s a day till it is set
          anew. Shot grows with its jar and by its own metal ({MATERIAL_FACTS.shot.alphaPerMillion} millionths), hardly
          more than the rod.
        </p>
      )}
    </section>
  )
})

/** Null where a part can't be reckoned: that is said above already. */
function compensated(sheet: readonly SheetPart[]) {
  try {
    return { ways: compensationsOf(sheet), shot: withShot(sheet), perC: laboratoryOf(sheet).secondsPerDayPerC }
  } catch (error) {
    if (error instanceof FieldError) return null
    throw error
  }
}
