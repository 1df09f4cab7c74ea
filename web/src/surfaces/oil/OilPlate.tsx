import type { OilPoint } from '@treadle/core'
import { Fixtures } from '../../job/plates/Fixtures.tsx'
import { frameOf } from '../../job/plates/frame.ts'
import { useJobData } from '../../job/useJobData.ts'
import styles from './Oil.module.css'

/** A plate to scale with its oil points where they are; nothing where the plates are not set out. */
export function OilPlate({
  side,
  points,
  done,
  left,
  chosen,
  onChoose,
}: {
  side: 'front' | 'back'
  points: OilPoint[]
  done: string[]
  left: string[]
  chosen: string
  onChoose: (point: OilPoint) => void
}) {
  const { plateMap } = useJobData()
  if (!plateMap) return null
  const mirrored = side === 'back'
  const frame = frameOf(plateMap, mirrored)
  const unit = Math.max(frame.width, frame.height) / 100
  const x = (mm: number) => (mirrored ? -mm : mm)
  const placed = points.flatMap((p) => {
    if (p.side !== side && !(p.side === 'inside' && p.key.endsWith(` ${side}`))) return []
    const arbor = plateMap.arbors.find((a) => p.key === `${a.train} ${a.name} ${side}`)
    return arbor?.xMm == null || arbor.yMm === null ? [] : [{ point: p, at: { x: x(arbor.xMm), y: -arbor.yMm } }]
  })
  if (placed.length === 0) return null
  return (
    <figure className={styles.map}>
      <svg
        viewBox={`${frame.left} ${frame.top} ${frame.width} ${frame.height}`}
        role="group"
        aria-label={`The ${side} plate${mirrored ? ', mirrored: as seen from the back' : ', as seen from the front'}`}
      >
        {plateMap.edge.length > 0 && (
          <path
            className={styles.edge}
            d={`M${plateMap.edge.map((p) => `${x(p.xMm)} ${-p.yMm}`).join('L')}Z`}
            strokeWidth={unit / 3}
          />
        )}
        <Fixtures fixtures={plateMap.fixtures} plate={side} x={x} unit={unit} />
        {placed.map(({ point, at }) => {
          const r = Math.max(1.9 * unit, (point.sink?.acrossMm ?? 0) / 2)
          const ticked = done.includes(point.key)
          const out = left.includes(point.key)
          const press = () => onChoose(point)
          return (
            <g
              key={point.key}
              transform={`translate(${at.x} ${at.y})`}
              role="button"
              tabIndex={-1}
              aria-pressed={point.key === chosen}
              aria-label={`${point.name}: ${point.with}, ${ticked ? 'ticked off' : out ? 'left out' : 'open'}`}
              className={styles.point}
              onClick={press}
              onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && press()}
            >
              <circle r={5 * unit} className={styles.touch} />
              {point.key === chosen && <circle r={3.6 * unit} className={styles.chosen} strokeWidth={unit / 2.5} />}
              <circle r={r} className={styles.ring} strokeWidth={unit / 2.2} />
              {ticked && <circle r={r * 0.62} className={styles.filled} />}
              {out && <path d={`M${-r} 0H${r}`} className={styles.ring} strokeWidth={unit / 2.2} />}
              <text y={r + 3.2 * unit} textAnchor="middle" fontSize={2.9 * unit} className={styles.words}>
                {point.name.split(',')[0]}
              </text>
            </g>
          )
        })}
      </svg>
      <figcaption className="quiet">{mirrored ? 'Seen from the back: mirrored.' : 'Seen from the front.'}</figcaption>
    </figure>
  )
}
