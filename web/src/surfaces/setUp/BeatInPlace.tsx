import type { ListeningSummary, Settings } from '@treadle/contract'
import { gradeHeard, offsetOf, outOfBeatMs, secondsOf, splitTold } from '@treadle/core'
import { Checkbox } from '@mantine/core'
import { Link } from 'react-router'
import { Remedies } from '../../hear/Remedies.tsx'
import { useJobData } from '../../job/useJobData.ts'
import type { Observations } from '../../job/useObservations.ts'
import { Mark } from '../../parts/Mark.tsx'
import { leaning, whenShort } from '../../parts/say.ts'
import styles from './SetUp.module.css'

const BY_EAR = 'set-up: even by ear'

/** The last that was heard of it in its place. */
export function heardInPlace(listenings: ListeningSummary[]): ListeningSummary | undefined {
  return listenings.findLast((l) => l.purpose === 'in-place' && splitTold(l))
}

/** Why its beat can’t be called even yet; null: it was heard even here, or a person says since then that it is by ear. */
export function heldForBeat(
  listenings: ListeningSummary[],
  seen: Pick<Observations, 'of'>,
  settings: Pick<Settings, 'beat'>,
): string | null {
  const last = heardInPlace(listenings)
  const ear = seen.of(BY_EAR)
  // An instrument that hears it limp afterwards knows better.
  if (ear?.answer === 'even' && (!last || secondsOf(ear.at) > secondsOf(last.at))) return null
  if (!last) return 'Hear it here first, or say that it is even by ear.'
  if (gradeHeard(last, settings.beat) !== 'must') return null
  return `It was ${outOfBeatMs(last).toFixed(1)} ms out when it was last heard here: make it even, and hear it again.`
}

/** The beat as it was heard here, what makes it even, each remedy by its own lever arm. */
export function BeatInPlace({ seen, settings }: { seen: Observations; settings: Settings }) {
  const { clock, footings, listenings } = useJobData()
  const last = heardInPlace(listenings)
  const { pendulum } = clock
  const found = last && offsetOf(last, pendulum.semiArcDeg, pendulum.releaseDeg)
  const grade = last && gradeHeard(last, settings.beat)
  const footing = footings.at(-1)
  return (
    <>
      {last && grade && (
        <p className={styles.big}>
          <Mark state={grade} label={{ sound: 'even', watch: 'nearly even', must: 'out of beat' }[grade]} />{' '}
          {outOfBeatMs(last).toFixed(1)} ± {last.outOfBeatStandardError.toFixed(1)} ms out, {whenShort(last.at)}
        </p>
      )}
      {footing && (
        <p className={styles.say}>
          On the stand it was in beat with its case leaning {leaning(footing.evenAtDeg)}: begin there.
        </p>
      )}
      <p className={styles.go}>
        <Link to="../listen">Hear it here</Link>
        <Link to="../footing">Rock it, the telephone on its case</Link>
      </p>
      {last && grade !== 'sound' && (
        <>
          {found?.ok && last.firstSide !== null ? (
            <Remedies
              offsetDeg={found.offset.offsetDeg}
              outOfBeatMs={outOfBeatMs(last)}
              pendulum={pendulum}
              settings={settings}
            />
          ) : (
            <p className={styles.say}>
              {found && !found.ok
                ? found.sentence
                : last.firstSide === null
                  ? 'Tap the pedal as the bob reaches the right, and it says which way.'
                  : 'With its arc and its release angle it says how many millimetres.'}{' '}
              Until then: a card under one side, and hear it again; whichever way makes it more even is right.
            </p>
          )}
        </>
      )}
      <Checkbox
        mt="sm"
        size="md"
        label="No instrument here: it is even by ear"
        checked={seen.of(BY_EAR)?.answer === 'even'}
        onChange={(e) => seen.set(BY_EAR, { answer: e.currentTarget.checked ? 'even' : '' })}
      />
    </>
  )
}
