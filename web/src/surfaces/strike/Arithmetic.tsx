import type { StrikeWork } from '@treadle/contract'
import { StrikeWork as StrikeSchema } from '@treadle/contract'
import {
  FieldError,
  PART_SIZES,
  STRIKE_KIND_FACTS,
  strikeBlows,
  strikeTrain,
  unlessRefused,
  type MadePart,
} from '@treadle/core'
import { Button, NativeSelect } from '@mantine/core'
import { Link, useNavigate } from 'react-router'
import { v7 as uuid } from 'uuid'
import type { MadePartRow } from '@treadle/contract'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { Figure } from '../../parts/Figure.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'

/** What its counts say: whether it locks right, how many blows, how many days; and a lost part to draw. */
export function Arithmetic({ strike, onSet }: { strike: StrikeWork; onSet: (part: Partial<StrikeWork>) => void }) {
  const { trainSheets } = useJobData()
  const sheet = trainSheets.find((s) => s.train === 'strike')
  const { counts, halves } = STRIKE_KIND_FACTS[strike.kind]
  const wheels = (sheet?.arbors ?? []).slice(0, -1).map((a) => a.wheel)
  const pinions = (sheet?.arbors ?? []).slice(1).map((a) => a.pinion)
  const known = sheet !== undefined && [...wheels, ...pinions].every((n) => n !== null)
  const { pinArbor, pins, lockingArbor } = strike
  const train =
    known && pinArbor !== null && pins !== null && lockingArbor !== null
      ? unlessRefused(() =>
          strikeTrain({
            wheels: wheels.map(Number),
            pinions: pinions.map(Number),
            pinWheel: { arbor: pinArbor, pins },
            lockingArbor,
            halves: strike.halves,
            ...(sheet.greatTurns === null ? {} : { turnsOfGreat: sheet.greatTurns }),
          }),
        )
      : null
  const { inTwelveHours, aDay } = strikeBlows(strike.halves)
  const choices = [
    { value: '', label: 'not said' },
    ...(sheet?.arbors ?? []).map((a, i) => ({ value: String(i), label: a.name })),
  ]
  const arbor = (label: string, key: 'pinArbor' | 'lockingArbor') => (
    <NativeSelect
      label={label}
      value={strike[key] === null ? '' : String(strike[key])}
      onChange={(e) => onSet({ [key]: e.currentTarget.value === '' ? null : Number(e.currentTarget.value) })}
      data={choices}
    />
  )
  return (
    <>
      <h2 className={parts.next}>Its arithmetic</h2>
      <p>
        {halves.length > 1 || strike.kind === 'repeater'
          ? `${inTwelveHours} blows in twelve hours, ${aDay} a day.`
          : `${inTwelveHours} blows of the hours in twelve hours, besides its quarters.`}
      </p>
      {!sheet || !known ? (
        <p className="quiet">
          Write down the <Link to="../trains">counts of its strike train</Link>, and it is told whether it locks right
          and for how long it strikes.
        </p>
      ) : (
        <>
          <div className={parts.fields}>
            {arbor('Pin wheel', 'pinArbor')}
            <Figure label="Pins" value={pins} of={[StrikeSchema, 'pins']} onKeep={(v) => onSet({ pins: v })} />
            {arbor('Locks on', 'lockingArbor')}
          </div>
          {train && !(train instanceof FieldError) && (
            <>
              <p>
                <Mark state={train.locksRight ? 'sound' : 'must'} label={train.locksRight ? 'right' : 'wrong'} />{' '}
                {train.locksRight
                  ? `It locks right: ${sheet.arbors[lockingArbor ?? 0]?.name ?? 'the locking arbor'} turns ${turnsInWords(train.turnsPerBlow[lockingArbor ?? 0] ?? 0)} at a blow.`
                  : train.faults[0]}
              </p>
              {train.days !== null && <p>One winding strikes for {train.days.toFixed(1)} days.</p>}
            </>
          )}
          {train instanceof FieldError && <p role="alert">{train.message}.</p>}
        </>
      )}
      <DrawLost counts={counts} halves={strike.halves} />
    </>
  )
}

function turnsInWords(turns: number): string {
  return turns === 1 ? 'once' : turns === 2 ? 'twice' : `${turns} times`
}

/** A lost count wheel or snail, begun under Make with its divisions. */
function DrawLost({ counts, halves }: { counts: 'count wheel' | 'rack'; halves: StrikeWork['halves'] }) {
  const rows = useRows<MadePartRow>('made-parts')
  const navigate = useNavigate()
  const part: MadePart = counts === 'rack' ? 'snail' : halves === 'one' ? 'count wheel with halves' : 'count wheel'
  const draw = () => {
    const id = uuid()
    const sizes = Object.fromEntries(PART_SIZES[part].map((s) => [s.key, s.startMm]))
    rows.put({ id, version: 0, part, name: '', sizes, done: [] }, () => void navigate(`../make?part=${id}`))
  }
  return (
    <Button variant="subtle" mt="sm" onClick={draw}>
      It is lost: draw a {part} to cut
    </Button>
  )
}
