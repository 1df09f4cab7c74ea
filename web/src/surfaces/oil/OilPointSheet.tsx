import { dropAcrossMm, dropFor, type OilPoint } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { DropPicture } from './DropPicture.tsx'
import styles from './Oil.module.css'

type Sink = { acrossMm: number; depthMm: number }
/** A sink to begin with where one figure only is typed, deep as its width asks: a third of it. */
const DEEP = 1 / 3

/** One point: what, how much, why; its sink with the drop in it. */
export function OilPointSheet({
  point,
  done,
  left,
  locked,
  onTick,
  onLeave,
  onSink,
}: {
  point: OilPoint
  done: boolean
  left: boolean
  locked: boolean
  onTick: (on: boolean) => void
  onLeave: () => void
  onSink: (sink: Sink | null) => void
}) {
  const dry = point.with === 'dry'
  const pivot = point.part === 'pivot' || point.part === 'great pivot'
  const { sink } = point
  const drop = dropFor(point)
  return (
    <div className={styles.sheet}>
      <div>
        <p className={styles.side}>
          {point.reach === ''
            ? { front: 'from the front', back: 'from the back', inside: 'from inside' }[point.side]
            : point.reach}
        </p>
        <h2 className={styles.name}>{point.name}</h2>
        <p className={styles.with}>
          {dry ? 'Stays dry' : point.with}
          {!dry && <>: {point.howMuch}</>}
        </p>
        <p className={parts.say}>{point.why}</p>
        {pivot && (
          <div className={parts.fields}>
            <Figure
              label="Sink, across"
              draftOf={point.key}
              unit="mm"
              value={sink?.acrossMm ?? null}
              min={0.3}
              max={20}
              onKeep={(v) =>
                onSink(v === null ? null : { acrossMm: v, depthMm: Math.min(sink?.depthMm ?? v * DEEP, v / 2) })
              }
            />
            <Figure
              label="Sink, deep"
              draftOf={point.key}
              unit="mm"
              value={sink?.depthMm ?? null}
              min={0.05}
              max={sink === null ? 10 : sink.acrossMm / 2}
              onKeep={(v) => sink !== null && v !== null && onSink({ ...sink, depthMm: v })}
            />
          </div>
        )}
        {drop !== null && (
          <p role="status">
            A drop of {drop.toFixed(2)} µl: {dropAcrossMm(drop).toFixed(2)} mm across on the oiler.
          </p>
        )}
        <Group mt="sm">
          <Button disabled={locked && !done} onClick={() => onTick(!done)}>
            {done ? 'Take it back' : dry ? 'It is dry' : 'Oiled'}
          </Button>
          {!done && !left && (
            <Button variant="subtle" onClick={onLeave}>
              This clock has none
            </Button>
          )}
          {left && (
            <Button variant="subtle" onClick={() => onTick(false)}>
              It has one after all
            </Button>
          )}
        </Group>
      </div>
      {sink !== null && <DropPicture sink={sink} oiled={!dry} name={point.name} />}
    </div>
  )
}
