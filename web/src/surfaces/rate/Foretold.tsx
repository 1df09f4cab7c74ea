import type { Expected } from '@treadle/core'
import { Mark } from '../../parts/Mark.tsx'
import { count, signed } from '../../parts/say.ts'

/** Whether the readings since the last change lie where it was expected to bring them. */
export function Foretold({ expected }: { expected: Expected }) {
  const { rateSecondsPerDay, rateStandardError, readings, outside } = expected
  const foretold = `After the last change it was expected to keep ${signed(rateSecondsPerDay, 1)} ± ${Math.max(0.1, rateStandardError).toFixed(1)} s a day`
  if (readings === 0) return <p className="quiet">{foretold}; no reading since.</p>
  // One of twenty lies outside by chance.
  const odd = outside > Math.max(1, readings / 8)
  return (
    <p className={odd ? undefined : 'quiet'}>
      {odd && <Mark state="watch" label="not as expected" />} {foretold} (the dashed band):{' '}
      {outside === 0
        ? `all of the ${count(readings, 'reading')} since lie in it.`
        : `${outside} of the ${count(readings, 'reading')} since ${outside === 1 ? 'lies' : 'lie'} outside${odd ? ': something else changed, or the nut did not do what it should' : ''}.`}
    </p>
  )
}
