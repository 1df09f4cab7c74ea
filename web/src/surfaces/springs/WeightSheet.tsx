import type { Train } from '@treadle/contract'
import { driveMargin } from '@treadle/core'
import type { ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import { useJobData } from '../../job/useJobData.ts'
import { useObservations } from '../../job/useObservations.ts'
import { Caution } from '../../parts/Caution.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import type { Go } from './go.ts'

/** A train that a weight drives: what hangs there against the least that keeps it going. */
export function WeightSheet({ train, list, go }: { train: Train; list: ReactNode; go: Go }) {
  const { job } = useJobData()
  const navigate = useNavigate()
  const seen = useObservations()
  // The drive test is of the going train; it says nothing of another's weight.
  const drive = train.train === 'going' ? seen.of('drive') : undefined
  const [fitted, least] = [drive?.figure ?? train.weightKg ?? null, drive?.second ?? null]
  const margin = fitted && least ? driveMargin(fitted, least) : null
  usePedalAction({
    label: go.next ? `Press for the next: ${go.next}` : 'Press to go on to the escapement',
    press: () => {
      if (!go.next) return void navigate(`/jobs/${job.id}/escapement`)
      go.onNext()
      return go.onBack
    },
  })
  return (
    <div className={parts.columns}>
      <section>
        <h2>Weight, {train.train}</h2>
        <dl className={parts.facts}>
          <dt>hangs there</dt>
          <dd>{train.weightKg == null ? 'not weighed' : `${train.weightKg} kg`}</dd>
          <dt>falls</dt>
          <dd>{train.fallMm == null ? 'not measured' : `${train.fallMm} mm`}</dd>
          <dt>keeps it going</dt>
          <dd>{least === null ? 'not tried' : `${least} ${drive?.answer === 'turns' ? 'turns' : 'kg'} at least`}</dd>
        </dl>
        {margin ? (
          <p className={parts.next}>
            <Mark state={margin.verdict === 'good' ? 'sound' : margin.verdict === 'watch' ? 'watch' : 'must'} />{' '}
            {margin.marginPercent < 0
              ? 'It needs more than its own weight: that is a symptom, not a reason to hang more on it.'
              : `${margin.marginPercent.toFixed(0)} % to spare. A good train has a third.`}
          </p>
        ) : (
          <p className={parts.say}>
            {train.train === 'going' ? (
              <>
                The drive test tells what it should need: the least weight that keeps it going.{' '}
                <Link to="../observe">Observe</Link>
              </>
            ) : (
              'What it should need shows in its strike: slow or failing blows ask why, before more weight is hung on it.'
            )}
          </p>
        )}
        <Caution>Weights fall on feet and glass: off before anything is moved, each into its own sock.</Caution>
      </section>
      <section>{list}</section>
    </div>
  )
}
