import { formatClockDirection, holeOutline, type BushingPlan } from '@treadle/core'
import type { PointerEvent } from 'react'
import type { Measured } from './measure.ts'
import styles from './Holes.module.css'

const SIZE = 500
const MIDDLE = SIZE / 2
const PLATE_RADIUS = 225

/**
 * The hole to scale, as it is filled in: slot, original circle and centre, crescent to file back, cutter, bush, pivot.
 *
 * The rim is a clock face: a tap on it says which way the hole is worn.
 */
export function HolePicture({
  figures,
  plan,
  plate,
  onWear,
}: {
  figures: Measured
  plan: BushingPlan | null
  plate: 'front' | 'back'
  onWear: (text: string) => void
}) {
  const { longAxisMm, shortAxisMm, pivotMm, wearDeg } = figures
  const widest = plan ? (plan.cutterMm ?? plan.leastCutterMm) : (longAxisMm ?? 2) * 1.6
  const scale = (1.32 * PLATE_RADIUS) / widest
  const outline =
    longAxisMm !== null && shortAxisMm !== null
      ? holeOutline({ longAxisMm, shortAxisMm, pivotMm: pivotMm ?? shortAxisMm }, wearDeg ?? 0)
      : null
  const r = (outline?.shortRadiusMm ?? 0) * scale
  const at = (p: { x: number; y: number }) => ({ cx: MIDDLE + p.x * scale, cy: MIDDLE + p.y * scale })
  const ruler = widest > 12 ? 5 : widest > 5 ? 2 : widest > 2.2 ? 1 : 0.5

  const tap = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    const x = event.clientX - box.left - box.width / 2
    const y = event.clientY - box.top - (box.height * MIDDLE) / (SIZE + 30)
    if (Math.hypot(x, y) < box.width * 0.04) return
    onWear(formatClockDirection((Math.atan2(x, -y) * 180) / Math.PI))
  }
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE + 30}`}
      className={styles.picture}
      onPointerDown={tap}
      role="img"
      aria-label={describe(figures, plan)}
    >
      <defs>
        <pattern id="brass" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="9" height="9" fill="var(--brass-wash)" />
          <line x1="0" y1="0" x2="0" y2="9" stroke="var(--brass-line)" strokeWidth="0.8" opacity="0.5" />
        </pattern>
        <pattern id="file" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-35)">
          <line x1="0" y1="0" x2="0" y2="6" stroke="var(--madder)" strokeWidth="1.4" />
        </pattern>
      </defs>
      <circle cx={MIDDLE} cy={MIDDLE} r={PLATE_RADIUS} fill="url(#brass)" />
      {Array.from({ length: 12 }, (_, hour) => (
        <g key={hour} transform={`rotate(${hour * 30} ${MIDDLE} ${MIDDLE})`}>
          <line
            x1={MIDDLE}
            x2={MIDDLE}
            y1={MIDDLE - PLATE_RADIUS - 2}
            y2={MIDDLE - PLATE_RADIUS + (hour % 3 === 0 ? 12 : 7)}
            stroke="var(--brass)"
            strokeWidth="2"
          />
        </g>
      ))}
      {[12, 3, 6, 9].map((hour) => {
        const angle = (hour * Math.PI) / 6
        return (
          <text
            key={hour}
            x={MIDDLE + Math.sin(angle) * (PLATE_RADIUS + 13)}
            y={MIDDLE - Math.cos(angle) * (PLATE_RADIUS + 13) + 5}
            textAnchor="middle"
            className={styles.hour}
          >
            {hour}
          </text>
        )
      })}
      {plan && (
        <circle
          cx={MIDDLE}
          cy={MIDDLE}
          r={((plan.cutterMm ?? plan.leastCutterMm) / 2) * scale}
          fill="var(--paper)"
          stroke="var(--steel)"
          strokeWidth="2.5"
          strokeDasharray="10 6"
        />
      )}
      {outline && (
        <>
          <path
            d={sweep(outline.filedCentre, r, scale)}
            fill="url(#file)"
            stroke="var(--madder)"
            strokeWidth="1.5"
            strokeDasharray="5 4"
          />
          <path d={sweep(outline.wornCentre, r, scale)} fill="#3a3428" stroke="var(--ink)" strokeWidth="2" />
          <circle
            {...at({ x: 0, y: 0 })}
            r={r}
            fill="none"
            stroke="var(--paper)"
            strokeWidth="1.6"
            strokeDasharray="4 4"
          />
          {pivotMm !== null && (
            <circle
              {...at(outline.pivotCentre)}
              r={outline.pivotRadiusMm * scale}
              fill="var(--steel-metal)"
              stroke="#1b1d22"
              strokeWidth="1.5"
            />
          )}
          <Found r={plan ? (plan.finishedHoleMm / 2) * scale : null} />
          {wearDeg !== null && (
            <g transform={`rotate(${wearDeg} ${MIDDLE} ${MIDDLE})`}>
              <path
                d={`M${MIDDLE} ${MIDDLE - r - outline.shortRadiusMm * scale * 0.1 - Math.abs(longAxisMm! - shortAxisMm!) * scale}V48`}
                stroke="var(--madder)"
                strokeWidth="3"
              />
              <path d={`M${MIDDLE} 34l-8 20h16z`} fill="var(--madder)" />
            </g>
          )}
        </>
      )}
      {outline && plan && (
        <>
          <Leader
            x={4}
            y={22}
            to={toward(outline.filedCentre, r, scale, 1)}
            text="file this back"
            colour="var(--madder)"
          />
          <Leader
            x={SIZE - 4}
            y={22}
            to={toward(outline.pivotCentre, 0, scale, 0)}
            text="pivot, in the wear"
            colour="var(--ink)"
            end
          />
          <Leader x={4} y={SIZE - 12} to={{ x: MIDDLE, y: MIDDLE }} text="original centre" colour="var(--steel)" />
          <Leader
            x={SIZE - 4}
            y={SIZE - 12}
            to={{
              x: MIDDLE + ((plan.cutterMm ?? plan.leastCutterMm) / 2) * scale * 0.71,
              y: MIDDLE + ((plan.cutterMm ?? plan.leastCutterMm) / 2) * scale * 0.71,
            }}
            text={`cutter ${(plan.cutterMm ?? plan.leastCutterMm).toFixed(2)}`}
            colour="var(--steel)"
            end
          />
        </>
      )}
      <g transform={`translate(8 ${SIZE + 14})`} stroke="var(--quiet)" strokeWidth="1.5">
        <path d={`M0 -5v10M0 0h${ruler * scale}M${ruler * scale} -5v10`} />
        <text x={ruler * scale + 8} y="5" stroke="none" className={styles.ruler}>
          {ruler} mm; {plate} plate{plate === 'back' && ', as seen from the front'}
        </text>
      </g>
    </svg>
  )
}

/** The old centre and the finished hole about it, edged so that they show on metal and in the worn hole alike. */
function Found({ r }: { r: number | null }) {
  const cross = `M${MIDDLE - 14} ${MIDDLE}h28M${MIDDLE} ${MIDDLE - 14}v28`
  return (
    <g fill="none" style={{ pointerEvents: 'none' }}>
      <g stroke="var(--paper)">
        <path d={cross} strokeWidth="6" />
        {r !== null && <circle cx={MIDDLE} cy={MIDDLE} r={r} strokeWidth="3.5" />}
      </g>
      <g stroke="var(--steel)">
        <path d={cross} strokeWidth="3" />
        {r !== null && <circle cx={MIDDLE} cy={MIDDLE} r={r} strokeWidth="1.5" />}
      </g>
    </g>
  )
}

/** A label in a corner with a line to what it names. */
function Leader({
  x,
  y,
  to,
  text,
  colour,
  end = false,
}: {
  x: number
  y: number
  to: { x: number; y: number }
  text: string
  colour: string
  end?: boolean
}) {
  const from = { x: end ? x - 26 : x + 26, y: y < MIDDLE ? y + 8 : y - 18 }
  return (
    <g style={{ pointerEvents: 'none' }}>
      <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} stroke={colour} strokeWidth="1.3" />
      <text x={x} y={y} textAnchor={end ? 'end' : 'start'} fill={colour} className={styles.label}>
        {text}
      </text>
    </g>
  )
}

/** The outer side of a swept circle: its centre (mm), and on by `by` radii (px). */
function toward(centre: { x: number; y: number }, r: number, scale: number, by: number): { x: number; y: number } {
  const length = Math.hypot(centre.x, centre.y) || 1
  return {
    x: MIDDLE + centre.x * scale + (0.85 * by * r * centre.x) / length,
    y: MIDDLE + centre.y * scale + (0.85 * by * r * centre.y) / length,
  }
}

/** A circle of radius r (px) about the original centre swept to another centre (mm). */
function sweep(to: { x: number; y: number }, r: number, scale: number): string {
  const x = to.x * scale
  const y = to.y * scale
  const length = Math.hypot(x, y)
  if (length < 0.01) return `M${MIDDLE - r} ${MIDDLE}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`
  const nx = (-y / length) * r
  const ny = (x / length) * r
  return `M${MIDDLE + nx} ${MIDDLE + ny}A${r} ${r} 0 0 1 ${MIDDLE - nx} ${MIDDLE - ny}L${MIDDLE - nx + x} ${MIDDLE - ny + y}A${r} ${r} 0 0 1 ${MIDDLE + nx + x} ${MIDDLE + ny + y}Z`
}

function describe({ longAxisMm, shortAxisMm, wearDeg, pivotMm }: Measured, plan: BushingPlan | null): string {
  if (longAxisMm === null || shortAxisMm === null)
    return 'The hole, not measured yet. Tap the rim to say which way it is worn.'
  const worn = wearDeg === null ? '' : `, worn toward ${formatClockDirection(wearDeg)}`
  const cutter = plan
    ? `; the original centre lies ${plan.originalCentreOffsetMm.toFixed(2)} mm back from the middle of the slot`
    : ''
  return `The hole, ${longAxisMm.toFixed(2)} by ${shortAxisMm.toFixed(2)} mm${worn}, pivot ${pivotMm?.toFixed(2) ?? 'not measured'}${cutter}`
}
