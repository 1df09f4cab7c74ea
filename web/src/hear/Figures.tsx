import { stopsBelowDeg, type BeatOffset, type Hearing } from '@treadle/core'
import styles from './Listen.module.css'

/** The figures of a listening, large enough to read from the bench. */
export function Figures({
  result,
  offset,
  semiArcDeg,
  releaseDeg,
  calibrated,
}: {
  result: Hearing
  offset: BeatOffset | null
  semiArcDeg: number | null
  releaseDeg: number | null
  /** the sound card's own clock is known, or is no matter */
  calibrated: boolean
}) {
  const rate = result.rateSecondsPerDay
  const rateError = result.rateStandardError
  const digits = rateError >= 1 ? 0 : 1
  const stopsBelow = offset && releaseDeg !== null ? stopsBelowDeg(offset, releaseDeg) : null
  return (
    <dl className={styles.figures}>
      <div>
        {Math.abs(rate) < 2 * rateError ? (
          <>
            <dt>Here it keeps time to within</dt>
            <dd>
              <b>{(Math.abs(rate) + 2 * rateError).toFixed(digits)} s</b> a day
            </dd>
          </>
        ) : (
          <>
            <dt>Here it would {rate >= 0 ? 'gain' : 'lose'}</dt>
            <dd>
              <b>
                {Math.abs(rate).toFixed(digits)} ± {rateError.toFixed(digits)} s
              </b>{' '}
              a day
            </dd>
          </>
        )}
        {!calibrated && <dd className="quiet">the sound card’s own clock not yet known: usually ± 5 s a day more</dd>}
      </div>
      <div>
        <dt>Steady to</dt>
        <dd>
          <b>{result.scatterMs.toFixed(2)} ms</b> a beat
        </dd>
      </div>
      {stopsBelow !== null && (
        <div>
          <dt>Stops below an arc of</dt>
          <dd>
            <b>{stopsBelow.toFixed(1)}°</b>, now {semiArcDeg?.toFixed(1)}°
          </dd>
        </div>
      )}
      <div>
        <dt>Beats an hour</dt>
        <dd>
          <b>{group(result.beatsPerHour.toFixed(1))}</b> of {group(String(result.nominalBeatsPerHour))}
        </dd>
      </div>
      <div>
        <dt>Heard</dt>
        <dd>
          <b>{result.beatsHeard}</b> of {result.beatsExpected}, {Math.max(0, result.rejected)} left out
          {result.slips > 0 && `, ${result.slips} ${result.slips === 1 ? 'slip' : 'slips'} bridged`}
        </dd>
      </div>
    </dl>
  )
}

function group(text: string): string {
  return text.replace(/\B(?=(\d{3})+(?!\d))/, ' ')
}
