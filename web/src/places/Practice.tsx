import { EMPTY_PENDULUM } from '@treadle/contract'
import {
  checkPracticeClock,
  DEFAULT_PRACTICE_CLOCK,
  FieldError,
  practiceTrain,
  type PracticeClock,
} from '@treadle/core'
import { Button, Checkbox } from '@mantine/core'
import { useState } from 'react'
import { Figure } from '../parts/Figure.tsx'
import { useSettings } from '../data/queries.ts'
import { PedalBar } from '../pedal/PedalBar.tsx'
import { usePedalAction } from '../pedal/Pedal.tsx'
import listenStyles from '../hear/Listen.module.css'
import { ListenView } from '../hear/ListenView.tsx'
import { PracticePickup } from '../hear/pickup.ts'
import { useListening } from '../hear/useListening.ts'
import styles from './Practice.module.css'

const FIELDS: [field: Exclude<keyof PracticeClock, 'seed'>, label: string, step: number][] = [
  ['beatsPerHour', 'Beats an hour', 600],
  ['rateSecondsPerDay', 'Gains, s a day', 10],
  ['semiArcDeg', 'Semi-arc, °', 0.5],
  ['releaseDeg', 'Release angle, °', 0.25],
  ['offsetDeg', 'Escapement off plumb, ° right', 0.1],
  ['scatterMs', 'Scatter of a beat, ms', 0.1],
  ['loudnessRight', 'Loudness, right', 0.05],
  ['loudnessLeft', 'Loudness, left', 0.05],
  ['noise', 'Noise of the room', 0.005],
  ['escapeTeeth', 'Teeth of its escape wheel', 1],
  ['toothLateMs', 'One tooth drops late, ms', 0.5],
  ['wobbleMs', 'A wheel out of round, ± ms', 0.5],
  ['wobblePeriodS', 'That wheel turns once in, s', 10],
]

const PRACTICE_WHEELS = ['centre wheel', 'third wheel', 'escape wheel']

/** The practice clock: set it wrong, hear it, put it right. */
export function Practice() {
  const { data: settings } = useSettings()
  const [clock, setClock] = useState<PracticeClock>(DEFAULT_PRACTICE_CLOCK)
  const [aloud, setAloud] = useState(false)
  const wrong = fieldErrorOf(clock)
  const train = wrong ? null : practiceTrain(clock)
  const listening = useListening({
    beatsPerHour: clock.beatsPerHour,
    teeth: wrong ? undefined : clock.escapeTeeth,
    train: train ?? undefined,
  })
  const start = () => listening.start(new PracticePickup(clock, aloud))
  usePedalAction(
    listening.status === 'listening'
      ? listening.heard && listening.taps < 5
        ? {
            label: 'Press as the bob reaches the right',
            hint: `${listening.taps} of 5 taps`,
            press: (atMs) => listening.tap(atMs),
            rhythmic: true,
          }
        : { label: 'Press to stop it', press: listening.stop }
      : wrong
        ? null
        : { label: 'Press to set the practice clock going', press: start },
  )
  if (!settings) return null
  return (
    <div style={{ paddingBottom: 88 }}>
      <h1>Practice clock</h1>
      <ListenView
        listening={listening}
        pendulum={{
          ...EMPTY_PENDULUM,
          semiArcDeg: clock.semiArcDeg,
          releaseDeg: clock.releaseDeg,
          crutchLengthMm: 120,
          footSpacingMm: 300,
          caseHeightMm: 700,
        }}
        settings={settings}
        train={train && { ...train, names: PRACTICE_WHEELS }}
        sources={
          <div className={listenStyles.sources}>
            {listening.status === 'listening' ? (
              <Button onClick={listening.stop}>Stop it</Button>
            ) : (
              <Button onClick={start} disabled={wrong !== null}>
                Set it going
              </Button>
            )}
            <Checkbox
              label="Let me hear it"
              checked={aloud}
              onChange={(e) => setAloud(e.currentTarget.checked)}
              disabled={listening.status === 'listening'}
            />
          </div>
        }
        aside={
          <div className={styles.fields}>
            <h3>How it is made</h3>
            {FIELDS.map(([field, label]) => (
              <Figure
                key={field}
                label={label}
                value={clock[field]}
                disabled={listening.status === 'listening'}
                error={wrong?.field === field && `${label}: ${wrong.allowed}`}
                onKeep={(value) => value !== null && Number.isFinite(value) && setClock({ ...clock, [field]: value })}
                atOnce
              />
            ))}
          </div>
        }
      />
      <PedalBar />
    </div>
  )
}

function fieldErrorOf(clock: PracticeClock): FieldError | null {
  try {
    checkPracticeClock(clock)
    return null
  } catch (error) {
    if (error instanceof FieldError) return error
    throw error
  }
}
