import { DRIVE_AGAIN, DRIVE_KEY, driveCompared } from '@treadle/core'
import { Mark } from '../parts/Mark.tsx'
import parts from '../parts/parts.module.css'
import { DriveTest } from './DriveTest.tsx'
import type { Observations } from './useObservations.ts'

/** The drive test of arrival made once more: how much less it needs proves the repair. */
export function DriveAgain({ seen }: { seen: Observations }) {
  const before = seen.of(DRIVE_KEY)
  return (
    <section>
      <h3>The drive test of arrival, once more</h3>
      {before?.second == null ? (
        <p className="quiet">It was not made on arrival, so there is nothing to lay beside it; make it all the same.</p>
      ) : (
        <p>
          As it came: {before.second} {before.answer === 'turns' ? 'turns' : 'kg'} kept it going.
        </p>
      )}
      <DriveTest seen={seen} at={DRIVE_AGAIN} />
      <p className={parts.say} role="status">
        <DriveCompared seen={seen} />
      </p>
    </section>
  )
}

/** Before and now in a sentence; nothing where one of them is not there. */
export function DriveCompared({ seen }: { seen: Observations }) {
  const told = driveCompared(seen.of(DRIVE_KEY), seen.of(DRIVE_AGAIN))
  if (!told) return null
  const { changePercent, before, now, unit } = told
  const less = changePercent < 0
  return (
    <>
      <Mark state={less ? 'sound' : 'watch'} label={less ? 'less' : 'no less'} /> It needed {before} {unit} as it came
      and needs {now} {unit} now: {Math.abs(changePercent).toFixed(0)} % {less ? 'less' : 'more'}.
      {!less && ' Find what takes its power before it goes on trial.'}
    </>
  )
}
