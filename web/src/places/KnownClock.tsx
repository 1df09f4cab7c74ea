import { ownClockByRate, SECONDS_PER_PPM } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'
import { keepOwnClock } from '../hear/ownClockHost.ts'
import { MicrophonePickup } from '../hear/pickup.ts'
import { useListening } from '../hear/useListening.ts'
import { Figure } from '../parts/Figure.tsx'
import parts from '../parts/parts.module.css'

/** Shorter than this the clock that is heard is not known well enough to set a sound card by, s. */
const LEAST_S = 30

/** This device's sound card against a clock whose rate is known, or against a time signal of a pip a second. */
export function KnownClock() {
  const [beatsPerHour, setBeats] = useState<number | null>(3600)
  const [rate, setRate] = useState<number | null>(0)
  const [good, setGood] = useState<number | null>(0.2)
  // Nothing of an earlier comparison may be in it.
  const listening = useListening({ beatsPerHour: beatsPerHour ?? undefined, ppm: 0 }, '', { uncorrected: true })
  const { status, heard, seconds } = listening
  const on = status === 'listening'
  const told =
    heard && seconds >= LEAST_S && rate !== null && good !== null
      ? ownClockByRate(
          { secondsPerDay: heard.result.rateSecondsPerDay, standardError: heard.result.rateStandardError },
          { secondsPerDay: rate, standardError: good },
          seconds,
        )
      : null
  return (
    <details className={parts.next}>
      <summary>Against a clock whose rate is known, or a time signal</summary>
      <p>
        A quartz clock that was checked for weeks, a regulator with its rate book, or the pips of a time signal, one a
        second: a clock of 3600 beats an hour that gains nothing.
      </p>
      <Group align="end">
        <Figure
          label="It ticks, an hour"
          min={1000}
          max={40_000}
          whole
          value={beatsPerHour}
          disabled={on}
          onKeep={setBeats}
        />
        <Figure label="It gains" unit="s a day" min={-600} max={600} value={rate} onKeep={setRate} />
        <Figure label="Known to" unit="s a day" min={0} max={60} value={good} onKeep={setGood} />
      </Group>
      <p role="status">
        {told
          ? `After ${Math.round(seconds)} s: ${Math.abs(told.ppm).toFixed(1)} ppm ${told.ppm >= 0 ? 'fast' : 'slow'}, ± ${told.standardError.toFixed(1)} ppm, which is ± ${(SECONDS_PER_PPM * told.standardError).toFixed(1)} s a day.`
          : on
            ? `Listening, ${Math.round(seconds)} s. ${heard ? 'It says something after half a minute.' : listening.sentence}`
            : status === 'refused'
              ? listening.sentence
              : ''}
      </p>
      <Group>
        <Button
          variant="default"
          disabled={!on && beatsPerHour === null}
          onClick={() => (on ? listening.stop() : listening.start(new MicrophonePickup()))}
        >
          {on ? 'Stop listening to it' : 'Listen to it'}
        </Button>
        {told && (
          <Button
            onClick={() => {
              keepOwnClock(told)
              listening.stop()
              notifications.show({ message: 'Kept for this device.' })
            }}
          >
            Keep it for this device
          </Button>
        )}
      </Group>
    </details>
  )
}
