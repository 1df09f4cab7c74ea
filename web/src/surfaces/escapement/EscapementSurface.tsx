import {
  blankEscapement,
  ESCAPEMENT_KINDS,
  ESCAPEMENT_TITLES,
  EscapementSheetChange,
  type EscapementKind,
  type EscapementSheetRow,
} from '@treadle/contract'
import {
  actionOfSheet,
  cureInWords,
  drawnEscapement,
  FieldError,
  judgeEscapement,
  movedBy,
  USUAL_SWING_DEG,
  type EscapementGeometry,
  type Moved,
} from '@treadle/core'
import { Button, Group, NativeSelect, Slider } from '@mantine/core'
import { memo, useCallback, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { v5 } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { wordsOf } from '../../parts/fieldWords.ts'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { Soon } from '../../parts/Soon.tsx'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { useLatest } from '../../parts/useLatest.ts'
import { EscapementPicture } from './EscapementPicture.tsx'
import styles from './Escapement.module.css'
import { nextOf } from './next.ts'
import { PalletPoints } from './PalletPoints.tsx'
import { PlatformSheet, VergeSheet } from './Platform.tsx'
import { Ticks } from './Ticks.tsx'
import { Faces } from './Faces.tsx'
import { Measures } from './Measures.tsx'
import { Tips } from './Tips.tsx'
import { toppingOf } from './toppingOf.ts'
import { useCure } from './useCure.ts'

const NAMESPACE = 'e1a5bb6e-5a86-4b0a-9f0c-6cf3e0d1c7a4'
const WORDS = wordsOf(EscapementSheetChange)
const STATES = { fine: 'sound', 'unequal drop': 'watch', 'big drop': 'watch', 'can’t be told': 'none' } as const
const TITLES = {
  'too deep': 'Too deep',
  'too shallow': 'Too shallow',
  'unequal drop': 'Unequal drop',
  'too little drop': 'Too little drop',
  'big drop': 'Much drop',
  fine: 'It works as it should',
  'can’t be told': 'It can’t be told',
}

/** The escapement: its wheel's tips, its pallets drawn and moved on screen, its faces, and what it tells the beat. */
export function EscapementSurface() {
  const { job, clock, trainSheets, escapements } = useJobData()
  const navigate = useNavigate()
  const rows = useRows<EscapementSheetRow>('escapements')
  const stored = escapements[0]
  const blank = {
    ...blankEscapement(stored?.id ?? v5(job.id, NAMESPACE)),
    teeth: clock.pendulum.escapeTeeth ?? trainSheets.find((t) => t.escape)?.arbors.at(-1)?.wheel ?? null,
    swingDeg: clock.pendulum.semiArcDeg,
  }
  const sheet = rows.seen(blank, stored) ?? blank
  const set = (part: Partial<EscapementSheetChange>) => rows.set(blank, stored, part)
  // What does not move with the drawing is drawn once: a dragged frame has no time for thirty fields.
  const latest = useLatest(set)
  const onSet = useCallback((part: Partial<EscapementSheetChange>) => latest.current(part), [latest])
  const kept: Moved = { nearerMm: sheet.nearerMm, openedDeg: sheet.openedDeg }
  const [moved, setMoved] = useState<{ from: string; to: Moved } | null>(null)
  const keptKey = `${kept.nearerMm} ${kept.openedDeg}`
  // What is tried on the screen stands until the sheet says otherwise.
  const tried = moved?.from === keptKey ? moved.to : kept
  const setTried = (to: Moved) => setMoved({ from: keptKey, to })
  const [palletDeg, setPalletDeg] = useState(0)
  const [tapping, setTapping] = useState(false)
  const swingDeg = sheet.swingDeg ?? USUAL_SWING_DEG
  const drawing = drawnEscapement(sheet)
  const geometry = drawing instanceof FieldError || drawing === null ? null : drawing
  const shown = geometry && movedBy(geometry, tried)
  const action = geometry && actionOfSheet(sheet, tried)
  const locks = sheet.kind === 'dead-beat'
  const judged = action && judgeEscapement(action, locks)
  const cure = useCure(shown, swingDeg, locks)
  const inWords = (by: Moved, from: EscapementGeometry | null) => (from ? cureInWords(by, from) : '')
  const isDrawn = sheet.kind !== '' && sheet.kind !== 'verge' && sheet.kind !== 'platform'
  const steps = isDrawn ? toppingOf(sheet).steps : []
  const now = nextOf({
    drawn: shown !== null,
    tried,
    kept,
    cure,
    cureWords: cure ? lowered(inWords(cure, shown)) : '',
    triedWords: lowered(inWords(tried, geometry)),
    fine: judged?.finding === 'fine',
    toppingSteps: steps,
    topped: sheet.topped,
  })
  const foot = {
    label: now.label,
    hint: now.hint,
    press: () => {
      switch (now.what) {
        case 'try':
          setTried(now.to)
          return () => setTried(tried)
        case 'set':
          set(tried)
          return () => set(kept)
        case 'top':
          set({ topped: [...sheet.topped, now.key] })
          return () => set({ topped: sheet.topped })
        case 'depthing':
          return void navigate(`/jobs/${job.id}/depthing`)
      }
    },
  }
  // A photo that is tapped has nothing for the foot.
  usePedalAction(tapping ? null : foot)
  if (tapping)
    return (
      <PalletPoints
        sheet={sheet}
        onLeave={() => setTapping(false)}
        onDone={(part) => {
          set({ ...part, trueing: part.trueing })
          setTapping(false)
        }}
      />
    )
  const isMoved = tried.nearerMm !== kept.nearerMm || tried.openedDeg !== kept.openedDeg
  return (
    <div className={parts.columns}>
      <section>
        <h2 className={parts.next} style={{ marginTop: 0 }}>
          Escapement
        </h2>
        <Kind kind={sheet.kind} onSet={onSet} />
        {sheet.kind === '' && <p className={parts.say}>Say which kind it is, and it is drawn from a few measures.</p>}
        {shown && action && (
          <>
            <EscapementPicture
              geometry={shown}
              swingDeg={swingDeg}
              palletDeg={Math.max(-swingDeg, Math.min(swingDeg, palletDeg))}
              action={action}
              moved={tried}
              bent={sheet.bent}
              low={sheet.leftLow}
              onMove={setTried}
              onTurn={setPalletDeg}
            />
            <p className="quiet">
              As seen from the front, at its true angles; drag the arbor, a pallet, or the wheel’s middle to turn them.
            </p>
            <div className={styles.sliders}>
              <MoveSlider
                label="Arbor nearer"
                value={tried.nearerMm}
                most={1}
                step={0.01}
                unit="mm"
                onMove={(nearerMm) => setTried({ ...tried, nearerMm })}
              />
              <MoveSlider
                label="Pallets opened"
                value={tried.openedDeg}
                most={4}
                step={0.02}
                unit="°"
                onMove={(openedDeg) => setTried({ ...tried, openedDeg })}
              />
              <MoveSlider
                label="Pallets turned"
                value={palletDeg}
                most={swingDeg}
                step={0.05}
                unit="°"
                onMove={setPalletDeg}
              />
            </div>
            {/* Beside what moves, where nothing that is told later can push them from under a finger. */}
            <Group mt="sm">
              <Button disabled={!isMoved} onClick={() => set(tried)}>
                It is set so
              </Button>
              <Button variant="default" disabled={!isMoved} onClick={() => setTried(kept)}>
                As it was
              </Button>
            </Group>
          </>
        )}
        {drawing instanceof FieldError && (
          <p role="alert">
            <Mark state="must" label="can’t be drawn" /> {WORDS[drawing.field]?.label ?? drawing.field}:{' '}
            {drawing.allowed}.
          </p>
        )}
        {isDrawn && (
          <Soon>
            <Measures sheet={sheet} onSet={onSet} onTap={setTapping} />
            <Tips sheet={sheet} swingDeg={swingDeg} onSet={onSet} />
          </Soon>
        )}
        {sheet.kind === 'platform' && <PlatformSheet sheet={sheet} onSet={set} />}
        {sheet.kind === 'verge' && <VergeSheet />}
      </section>
      <section>
        {judged && action && (
          <section aria-label="What it does">
            <h2>{TITLES[judged.finding]}</h2>
            <p>
              <Mark state={STATES[judged.finding as keyof typeof STATES] ?? 'must'} /> {judged.sentence}
            </p>
            {judged.finding !== 'fine' && (
              <>
                <h3 className={parts.next}>
                  {cure ? inWords(cure, shown).replace(/\.$/, '') : 'No move alone cures it'}
                </h3>
                <p className={parts.say}>
                  {cure
                    ? `Then: ${lowered(cure.judged.sentence)}. A soft anchor bends a little in the vice, straight; a hard one is not bent, its faces are moved.`
                    : 'Within 1 mm of the arbor and 3° of the pallets none is found: look at the measures, the faces and the tips.'}
                </p>
              </>
            )}
            <dl className={`${parts.facts} ${parts.next}`}>
              <dt>lets go at</dt>
              <dd>{both(action.entry.releaseDeg, action.exit.releaseDeg)}</dd>
              <dt>half angle</dt>
              <dd>
                {action.releaseHalfDeg === null ? '–' : `${action.releaseHalfDeg.toFixed(2)}°`}, told to{' '}
                <Link to="../listen">Beat</Link>
              </dd>
              <dt>drop</dt>
              <dd>{both(action.entry.dropDeg, action.exit.dropDeg)}</dd>
              <dt>lock</dt>
              <dd>{both(action.entry.lockDeg, action.exit.lockDeg)}</dd>
              <dt>recoil</dt>
              <dd>
                {(action.entry.recoilDeg ?? 0) + (action.exit.recoilDeg ?? 0) === 0
                  ? 'none'
                  : both(action.entry.recoilDeg, action.exit.recoilDeg)}
              </dd>
            </dl>
            <BeatKnows releaseDeg={action.releaseHalfDeg} works={action.verdict === 'works'} />
          </section>
        )}
        {isDrawn && (
          <Soon>
            <Faces sheet={sheet} onSet={onSet} />
          </Soon>
        )}
      </section>
    </div>
  )
}

const Kind = memo(function Kind({
  kind,
  onSet,
}: {
  kind: EscapementKind
  onSet: (part: Partial<EscapementSheetChange>) => void
}) {
  return (
    <Group align="end">
      <NativeSelect
        label="It is a"
        value={kind}
        onChange={(e) => onSet({ kind: e.currentTarget.value as EscapementKind })}
        data={ESCAPEMENT_KINDS.map((value) => ({ value, label: ESCAPEMENT_TITLES[value] }))}
      />
      <Ticks />
    </Group>
  )
})

function MoveSlider({
  label,
  value,
  most,
  step,
  unit,
  onMove,
}: {
  label: string
  value: number
  most: number
  step: number
  unit: string
  onMove: (value: number) => void
}) {
  return (
    <>
      <span>{label}</span>
      <Slider
        className={styles.slider}
        thumbLabel={label}
        min={-most}
        max={most}
        step={step}
        value={value}
        onChange={onMove}
        label={null}
      />
      <output>
        {value >= 0 ? '+' : '−'}
        {Math.abs(value).toFixed(2)} {unit}
      </output>
    </>
  )
}

/** What the beat is reckoned by, where a person typed another figure than the drawing gives. */
function BeatKnows({ releaseDeg, works }: { releaseDeg: number | null; works: boolean }) {
  const { clock } = useJobData()
  const kept = clock.pendulum.releaseDeg
  if (!works || releaseDeg === null || kept === null || Math.abs(kept - releaseDeg) < 0.02) return null
  return (
    <p className={parts.next}>
      <Mark state="watch" label="another" /> Beat is reckoned by {kept.toFixed(2)}°. It follows the drawing as it is
      set, unless that figure was typed by hand: then change it on <Link to="../listen">Beat</Link>.
    </p>
  )
}

const lowered = (words: string) => words.charAt(0).toLowerCase() + words.slice(1).replace(/\.$/, '')

function both(a: number | null, b: number | null): string {
  const words = (v: number | null) => (v === null ? '–' : `${v < 0 ? '−' : ''}${Math.abs(v).toFixed(2)}°`)
  return `${words(a)} and ${words(b)}`
}
