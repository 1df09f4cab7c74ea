import type { Pendulum, Settings } from '@treadle/contract'
import { beatByEar, gradeBeat } from '@treadle/core'
import { SegmentedControl } from '@mantine/core'
import type { ReactNode } from 'react'
import { Mark } from '../parts/Mark.tsx'
import {
  offsetOf,
  offsetRange,
  signedMs,
  type GoingCounts,
  type Hearing,
  type HeardIntervals,
  type Side,
  type SideSound,
} from '@treadle/core'
import { Deeper } from './Deeper.tsx'
import { Figures } from './Figures.tsx'
import { IntervalBar } from './IntervalBar.tsx'
import styles from './Listen.module.css'
import { useOwnClock } from './ownClockHost.ts'
import { Remedies } from './Remedies.tsx'
import { SwingPicture } from './SwingPicture.tsx'
import type { Listening } from './useListening.ts'

interface Props {
  listening: Listening
  pendulum: Pendulum
  settings: Settings
  /** where the sound comes from, and starting and stopping */
  sources: ReactNode
  /** what stands below the remedies */
  aside: ReactNode
  /** of a job: the chalked tooth by the foot, and where the escape wheel’s tips are */
  onChalkByPedal?: () => void
  sheetOf?: (heardFirst: number) => string
  /** the counts of its going train, where they are known */
  train?: (GoingCounts & { names: string[] }) | null
  /** how it sounded the last time it was here */
  before?: [SideSound, SideSound] | null
}

/** What is heard of a clock: the beat in large words, the swing, the split, the figures, and what to do. */
export function ListenView({
  listening,
  pendulum,
  settings,
  sources,
  aside,
  train = null,
  before = null,
  onChalkByPedal,
  sheetOf,
}: Props) {
  const { heard, side } = listening
  const own = useOwnClock()
  if (!heard)
    return (
      <div className={styles.columns}>
        <section>
          <Waiting listening={listening} />
          {sources}
        </section>
        <section>{aside}</section>
      </div>
    )
  const { result } = heard
  if (result.ticks === 'once a period') return <OncePerPeriod heard={heard} {...{ settings, sources, aside }} />
  const intervals: HeardIntervals = {
    firstToSecondMs: result.intervalsMs[0],
    secondToFirstMs: result.intervalsMs[1],
    firstSide: side.first,
  }
  const signed = signedMs(intervals)
  const grade = gradeBeat(result.splitPercent, result.outOfBeatMs, settings.beat)
  const { semiArcDeg, releaseDeg } = pendulum
  const finding = offsetOf(intervals, semiArcDeg, releaseDeg)
  const offset = finding?.ok ? finding.offset : null
  return (
    <div className={styles.columns}>
      <section>
        <p className={styles.headline} role="status">
          {grade === 'sound'
            ? `In beat, ${result.outOfBeatMs.toFixed(1)} ms out`
            : `${result.outOfBeatMs.toFixed(result.outOfBeatMs < 10 ? 1 : 0)} ms out of beat`}
        </p>
        <p className={styles.state}>
          <Mark state={grade} label={{ sound: 'even', watch: 'acceptable', must: 'too uneven' }[grade]} />
          <span>
            {signed !== null &&
              grade !== 'sound' &&
              `It must swing too far to the ${signed > 0 ? 'right' : 'left'} before it drops. `}
            {result.splitPercent.toFixed(1)} to {(100 - result.splitPercent).toFixed(1)},{' '}
            {beatByEar(result.splitPercent, settings.beat)}; sure to ±{(2 * result.outOfBeatStandardError).toFixed(1)}{' '}
            ms.
            {heard.remark !== '' && ` ${heard.remark}`}
            {result.doubts.map((doubt) => ` ${doubt}`)}
          </span>
        </p>
        {offset && semiArcDeg !== null && releaseDeg !== null ? (
          <SwingPicture
            semiArcDeg={semiArcDeg}
            releaseDeg={releaseDeg}
            offset={offset}
            sidesTold={side.first !== null}
            live={
              listening.status === 'listening' && !listening.hurried
                ? { result, firstSide: side.first, startedMs: listening.startedMs }
                : null
            }
          />
        ) : (
          <p className={styles.idle}>
            {finding?.ok === false
              ? finding.sentence
              : 'Give the semi-arc and the release angle under Arrive, and the swing is drawn here with both releases where they fall.'}
          </p>
        )}
        <IntervalBar {...intervals} />
        <Figures
          result={result}
          offset={offset}
          semiArcDeg={semiArcDeg}
          releaseDeg={releaseDeg}
          calibrated={
            settings.pickupPpm !== 0 || (own !== null && heard.pickup === 'microphone') || heard.pickup === 'practice'
          }
        />
        {sources}
      </section>
      <section>
        <h2>{grade === 'sound' ? 'Leave it' : 'To make it even'}</h2>
        {grade === 'sound' ? (
          <p className={styles.say}>
            It is as even as this workshop asks. A clock set in beat on the bench is set again in its place.
          </p>
        ) : side.first === null ? (
          <p className={styles.say}>
            Sound alone can’t tell right from left. While it listens, press the pedal each time the bob stands at its
            right-hand end, seen from the front: five times will do. Or say it, if you know:
          </p>
        ) : offset ? (
          <Remedies
            offsetDeg={offset.offsetDeg}
            outOfBeatMs={result.outOfBeatMs}
            pendulum={pendulum}
            settings={settings}
          />
        ) : (
          <Unknown semiArcDeg={semiArcDeg} intervals={intervals} />
        )}
        <p className={styles.asked}>The longer wait ends</p>
        <SegmentedControl
          fullWidth
          aria-label="The longer wait ends"
          value={side.first === null ? 'unknown' : longerEnds(result, side.first)}
          onChange={(value) => listening.choose(value === 'unknown' ? null : longerEnds(result, value))}
          data={[
            { value: 'left', label: 'on the left' },
            { value: 'unknown', label: 'not told' },
            { value: 'right', label: 'on the right' },
          ]}
        />
        {aside}
      </section>
      <Deeper
        result={result}
        train={train}
        before={before}
        firstSide={side.first}
        chalk={listening.chalk}
        onChalk={listening.status === 'listening' ? () => listening.nameTooth(Date.now()) : null}
        onChalkByPedal={onChalkByPedal}
        sheetOf={sheetOf}
      />
    </div>
  )
}

/** A clock that drops once a period: its rate holds, and why nothing is told of its beat. */
function OncePerPeriod({
  heard,
  settings,
  sources,
  aside,
}: Pick<Props, 'settings' | 'sources' | 'aside'> & { heard: NonNullable<Listening['heard']> }) {
  const own = useOwnClock()
  const { result } = heard
  return (
    <div className={styles.columns}>
      <section>
        <p className={styles.headline} role="status">
          One tick a period, {(7200 / result.beatsPerHour).toFixed(3)} s
        </p>
        <p className={styles.state}>
          <Mark state="none" label="not told" />
          <span>
            Its return is almost silent, so no sound says how long each swing takes: its beat is set by the eye, the
            rate holds. {heard.remark}
            {result.doubts.map((doubt) => ` ${doubt}`)}
          </span>
        </p>
        <Figures
          result={result}
          offset={null}
          semiArcDeg={null}
          releaseDeg={null}
          calibrated={
            settings.pickupPpm !== 0 || (own !== null && heard.pickup === 'microphone') || heard.pickup === 'practice'
          }
        />
        {sources}
      </section>
      <section>
        <h2>Beat by the eye</h2>
        <p className={styles.say}>
          Let the pendulum swing just far enough to let go, and watch where: as far to the left of its rest as to the
          right. Bend the crutch foot toward the corner of the case that you had to raise.
        </p>
        {aside}
      </section>
    </div>
  )
}

/** At which end of the swing the longer of the two waits ends, by the first tick's end; and the other way round. */
function longerEnds({ intervalsMs: [first, second] }: Hearing, side: Side): Side {
  return second > first ? side : side === 'left' ? 'right' : 'left'
}

function Waiting({ listening: { status, seconds, sentence } }: { listening: Listening }) {
  if (status === 'refused')
    return (
      <>
        <p className={styles.headline}>Nothing heard</p>
        <p className={styles.refused} role="alert">
          {sentence}
        </p>
      </>
    )
  if (status === 'listening' || status === 'reading')
    return (
      <>
        <p className={styles.headline} role="status">
          {status === 'reading' ? 'Reading the file…' : 'Listening…'}
        </p>
        <p className={styles.state}>
          {seconds.toFixed(0)} s. {seconds > 5 ? sentence : 'A first verdict comes within six seconds.'}
        </p>
      </>
    )
  return (
    <p className={styles.idle}>
      Stand the clock level and solid, let its swing settle for some minutes, and put the microphone on or near the
      case. Then press: it hears the beat, says how far it is out, and what to bend or to pack.
    </p>
  )
}

/** Arc or release not known: a range where the arc is, and the method that needs neither. */
function Unknown({ semiArcDeg, intervals }: { semiArcDeg: number | null; intervals: HeardIntervals }) {
  const range = offsetRange(intervals, semiArcDeg)
  return (
    <p className={styles.say}>
      {range &&
        `By its arc alone the escapement stands between ${range[0].toFixed(2)}° and ${range[1].toFixed(2)}° from plumb. `}
      Without arc and release, two readings do it: keep this listening, change one thing by a known amount, say how
      much, and listen again.
    </p>
  )
}
