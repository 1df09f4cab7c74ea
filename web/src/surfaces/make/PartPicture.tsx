import { outlineOfPart, type PartDrawing } from '@treadle/core'
import parts from '../../parts/parts.module.css'
import styles from './Make.module.css'

/** A turned part from the side with its sizes: as large as the page on the screen, at its true size on paper. */
export function PartPicture({ drawing, name }: { drawing: PartDrawing; name: string }) {
  const half = outlineOfPart(drawing)
  const r = Math.max(...half.map((p) => p.radiusMm))
  const long = drawing.lengthMm
  const room = Math.max(long * 0.06, 1)
  const unit = Math.max(long, 3 * r) / 100
  const upper = half.map((p) => `${p.alongMm} ${-p.radiusMm}`)
  const lower = half.toReversed().map((p) => `${p.alongMm} ${p.radiusMm}`)
  const view = { x: -room, y: -r - unit * 10, width: long + 2 * room, height: 2 * r + unit * 21 }
  const title = `${drawing.part}${name === '' ? '' : `, ${name}`}: ${long.toFixed(2)} mm long`
  const sections = drawing.sections.map((s, i) => ({
    ...s,
    from: drawing.sections.slice(0, i).reduce((sum, before) => sum + before.lengthMm, 0),
  }))
  return (
    <figure className={styles.figure}>
      <svg
        viewBox={`${view.x} ${view.y} ${view.width} ${view.height}`}
        className={styles.drawing}
        style={{ '--wide': `${view.width}mm`, '--high': `${view.height}mm` } as React.CSSProperties}
        role="img"
        aria-label={title}
      >
        <path d={`M${[...upper, ...lower].join('L')}Z`} className={styles.body} strokeWidth={unit * 0.35} />
        {drawing.bore && (
          <rect
            x={long - drawing.bore.depthMm}
            y={-drawing.bore.diameterMm / 2}
            width={drawing.bore.depthMm}
            height={drawing.bore.diameterMm}
            className={styles.bore}
            strokeWidth={unit * 0.3}
            strokeDasharray={`${unit} ${unit * 0.7}`}
          />
        )}
        <path
          d={`M${-room * 0.7} 0H${long + room * 0.7}`}
          className={styles.axis}
          strokeWidth={unit * 0.2}
          strokeDasharray={`${unit * 3} ${unit} ${unit * 0.6} ${unit}`}
        />
        {sections.map((s, i) => (
          <g key={s.name} fontSize={unit * 3.2} textAnchor="middle">
            <text x={s.from + s.lengthMm / 2} y={-r - unit * (i % 2 === 0 ? 2 : 5.8)} className={styles.size}>
              Ø {s.diameterMm.toFixed(2)}
            </text>
            <path
              d={`M${s.from} ${r + unit}v${unit * 2}M${s.from} ${r + unit * 2}h${s.lengthMm}M${s.from + s.lengthMm} ${r + unit}v${unit * 2}`}
              className={styles.axis}
              strokeWidth={unit * 0.25}
            />
            <text x={s.from + s.lengthMm / 2} y={r + unit * (i % 2 === 0 ? 6 : 9.6)} className={styles.size}>
              {s.lengthMm.toFixed(2)}
            </text>
          </g>
        ))}
      </svg>
      <figcaption>
        <ul className={parts.say}>
          {drawing.sections.map((s) => (
            <li key={s.name}>
              {s.name}: <b>Ø {s.diameterMm.toFixed(2)}</b> +{s.aboveMm} −{s.belowMm}, {s.lengthMm.toFixed(2)} long
            </li>
          ))}
          {drawing.bore && (
            <li>
              bore: <b>Ø {drawing.bore.diameterMm.toFixed(2)}</b> +{drawing.bore.aboveMm} −{drawing.bore.belowMm}, then
              broached
            </li>
          )}
          <li>
            from {drawing.material}, {drawing.rodMm} mm; all in mm
          </li>
        </ul>
      </figcaption>
    </figure>
  )
}
