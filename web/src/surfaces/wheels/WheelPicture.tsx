import { toothOutline, type ToothFault, type Turn, type WheelHole } from '@treadle/core'
import type { MouseEvent } from 'react'
import styles from './Wheels.module.css'

/** Letters that stand at a tooth: a state is never told by colour alone. */
const LETTER: Record<ToothFault, string> = { bent: 'b', short: 's', worn: 'w', cracked: 'c', missing: 'm' }
const SIZE = 430

interface WheelPictureProps {
  name: string
  count: number
  outsideMm: number
  boreMm: number | null
  faults: { tooth: number; fault: ToothFault }[]
  /** which way it turns as seen from the front; its working flanks are drawn strong */
  flank: Turn | null
  /** pointed teeth, leaning this way */
  escape: Turn | null
  holes?: WheelHole[]
  mirrored?: WheelHole[]
  mirrorDeg?: number | null
  arms?: { count: number; clockAngleDeg: number; widthMm: number } | null
  trueSize?: boolean
  onTooth?: (tooth: number) => void
}

/** A wheel at its true count, as seen from the front; a tooth is tapped to say what it is. Tooth 1 stands at twelve. */
export function WheelPicture({
  name,
  count,
  outsideMm,
  boreMm,
  faults,
  flank,
  escape,
  holes = [],
  mirrored = [],
  mirrorDeg = null,
  arms = null,
  trueSize = false,
  onTooth,
}: WheelPictureProps) {
  const tip = outsideMm / 2
  const space = 360 / count
  const at = (mm: number, deg: number): string => {
    const a = (deg * Math.PI) / 180
    return `${(mm * Math.sin(a)).toFixed(3)} ${(-mm * Math.cos(a)).toFixed(3)}`
  }
  const tooth = toothOutline(count, outsideMm, escape)
  const root = Math.min(...tooth.map((p) => p.mm))
  const byTooth = new Map(faults.map((f) => [f.tooth, f.fault]))
  const outline = Array.from({ length: count }, (_, i) =>
    byTooth.get(i + 1) === 'missing'
      ? [at(root, (i - 0.25) * space), at(root, (i + 0.25) * space)]
      : tooth.map((p) => at(p.mm * (byTooth.get(i + 1) === 'short' ? 0.985 : 1), i * space + p.deg)),
  ).flat()
  const strong = Array.from({ length: count }, (_, i) => {
    if (!flank || byTooth.get(i + 1) === 'missing') return ''
    const side = flank === 'clockwise' ? 1 : -1
    const edge = tooth.filter((p) => p.deg * side > 1e-9 || p.mm === tip)
    return `M${edge.map((p) => at(p.mm, i * space + p.deg)).join('L')}`
  }).join('')
  const room = tip * 1.16
  const tapped = (event: MouseEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    const x = event.clientX - box.left - box.width / 2
    const y = event.clientY - box.top - box.height / 2
    const deg = (Math.atan2(x, -y) * 180) / Math.PI
    onTooth?.((((Math.round(deg / space) % count) + count) % count) + 1)
  }
  const px = outsideMm / 110
  // Marks of neighbouring teeth don't hide each other.
  const mark = Math.min(px * 3.2, tip * 1.08 * Math.sin((space * Math.PI) / 360) * 0.95)
  return (
    <svg
      viewBox={`${-room} ${-room} ${2 * room} ${2 * room}`}
      role="img"
      aria-label={`${name}: ${count} teeth${faults.length === 0 ? '' : `; ${faults.map((f) => `${f.tooth} ${f.fault}`).join(', ')}`}`}
      className={onTooth ? styles.tappable : undefined}
      style={trueSize ? { width: `${2 * room}mm`, height: `${2 * room}mm` } : { width: '100%', maxWidth: SIZE }}
      onClick={tapped}
    >
      <path d={`M${outline.join('L')}Z`} fill="var(--brass-wash)" stroke="var(--brass)" strokeWidth={px * 0.35} />
      <path d={strong} fill="none" stroke="var(--brass)" strokeWidth={px * 0.8} />
      <Crossings root={root} arms={arms} px={px} />
      {boreMm !== null && <circle r={boreMm / 2} fill="var(--ground)" stroke="var(--brass)" strokeWidth={px * 0.35} />}
      {mirrorDeg !== null && mirrored.length > 0 && (
        <path
          d={`M${at(root * 0.98, mirrorDeg)}L${at(root * 0.98, mirrorDeg + 180)}`}
          stroke="var(--quiet)"
          strokeWidth={px * 0.4}
          strokeDasharray={`${2 * px} ${px}`}
        />
      )}
      {holes.map((h) => (
        <circle
          key={`old ${h.name} ${h.xMm} ${h.yMm}`}
          cx={h.xMm}
          cy={-h.yMm}
          r={h.diameterMm / 2}
          fill="var(--ground)"
          stroke="var(--quiet)"
          strokeWidth={px * 0.4}
        />
      ))}
      {mirrored.map((h) => (
        <g key={`new ${h.name} ${h.xMm} ${h.yMm}`}>
          <circle
            cx={h.xMm}
            cy={-h.yMm}
            r={h.diameterMm / 2}
            fill="none"
            stroke="var(--steel)"
            strokeWidth={px * 0.7}
          />
          <path
            d={`M${h.xMm - h.diameterMm} ${-h.yMm}H${h.xMm + h.diameterMm}M${h.xMm} ${-h.yMm - h.diameterMm}V${-h.yMm + h.diameterMm}`}
            stroke="var(--steel)"
            strokeWidth={px * 0.35}
          />
        </g>
      ))}
      {faults.map(({ tooth: n, fault }) => {
        const [x, y] = at(tip * 1.08, (n - 1) * space).split(' ')
        const grave = fault === 'missing' || fault === 'cracked' || fault === 'bent'
        return (
          <g key={n}>
            <circle
              cx={x}
              cy={y}
              r={mark}
              fill="var(--ground)"
              stroke={grave ? 'var(--madder)' : 'var(--amber)'}
              strokeWidth={px * 0.8}
            />
            <text
              x={x}
              y={y}
              fontSize={mark * 1.35}
              textAnchor="middle"
              dominantBaseline="central"
              fill={grave ? 'var(--madder)' : 'var(--amber)'}
            >
              {LETTER[fault]}
            </text>
          </g>
        )
      })}
      <text x={0} y={-root * 0.9} fontSize={px * 4.4} textAnchor="middle" fill="var(--quiet)">
        1
      </text>
    </svg>
  )
}

function Crossings({ root, arms, px }: { root: number; arms: WheelPictureProps['arms']; px: number }) {
  const count = arms?.count ?? 4
  const from = arms?.clockAngleDeg ?? 45
  const wide = arms?.widthMm ?? root * 0.12
  const inner = root * 0.84
  const hub = Math.max(root * 0.3, wide * 0.8)
  const windows = Array.from({ length: count }, (_, i) => {
    const a = from + (i * 360) / count
    const b = from + ((i + 1) * 360) / count
    const gap = (mm: number) => (Math.asin(Math.min(0.9, wide / 2 / mm)) * 180) / Math.PI
    const p = (mm: number, deg: number) => {
      const t = (deg * Math.PI) / 180
      return `${mm * Math.sin(t)} ${-mm * Math.cos(t)}`
    }
    if (a + gap(hub) >= b - gap(hub)) return ''
    return `M${p(inner, a + gap(inner))}A${inner} ${inner} 0 0 1 ${p(inner, b - gap(inner))}L${p(hub, b - gap(hub))}A${hub} ${hub} 0 0 0 ${p(hub, a + gap(hub))}Z`
  }).join('')
  return <path d={windows} fill="var(--ground)" stroke="var(--brass)" strokeWidth={px * 0.3} />
}
