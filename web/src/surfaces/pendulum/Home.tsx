import { ClockHome, NO_HOME } from '@treadle/contract'
import { useClockChange } from '../../job/useClockChange.ts'
import { useJobData } from '../../job/useJobData.ts'
import { boundsOfField } from '../../parts/boundsOfField.ts'
import { Figure } from '../../parts/Figure.tsx'
import { Fold } from '../../parts/Fold.tsx'
import parts from '../../parts/parts.module.css'

const FIELDS = [
  ['latitudeDeg', 'Latitude', '°'],
  ['altitudeM', 'Above the sea', 'm'],
  ['winterC', 'Its room, coldest month', '°C'],
  ['summerC', 'Its room, warmest month', '°C'],
] as const

/** Where the clock stands at its owner's: what the rate there is reckoned by. */
export function Home() {
  const { clock } = useJobData()
  const change = useClockChange(clock)
  const home = clock.home ?? NO_HOME
  const known = FIELDS.some(([key]) => home[key] !== null)
  return (
    <Fold title={known ? 'At its owner’s' : 'At its owner’s: not known yet'}>
      <div className={parts.fields}>
        {FIELDS.map(([key, label, unit]) => (
          <Figure
            key={key}
            label={label}
            unit={unit}
            value={home[key]}
            {...boundsOfField([ClockHome, key])}
            onKeep={(value) => change({ home: { ...home, [key]: value } }, undefined, undefined, { home: clock.home })}
          />
        ))}
      </div>
      <p className="quiet">
        Gravity there, and how warm its room is, tell what to leave the clock at here: the rate on its arrival and
        through the year stands on the Rate page and on the owner’s card.
      </p>
    </Fold>
  )
}
