import type { PlateMapChange } from '@treadle/contract'
import {
  FieldError,
  fourByDistances,
  rectangle,
  trueByDistance,
  trueByPoints,
  type Pixel,
  type Trueing,
} from '@treadle/core'
import { Button, Group, SegmentedControl } from '@mantine/core'
import { useState } from 'react'
import { queryClient, sayNotKept } from '../../data/queries.ts'
import { useJobData } from '../useJobData.ts'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { PhotoChoice } from '../PhotoChoice.tsx'
import { PhotoPicker, sendPhoto } from '../PhotoPicker.tsx'
import styles from './Plates.module.css'
import { RawPhoto } from './RawPhoto.tsx'

const WAYS = {
  two: { label: 'Two points', points: 2, fields: ['Distance between them'] },
  rectangle: { label: 'A rectangle', points: 4, fields: ['Its width', 'Its height'] },
  four: {
    label: 'Four distances',
    points: 4,
    fields: ['From 1 to 2', 'From 2 to 3', 'From 3 to 4', 'From 4 to 1', 'From 1 across to 3'],
  },
} as const
type Way = keyof typeof WAYS

/** Makes a photo true: two points square on, or four taken from anywhere. `of`: what it shows. */
export function TruePhoto({
  of = 'front plate',
  lay = 'Lay it under the plate',
  before,
  onDone,
  onLeave,
}: {
  of?: string
  /** what is done with it then */
  lay?: string
  before: Pick<PlateMapChange, 'photoId'>
  onDone: (part: Pick<PlateMapChange, 'photoId' | 'trueing'>) => void
  onLeave: () => void
}) {
  const { job, photos } = useJobData()
  const [id, setId] = useState(before.photoId)
  const [way, setWay] = useState<Way>('two')
  const [points, setPoints] = useState<Pixel[]>([])
  const [figures, setFigures] = useState<(number | null)[]>([])
  const photo = photos.find((p) => p.id === id)
  const { points: wanted, fields } = WAYS[way]
  const whole = points.length === wanted && fields.every((_, i) => figures[i] != null)
  const result = whole ? trueingOf(way, points, figures as number[]) : null
  return (
    <div className={styles.columns}>
      <div>
        {photo ? (
          <RawPhoto photo={photo} points={points} onTap={(p) => points.length < wanted && setPoints([...points, p])} />
        ) : (
          <p className={parts.say}>Take a photo of the {of}, or choose one below.</p>
        )}
      </div>
      <section>
        <h2>Make the photo true</h2>
        <SegmentedControl
          aria-label="How it is made true"
          value={way}
          onChange={(w) => {
            setWay(w as Way)
            setPoints([])
            setFigures([])
          }}
          data={Object.entries(WAYS).map(([value, { label }]) => ({ value, label }))}
        />
        <p className={parts.say}>
          {way === 'two'
            ? 'For a photo taken square on: tap two points whose distance you know, such as two pillars or two arbors.'
            : 'For a photo taken from anywhere: tap four points clockwise from the lower left.'}{' '}
          {points.length} of {wanted} are tapped.
        </p>
        <div className={parts.fields}>
          {fields.map((label, i) => (
            <Figure
              key={label}
              label={label}
              unit="mm"
              value={figures[i] ?? null}
              min={0.5}
              max={900}
              onKeep={(v) => setFigures(fields.map((_, n) => (n === i ? v : (figures[n] ?? null))))}
            />
          ))}
        </div>
        {result instanceof FieldError && <p role="alert">{result.message}.</p>}
        <Group mt="sm">
          <Button
            disabled={!photo || !result || result instanceof FieldError}
            onClick={() =>
              photo && result && !(result instanceof FieldError) && onDone({ photoId: photo.id, trueing: result })
            }
          >
            {lay}
          </Button>
          <Button variant="default" disabled={points.length === 0} onClick={() => setPoints(points.slice(0, -1))}>
            Take back a point
          </Button>
          <Button variant="subtle" onClick={onLeave}>
            Leave it
          </Button>
        </Group>
        <h3>Photos of this job</h3>
        <PhotoChoice
          photos={photos}
          chosen={id}
          onChoose={(next) => {
            setId(next)
            setPoints([])
          }}
        />
        <PhotoPicker
          files={[]}
          onChange={([file]) => {
            if (!file) return
            sendPhoto(job.id, file, `${of.charAt(0).toUpperCase()}${of.slice(1)}`).then((made) => {
              setId(made)
              setPoints([])
              void queryClient.invalidateQueries({ queryKey: ['job', job.id] })
            }, sayNotKept)
          }}
        />
      </section>
    </div>
  )
}

function trueingOf(way: Way, points: Pixel[], figures: number[]): Trueing | FieldError {
  try {
    const [a, b, c, d, e] = figures as [number, number, number, number, number]
    if (way === 'two') return trueByDistance(points[0] as Pixel, points[1] as Pixel, a)
    return trueByPoints(points, way === 'rectangle' ? rectangle(a, b) : fourByDistances([a, b, c, d], e))
  } catch (error) {
    if (error instanceof FieldError) return error
    throw error
  }
}
