import { FieldError, rateBook, rateBookInput, setUpSteps, unlessRefused, type SetUpStep } from '@treadle/core'
import { Link, useNavigate } from 'react-router'
import { useSettings } from '../../data/queries.ts'
import { Led, LED_DONE } from '../../job/Led.tsx'
import { useJobData } from '../../job/useJobData.ts'
import type { Observations } from '../../job/useObservations.ts'
import { AheadOfIt } from '../../job/AheadOfIt.tsx'
import { dayLike } from '../../parts/say.ts'
import { BeatInPlace, heldForBeat } from './BeatInPlace.tsx'
import { heldToSettle, Settling } from './Settling.tsx'
import styles from './SetUp.module.css'

const WALK = 'set-up'

/** A clock set up where it will stand, for a phone in one hand: what, which way round, the beat heard there, what to expect. */
export function SetUpSurface() {
  const data = useJobData()
  const { clock, listenings, observations, readings, events } = data
  const { data: settings } = useSettings()
  const navigate = useNavigate()
  if (!settings) return null
  const steps = setUpSteps(clock, settings.footingSchool === 'level')
  const goingAt = observations.find((o) => o.key === `${WALK}: going` && o.answer === LED_DONE)?.at ?? null
  const ready = (step: SetUpStep, seen: Observations): string | null => {
    if (step.asks === 'beat') return heldForBeat(listenings, seen, settings)
    if (step.asks === 'settle') return heldToSettle(goingAt)
    if (step.asks === 'picture' && seen.of(`${WALK}: ${step.key}`)?.photoId == null)
      return 'Take the picture first: Camera, below.'
    return null
  }
  const book = unlessRefused(() => {
    const input = rateBookInput(data, { pendulum: clock.pendulum, settings })
    return { input, book: rateBook(input) }
  })
  const setAt = events.filter((e) => e.kind === 'hands').at(-1)
  const more = (step: SetUpStep, seen: Observations) => {
    switch (step.asks) {
      case 'beat':
        return <BeatInPlace seen={seen} settings={settings} />
      case 'settle':
        return <Settling goingAt={goingAt} settings={settings} />
      case 'rate':
        return book instanceof FieldError ? (
          <p className={styles.say}>{readings.length === 0 ? 'It has no readings yet.' : book.allowed}</p>
        ) : (
          <AheadOfIt book={book.book} input={book.input} settings={settings} className={styles.rule} />
        )
      case 'hands':
        return (
          <p className={styles.go}>
            <Link to="../hands">Set its hands and strike</Link>
            {setAt && <span className="quiet"> Hands set {dayLike(setAt.at, '27 November 2026')}.</span>}
          </p>
        )
      case 'moon':
        return (
          <p className={styles.go}>
            <Link to="../moon">Set its moon and date</Link>
          </p>
        )
      case 'mercury':
        return (
          <p className={styles.go}>
            <Link to="../mercury">Its own steps</Link>
          </p>
        )
      default:
        return null
    }
  }
  return (
    <Led
      walk={WALK}
      steps={steps}
      ready={ready}
      instead={(step) =>
        step.asks === 'beat' ? { label: 'Press to hear it here', press: () => void navigate('../listen') } : null
      }
      more={more}
      onward={{ label: 'Press to go to the owner’s card', go: () => void navigate('../card') }}
    />
  )
}
