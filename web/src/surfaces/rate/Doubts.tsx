import type { Reading } from '@treadle/contract'
import type { Suspect } from '@treadle/core'
import { Button } from '@mantine/core'
import { Mark } from '../../parts/Mark.tsx'
import { signed, whenShort } from '../../parts/say.ts'
import styles from './Rate.module.css'

/** The readings that do not belong, each asked about: was it mistyped, or were the hands set before it? */
export function Doubts({
  suspects,
  readings,
  onHands,
}: {
  suspects: Suspect[]
  readings: Reading[]
  onHands: (at: string) => void
}) {
  return (
    <div className={styles.doubts} role="alert">
      {suspects.map(({ index, kind }) => {
        const reading = readings[index]
        if (!reading) return null
        const before = readings
          .map((r) => Date.parse(r.at))
          .filter((ms) => ms < Date.parse(reading.at))
          .sort((a, b) => b - a)[0]
        // Between the two readings, nearer to the later: the hands were set before it was read.
        const handsMs = Math.max((before ?? 0) + 1000, Date.parse(reading.at) - 60_000)
        return (
          <p key={reading.id}>
            <Mark state="watch" label="asked" /> The reading of {whenShort(reading.at)},{' '}
            <b>{signed(reading.errorSeconds, 1)} s</b>, does not belong with the others:{' '}
            {kind === 'hands' ? 'from it on all is shifted. Were the hands set before it?' : 'was it mistyped?'} The
            rate is reckoned without it, and no turn is proposed until you say. Correct it or take it back in the list
            {before === undefined ? '.' : ', or: '}
            {before !== undefined && (
              <Button variant="default" size="compact-md" onClick={() => onHands(new Date(handsMs).toISOString())}>
                The hands were set before it
              </Button>
            )}
          </p>
        )
      })}
    </div>
  )
}
