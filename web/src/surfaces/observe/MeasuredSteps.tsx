import { Button, Group, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { PhotoPicker, sendPhotos } from '../../job/PhotoPicker.tsx'
import { useClockChange } from '../../job/useClockChange.ts'
import type { Observations } from '../../job/useObservations.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import styles from './Observe.module.css'
import { wrongBlows } from './steps.ts'

/** Arc and supplementary arc, read off the paper scale: half of what the tip travels. */
export function ArcStep({ seen }: { seen: Observations }) {
  const { clock } = useJobData()
  const save = useClockChange(clock)
  const row = seen.of('arc')
  const arc = row?.figure ?? null
  const drop = row?.second ?? null
  const over = arc !== null && drop !== null ? arc - drop : null
  return (
    <>
      <div className={parts.fields}>
        <Figure
          label="Turns at, each side"
          unit="°"
          value={arc}
          min={0.1}
          max={45}
          onKeep={(figure) => seen.set('arc', { figure })}
        />
        <Figure
          label="Drops at, each side"
          unit="°"
          value={drop}
          min={0.05}
          max={45}
          onKeep={(second) => seen.set('arc', { second })}
        />
      </div>
      {over !== null && (
        <p className={styles.ask}>
          <Mark
            state={over <= 0 ? 'must' : over < 0.3 ? 'watch' : 'sound'}
            label={over <= 0 ? 'none' : 'supplementary arc'}
          />{' '}
          {over <= 0
            ? 'It must swing past its drop: look at both figures again.'
            : `It swings ${over.toFixed(1)}° past the drop: ${over < 0.3 ? 'little to spare' : 'its supplementary arc'}.`}
        </p>
      )}
      {arc !== null && drop !== null && over !== null && over > 0 && (
        <Button
          variant="default"
          disabled={clock.pendulum.semiArcDeg === arc && clock.pendulum.releaseDeg === drop}
          onClick={() => save({ pendulum: { ...clock.pendulum, semiArcDeg: arc, releaseDeg: drop } })}
        >
          Use these for the beat
        </Button>
      )}
      <p className={parts.next}>
        <Link to="../papers?show=scale">Print an arc scale at true size</Link> for this pendulum’s length.
      </p>
    </>
  )
}

/** Blows counted by the pedal, hour by hour. */
export function StrikeStep({ seen, onDone }: { seen: Observations; onDone: () => void }) {
  const { job } = useJobData()
  const counted = Array.from({ length: 12 }, (_, i) => i + 1).flatMap((hour) => {
    const blows = seen.of(`strike ${hour}`)?.figure
    return blows == null ? [] : [{ hour, blows }]
  })
  const firstOpen = Array.from({ length: 12 }, (_, i) => i + 1).find((h) => !counted.some((c) => c.hour === h)) ?? 12
  const [hour, setHour] = useState(firstOpen)
  const [blows, setBlows] = useState(0)
  const wrong = wrongBlows(counted)
  const keep = () => {
    seen.set(`strike ${hour}`, { figure: blows, answer: blows === hour ? 'right' : 'wrong' })
    if (!seen.of('strike-round')) seen.set('strike-round', { answer: 'counted' })
    setHour(hour === 12 ? 1 : hour + 1)
    setBlows(0)
  }
  usePedalAction({
    label: `Press at each blow of ${hour}`,
    hint: `${blows} so far`,
    rhythmic: true,
    press: () => {
      setBlows((n) => n + 1)
      return () => setBlows((n) => Math.max(0, n - 1))
    },
  })
  return (
    <>
      <p className={styles.big}>
        {hour} o’clock: <strong>{blows}</strong> {blows === 1 ? 'blow' : 'blows'}
      </p>
      <Group>
        <Button size="lg" variant="default" onClick={() => setBlows(blows + 1)}>
          A blow
        </Button>
        <Button size="lg" onClick={keep}>
          It has finished
        </Button>
        <Button variant="subtle" onClick={onDone}>
          It goes no further
        </Button>
      </Group>
      <ol className={styles.hours} aria-label="Hours counted">
        {Array.from({ length: 12 }, (_, i) => i + 1).map((h) => {
          const row = counted.find((c) => c.hour === h)
          return (
            <li key={h}>
              <button type="button" aria-current={h === hour} onClick={() => (setHour(h), setBlows(0))}>
                <span>{h}</span>
                {row ? (
                  <>
                    <Mark state={row.blows === h ? 'sound' : 'must'} label={row.blows === h ? 'right' : 'wrong'} />{' '}
                    {row.blows}
                  </>
                ) : (
                  <Mark state="none" label="not counted" />
                )}
              </button>
            </li>
          )
        })}
      </ol>
      {wrong.length > 0 && <p className={styles.ask}>Struck {wrong.join(', ')}.</p>}
      <p>Pictures of the lock positions:</p>
      <PhotoPicker files={[]} onChange={(files) => void sendPhotos(job.id, files)} />
    </>
  )
}

const TOWARD = ['12', '1:30', '3', '4:30', '6', '7:30', '9', '10:30']

/** Which pivot shakes, and which way, while the power is on it. */
export function WearStep({ seen }: { seen: Observations }) {
  const { observations } = useJobData()
  const [arbor, setArbor] = useState('')
  const [plate, setPlate] = useState('back')
  const [toward, setToward] = useState('12')
  const found = observations.filter((o) => o.key.startsWith('wear: '))
  const add = () => {
    if (arbor.trim() === '') return
    seen.set(`wear: ${arbor.trim()}, ${plate} plate`.slice(0, 80), { answer: `toward ${toward}` })
    if (!seen.of('wear')) seen.set('wear', { answer: 'looked' })
    setArbor('')
  }
  return (
    <>
      <div className={parts.fields}>
        <TextInput
          label="Arbor"
          value={arbor}
          maxLength={40}
          onChange={(e) => setArbor(e.currentTarget.value)}
          onKeyDown={(e) => e.key === 'Enter' && add()}
        />
        <NativeSelect
          label="Plate"
          value={plate}
          onChange={(e) => setPlate(e.currentTarget.value)}
          data={['front', 'back']}
        />
        <NativeSelect
          label="Shakes toward, from the front"
          value={toward}
          onChange={(e) => setToward(e.currentTarget.value)}
          data={TOWARD}
        />
        <Button onClick={add} disabled={arbor.trim() === ''}>
          Note it
        </Button>
      </div>
      <Button
        variant="subtle"
        onClick={() => seen.set('wear', { answer: 'none seen' })}
        disabled={seen.of('wear') !== undefined}
      >
        None shakes
      </Button>
      <ul className={parts.list}>
        {found.map((o) => (
          <li key={o.id}>
            <Mark state="watch" label="worn" />
            <span className={parts.grow}>
              {o.key.slice(6)}, {o.answer}
            </span>
            <Button variant="subtle" size="sm" onClick={() => seen.takeBack(o.key)}>
              Take back
            </Button>
          </li>
        ))}
      </ul>
    </>
  )
}
