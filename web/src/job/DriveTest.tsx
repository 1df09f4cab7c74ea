import { DRIVE_KEY, driveMargin } from '@treadle/core'
import { SegmentedControl } from '@mantine/core'
import { Figure } from '../parts/Figure.tsx'
import { Mark } from '../parts/Mark.tsx'
import parts from '../parts/parts.module.css'
import styles from './DriveTest.module.css'
import type { Observations } from './useObservations.ts'

const TELLS = { good: 'a good train', watch: 'little to spare', poor: 'a symptom: look for what takes its power' }
const STATES = { good: 'sound', watch: 'watch', poor: 'must' } as const

/** The least drive that keeps it going against what is fitted. */
export function DriveTest({
  seen,
  at = DRIVE_KEY,
}: {
  seen: Observations
  /** by which key it is kept */ at?: string
}) {
  const row = seen.of(at)
  const unit = row?.answer === 'turns' ? 'turns' : 'kg'
  const { figure: fitted = null, second: least = null } = row ?? {}
  const margin = fitted && least ? driveMargin(fitted, least) : null
  return (
    <>
      <SegmentedControl
        aria-label="What drives it"
        value={unit}
        onChange={(answer) => seen.set(at, { answer })}
        data={[
          { value: 'kg', label: 'Weight, kg' },
          { value: 'turns', label: 'Turns of the spring' },
        ]}
      />
      <div className={parts.fields}>
        <Figure
          label="Fitted"
          unit={unit}
          value={fitted}
          min={0.001}
          max={2000}
          onKeep={(figure) => seen.set(at, { answer: unit, figure })}
        />
        <Figure
          label="Least that keeps it going"
          unit={unit}
          value={least}
          min={0.001}
          max={2000}
          onKeep={(second) => seen.set(at, { answer: unit, second })}
        />
      </div>
      {margin && (
        <p className={styles.margin}>
          <Mark state={STATES[margin.verdict]} label={margin.verdict} />{' '}
          {margin.marginPercent >= 0
            ? `${margin.marginPercent.toFixed(0)} % to spare: ${TELLS[margin.verdict]}.`
            : `It wants ${(-margin.marginPercent).toFixed(0)} % more than its own: ${TELLS.poor}.`}
        </p>
      )}
    </>
  )
}
