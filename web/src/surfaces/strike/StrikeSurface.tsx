import type { StrikeWork } from '@treadle/contract'
import { likelyStrike, STRIKE_KIND_FACTS, STRIKE_KINDS, type Halves, type StrikeKind } from '@treadle/core'
import { Button, NativeSelect, SegmentedControl } from '@mantine/core'
import { Link } from 'react-router'
import { useClockChange } from '../../job/useClockChange.ts'
import { useJobData } from '../../job/useJobData.ts'
import parts from '../../parts/parts.module.css'
import { Pick } from '../../parts/Pick.tsx'
import { useStop } from '../../parts/useStop.ts'
import { useSessionValue } from '../../parts/useSessionValue.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { Arithmetic } from './Arithmetic.tsx'
import { CountRound } from './CountRound.tsx'
import { Model } from './Model.tsx'
import { SetUp } from './SetUp.tsx'

const HALVES_TITLES: Record<Halves, string> = { none: 'nothing', one: 'one blow', hour: 'the hour again' }
const SHOWS = [
  ['model', 'How it works'],
  ['set-up', 'Set it up'],
  ['count', 'Count it round'],
] as const
type Shows = (typeof SHOWS)[number][0]

/** The strike of this clock: a model that runs, setting it up step by step, and twelve hours counted round. */
export function StrikeSurface() {
  const { clock } = useJobData()
  const save = useClockChange(clock)
  const [stop, goTo] = useStop('show')
  const [fault, setFault] = useSessionValue<string | null>(`strike fault ${clock.id}`, null)
  const kept = clock.work.strike
  const likely = likelyStrike({ strikeWork: clock.work.strikeWork, trains: clock.trains })
  const strikes = clock.trains.some((t) => t.train !== 'going')
  const strike: StrikeWork | null =
    kept ?? (likely ? { kind: likely, halves: 'none', pinArbor: null, pins: null, lockingArbor: null } : null)
  const shows: Shows = SHOWS.find(([key]) => key === stop)?.[0] ?? 'model'
  const set = (part: Partial<StrikeWork>) => strike && save({ work: { ...clock.work, strike: { ...strike, ...part } } })
  usePedalAction(
    strike && !kept
      ? {
          label: `Press if it strikes so: ${STRIKE_KIND_FACTS[strike.kind].title.toLowerCase()}`,
          hint: 'else choose how; it is the clock’s from then on',
          press: () => void set({}),
        }
      : null,
  )
  if (!strikes || !strike)
    return (
      <>
        <h2>It has no strike</h2>
        <p className={parts.say}>
          No strike or chime train is written down for this clock. If it has one, add it among{' '}
          <Link to={`/clocks/${clock.id}`}>the clock’s figures</Link>.
        </p>
      </>
    )
  const setUp = { kind: strike.kind, halves: strike.halves }
  return (
    <div className={parts.columns}>
      <section>
        <SegmentedControl
          aria-label="What is shown"
          size="md"
          mb="sm"
          value={shows}
          onChange={(key) => goTo(key)}
          data={SHOWS.map(([value, label]) => ({ value, label }))}
        />
        {shows === 'model' && (
          <Model
            key={`${strike.kind} ${strike.halves}`}
            setUp={setUp}
            fault={fault}
            onFault={setFault}
            pedal={kept !== undefined}
          />
        )}
        {shows === 'set-up' && <SetUp kind={strike.kind} pedal={kept !== undefined} onDone={() => goTo('count')} />}
        {shows === 'count' && (
          <CountRound
            setUp={setUp}
            pedal={kept !== undefined}
            onShowFault={(key) => {
              setFault(key)
              goTo('model')
            }}
          />
        )}
      </section>
      <section>
        <h2>How it strikes</h2>
        {!kept && (
          <p className={parts.asked}>Not said yet: this is likely, by what is known of its work. Choose, or keep it.</p>
        )}
        <NativeSelect
          label="By which work"
          value={strike.kind}
          onChange={(e) => {
            const kind = e.currentTarget.value as StrikeKind
            const { halves } = STRIKE_KIND_FACTS[kind]
            set({ kind, halves: halves.includes(strike.halves) ? strike.halves : (halves[0] ?? 'none') })
          }}
          data={STRIKE_KINDS.map((value) => ({ value, label: STRIKE_KIND_FACTS[value].title }))}
        />
        {STRIKE_KIND_FACTS[strike.kind].halves.length > 1 && (
          <Pick
            label="At the half hour"
            value={strike.halves}
            of={STRIKE_KIND_FACTS[strike.kind].halves.map((h) => [h, HALVES_TITLES[h]])}
            onPick={(halves) => set({ halves })}
          />
        )}
        {!kept && (
          <Button mt="sm" onClick={() => set({})}>
            It strikes so
          </Button>
        )}
        <Arithmetic strike={strike} onSet={set} />
      </section>
    </div>
  )
}
