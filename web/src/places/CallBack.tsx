import { FOOTING_WAY_TITLES, type Clock, type Fingerprint } from '@treadle/contract'
import {
  callBackBySound,
  outOfBeatMs,
  type CallBack as Told,
  type CallBackCause,
  type HowSure,
  type StrikeGroup,
} from '@treadle/core'
import { Button, Checkbox, FileButton } from '@mantine/core'
import { useState } from 'react'
import { useFingerprint } from '../data/queries.ts'
import { useListening } from '../hear/useListening.ts'
import { Mark } from '../parts/Mark.tsx'
import { leaning, whenShort } from '../parts/say.ts'
import styles from './Clocks.module.css'

const SURE: Record<HowSure, string> = { clearly: 'Clearly', likely: 'Likely', perhaps: 'Perhaps' }
const CAUSES: Record<CallBackCause, [is: string, ask: string]> = {
  tilt: [
    'it stands otherwise than when it left: its beat has changed, as of a clock that was moved',
    'Ask whether it was moved or dusted behind. It can often be set even over the telephone: a card under one side, then the other, until it walks evenly.',
  ],
  power: [
    'it gets less power: both sides are quieter',
    'Ask when it was last wound, and whether to the stop; whether a line, a weight or a click is off. Bring what drives it.',
  ],
  dirt: [
    'it runs rougher: its beats scatter more than they did',
    'Ask when it was oiled and where it stands: kitchen, fire, building dust. Bring oil and pegwood; look at its pivots.',
  ],
}

/** A sound file from the owner laid over how the clock sounded when it left: what became of it, and what to ask. */
export function CallBack({ clock }: { clock: Clock }) {
  const { data: left } = useFingerprint(clock.id)
  if (!left) return null
  return <Recording clock={clock} left={left} />
}

function Recording({ clock, left }: { clock: Clock; left: Fingerprint }) {
  const { beatsPerHour, ticks } = clock.pendulum
  const listening = useListening({ beatsPerHour: beatsPerHour ?? undefined, ticks }, '', { strikes: true })
  const [same, setSame] = useState(false)
  const { heard } = listening
  const told = heard
    ? callBackBySound(
        left,
        {
          ...heard.result,
          firstToSecondMs: heard.result.intervalsMs[0],
          secondToFirstMs: heard.result.intervalsMs[1],
        },
        same,
      )
    : null
  return (
    <section aria-label="Called back">
      <h2>Called back</h2>
      <p className="quiet">
        As it left on {whenShort(left.at)}: {outOfBeatMs(left).toFixed(1)} ms out of beat, steady to{' '}
        {left.scatterMs.toFixed(2)} ms
        {left.semiArcDeg === null ? '' : `, swinging ${left.semiArcDeg.toFixed(1)}° either way`}
        {left.footing === null
          ? ''
          : `; in beat at ${leaning(left.footing.evenAtDeg)}, ${FOOTING_WAY_TITLES[left.footing.way]}`}
        . A minute’s sound from the owner’s telephone, held against the case, tells what became of it.
      </p>
      <FileButton onChange={(file) => file && listening.open(file)} accept="audio/*,.wav">
        {(props) => (
          <Button variant="default" loading={listening.status === 'reading'} {...props}>
            A recording from the owner
          </Button>
        )}
      </FileButton>
      <Checkbox
        mt="sm"
        label="Heard by the same microphone at the same place as when it left"
        checked={same}
        onChange={(e) => setSame(e.currentTarget.checked)}
      />
      {listening.status === 'refused' && <p role="alert">{listening.sentence}</p>}
      {told && <Verdict told={told} left={left} />}
      {heard && <Struck clock={clock} strikes={heard.strikes} />}
    </section>
  )
}

/** What it struck in the recording: with the hour its hands showed the owner tells whether it is out of step. */
function Struck({ clock, strikes }: { clock: Clock; strikes: StrikeGroup[] }) {
  if (!clock.work.strike) return null
  return (
    <p>
      {strikes.length === 0
        ? 'It does not strike in this recording. If that is the trouble, ask for one from a minute before the hour to a minute after it.'
        : `In it ${strikes.map((s) => `it strikes ${s.blows}, ${Math.round(s.atS)} s in`).join('; ')}. Ask what hour its hands showed: if another, its strike is out of step, or warns and drops wrongly.`}
    </p>
  )
}

function Verdict({ told, left }: { told: Told; left: Fingerprint }) {
  return (
    <div role="status" className={styles.verdict}>
      {told.causes.length === 0 ? (
        <p>
          <Mark state="sound" /> It goes as it left. If it stops nevertheless, ask for its strike, its hands and its
          moon at that hour.
        </p>
      ) : (
        told.causes.map(({ cause, sure }) => (
          <p key={cause}>
            <Mark state={sure === 'perhaps' ? 'watch' : 'must'} /> <b>{SURE[sure]}</b> {CAUSES[cause][0]}.{' '}
            {CAUSES[cause][1]}
            {cause === 'tilt' &&
              left.footing !== null &&
              ` By the tilt of a telephone laid on it as then, it was in beat at ${leaning(left.footing.evenAtDeg)}.`}
          </p>
        ))
      )}
      <p className="quiet">
        Beat changed by {Math.abs(told.beatChangeMs).toFixed(1)} ± {told.beatChangeError.toFixed(1)} ms; scatter{' '}
        {told.scatterTimes.toFixed(1)} times what it was; {Math.abs(told.quieterDb).toFixed(0)} dB{' '}
        {told.quieterDb >= 0 ? 'quieter' : 'louder'}; it {told.rateChange >= 0 ? 'gains' : 'loses'}{' '}
        {Math.abs(told.rateChange).toFixed(1)} ± {told.rateChangeError.toFixed(1)} s a day against then, by two
        recorders’ own clocks.
      </p>
    </div>
  )
}
