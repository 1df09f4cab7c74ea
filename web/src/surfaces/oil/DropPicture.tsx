import { sinkFilledToMm } from '@treadle/core'
import styles from './Oil.module.css'

/** An oil sink cut through, with its drop: large, and beside it at its true size as screens have it. */
export function DropPicture({
  sink: { acrossMm, depthMm },
  oiled,
  name,
}: {
  sink: { acrossMm: number; depthMm: number }
  oiled: boolean
  name: string
}) {
  const a = acrossMm / 2
  const d = Math.min(depthMm, a)
  const ball = (a * a + d * d) / (2 * d)
  const high = sinkFilledToMm(acrossMm, d)
  // Half as wide as the ball is there: from the deepest place up to the oil.
  const half = Math.sqrt(Math.max(0, ball * ball - (ball - high) ** 2))
  const room = acrossMm * 0.3
  const box = `${-a - room} ${-room} ${acrossMm + 2 * room} ${d + 2.4 * room}`
  const cup = `A${ball} ${ball} 0 0 1`
  return (
    <figure className={styles.drop}>
      <svg
        viewBox={box}
        role="img"
        aria-label={`The sink of ${name}, ${acrossMm.toFixed(2)} mm across, filled ${high.toFixed(2)} mm of ${d.toFixed(2)} mm deep`}
      >
        <path
          className={styles.plate}
          d={`M${-a - room} 0H${-a}${`A${ball} ${ball} 0 0 0 ${a} 0`}H${a + room}V${d + room}H${-a - room}Z`}
        />
        {oiled && <path className={styles.oil} d={`M${half} ${d - high}${cup}${-half} ${d - high}Z`} />}
        <path className={styles.level} d={`M${-a - room} 0H${-a}M${a} 0H${a + room}`} />
      </svg>
      <figcaption>
        <svg
          width={`${acrossMm}mm`}
          height={`${acrossMm}mm`}
          viewBox={`${-a} ${-a} ${acrossMm} ${acrossMm}`}
          aria-hidden="true"
        >
          <circle r={a * 0.97} className={styles.plate} />
          {oiled && <circle r={half} className={styles.oil} />}
        </svg>
        <span className="quiet">true size, from above</span>
      </figcaption>
    </figure>
  )
}
