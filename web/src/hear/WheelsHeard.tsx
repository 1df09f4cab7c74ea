import { secondsToTell, TURNS_WANTED, type GoingCounts, type Periodic } from '@treadle/core'
import { Mark } from '../parts/Mark.tsx'

/** Which wheels of the going train are heard in the beat, and how long those must be listened to that can't be told yet. */
export function WheelsHeard({
  periodic,
  train,
  seconds,
}: {
  periodic: Periodic
  train: GoingCounts & { names: string[] }
  seconds: number
}) {
  const needed = secondsToTell(train)
  const untold = train.names.flatMap((name, i) => {
    const s = needed[i] ?? 0
    return s > seconds && !periodic.arbors.some((a) => a.arbor === i) ? [{ name, s }] : []
  })
  const told = train.names.length - untold.length - periodic.arbors.length
  return (
    <div>
      <h3>The wheels in its beat</h3>
      <ul>
        {periodic.arbors.map((a) => (
          <li key={a.arbor}>
            <Mark state="must" label="heard" /> <b>{train.names[a.arbor]}</b>: every {time(a.periodS)} it comes early
            and late by {a.amplitudeMs.toFixed(1)} ms{odds(a.chance)}. Look at it: run out, a bent arbor, worn holes,
            dirt between two teeth.
          </li>
        ))}
        {periodic.meshes.map((m) => (
          <li key={`mesh ${m.arbor}`}>
            <Mark state="watch" label="heard" /> The <b>{m.teeth}</b> teeth of the wheel on {train.names[m.arbor]}:
            every {time(m.periodS)}, {m.amplitudeMs.toFixed(1)} ms{odds(m.chance)}. Its depth, or a pinion’s leaves.
          </li>
        ))}
        {told > 0 && (
          <li>
            <Mark state="sound" label="not heard" />{' '}
            {told === train.names.length ? 'No wheel comes back in it.' : 'No other wheel that can be told yet.'}
          </li>
        )}
        {untold.map(({ name, s }) => (
          <li key={name} className="quiet">
            <Mark state="none" label="not told" /> {name}: listen for {time(s)}, {TURNS_WANTED} of its turns; a watch
            does it by itself.
          </li>
        ))}
      </ul>
    </div>
  )
}

function odds(chance: number): string {
  return chance < 1e-4 ? '' : `, by chance once in ${Math.round(1 / chance)}`
}

function time(s: number): string {
  if (s < 100) return `${Number(s.toFixed(1))} s`
  return s < 5400 ? `${Math.round(s / 60)} min` : `${Number((s / 3600).toFixed(1))} h`
}
