import type { FlatPoint, PartDrawing } from '@treadle/core'
import parts from '../../parts/parts.module.css'
import styles from './Make.module.css'

/** A part cut from sheet, from above: as large as the page on the screen, at its true size on paper. */
export function FlatPicture({ drawing, flat, name }: { drawing: PartDrawing; flat: FlatPoint[]; name: string }) {
  const r = drawing.lengthMm / 2
  const bore = (drawing.bore?.diameterMm ?? 0) / 2
  const room = Math.max(2, 0.06 * r)
  const unit = r / 50
  const size = 2 * (r + room)
  return (
    <figure className={styles.figure}>
      <svg
        viewBox={`${-r - room} ${-r - room} ${size} ${size}`}
        className={styles.drawing}
        style={{ '--wide': `${size}mm`, '--high': `${size}mm` } as React.CSSProperties}
        role="img"
        aria-label={`${drawing.part}${name === '' ? '' : `, ${name}`}: ${drawing.lengthMm.toFixed(2)} mm across`}
      >
        <path
          d={`M${flat.map((p) => `${p.xMm.toFixed(3)} ${(-p.yMm).toFixed(3)}`).join('L')}Z`}
          className={styles.body}
          strokeWidth={unit * 0.35}
        />
        <circle r={bore} className={styles.bore} strokeWidth={unit * 0.4} />
        <path
          d={`M${-bore - 3} 0H${bore + 3}M0 ${-bore - 3}V${bore + 3}`}
          className={styles.axis}
          strokeWidth={unit * 0.25}
        />
      </svg>
      <figcaption>
        <ul className={parts.say}>
          <li>
            <b>{drawing.lengthMm.toFixed(2)}</b> across; bore <b>Ø {drawing.bore?.diameterMm.toFixed(2)}</b>, then
            broached to its arbor
          </li>
          <li>
            from {drawing.material}, {drawing.rodMm} mm thick; all in mm
          </li>
        </ul>
      </figcaption>
    </figure>
  )
}
