import type { FilmSwing, Place } from '@treadle/core'
import type { RefObject } from 'react'
import type { Scale } from './useScale.ts'
import styles from './Swing.module.css'

/** Over the picture: where the bob was followed, what was tapped, and taking a tap. */
export function Overlay({
  canvas,
  swing,
  scale,
  onTap,
}: {
  canvas: RefObject<HTMLCanvasElement | null>
  swing: FilmSwing | null
  scale: Scale
  onTap: ((place: Place) => void) | null
}) {
  const width = canvas.current?.width ?? 360
  const height = canvas.current?.height ?? 270
  const path = (swing?.path ?? []).flatMap((p) => (p ? [p] : []))
  const last = path.at(-1)
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={onTap ? styles.picking : undefined}
      aria-hidden="true"
      onPointerDown={(event) => {
        if (!onTap) return
        const box = event.currentTarget.getBoundingClientRect()
        onTap({
          x: ((event.clientX - box.left) / box.width) * width,
          y: ((event.clientY - box.top) / box.height) * height,
        })
      }}
    >
      {path.length > 1 && <polyline points={path.map((p) => `${p.x},${p.y}`).join(' ')} className={styles.path} />}
      {last && <circle cx={last.x} cy={last.y} r={5} className={styles.mark} />}
      {Object.entries(scale.places).map(([name, place]) => (
        <circle key={name} cx={place.x} cy={place.y} r={6} className={styles.mark} />
      ))}
    </svg>
  )
}
