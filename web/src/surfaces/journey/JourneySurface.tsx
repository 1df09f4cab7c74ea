import { journeySteps, JOURNEYS, type JourneyWay } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { useNavigate } from 'react-router'
import { useSettings } from '../../data/queries.ts'
import { Led, ledStanding } from '../../job/Led.tsx'
import { useJobData } from '../../job/useJobData.ts'
import { useObservations } from '../../job/useObservations.ts'
import { Pick } from '../../parts/Pick.tsx'
import { usePaper } from '../../parts/usePaper.ts'
import { useStop } from '../../parts/useStop.ts'
import styles from './Journey.module.css'

const TITLES: Record<JourneyWay, string> = {
  away: 'Away from its place',
  home: 'Home to its place',
  owner: 'The owner moves it',
}

const SHORT: Record<JourneyWay, string> = { away: 'away', home: 'home', owner: 'the owner moves it' }

/** How this clock is taken down, carried and brought home, led by the foot; or a paper for an owner who moves house. */
export function JourneySurface() {
  const data = useJobData()
  const { clock, job } = data
  const { data: settings } = useSettings()
  const seen = useObservations()
  const navigate = useNavigate()
  const [said, goTo] = useStop('way')
  const way = JOURNEYS.find((w) => w === said) ?? (job.bay === 'return' ? 'home' : 'away')
  const steps = journeySteps(
    { kind: clock.kind, trains: clock.trains, mercury: clock.work.mercury, things: job.cameWith },
    way,
  )
  const { done } = ledStanding(seen.of, `journey ${way}`, steps)
  usePaper('A4', '14mm')
  return (
    <>
      <Group className={styles.bar} align="end">
        <Pick label="Which way" value={way} of={JOURNEYS.map((w) => [w, SHORT[w]])} onPick={goTo} />
        <Button variant="default" onClick={() => window.print()}>
          Print it
        </Button>
        {way !== 'owner' && (
          <span className="quiet">
            {done} of {steps.length} done
          </span>
        )}
      </Group>
      {way !== 'owner' && (
        <div className={styles.screen}>
          <Led
            key={way}
            walk={`journey ${way}`}
            steps={steps}
            onward={
              way === 'home'
                ? { label: 'Press to set it up', go: () => void navigate('../set-up') }
                : { label: 'Press to go to what came with it', go: () => void navigate('../arrive') }
            }
          />
        </div>
      )}
      <article className={way === 'owner' ? styles.paper : `${styles.paper} ${styles.onPaper}`} aria-label="On paper">
        <header>
          <p>{settings?.workshop}</p>
          <h1>{way === 'owner' ? `Moving ${clock.name}` : clock.name}</h1>
          <p>
            {TITLES[way]}, {data.owner.name}, number {job.number}
          </p>
        </header>
        <ol>
          {steps.map((s) => (
            <li key={s.key}>
              <b>{s.title}.</b> {s.does}
              {s.caution !== undefined && <p className={styles.care}>▲ {s.caution}</p>}
            </li>
          ))}
        </ol>
        <footer>
          <p>
            After it was moved its beat is set again: listen for an even tick and tock.
            {settings && settings.phone !== '' && ` ${settings.workshop}, ${settings.phone}.`}
          </p>
        </footer>
      </article>
    </>
  )
}
