import {
  distanceMm,
  wheelStands,
  type EscapementAction,
  type EscapementGeometry,
  type Moved,
  type Point,
} from '@treadle/core'
import { useRef, type PointerEvent } from 'react'
import styles from './Escapement.module.css'

/** How thick the body behind a face is, as a share of the arm; the entry's lies inside of it, the exit's outside. */
const BODY = 0.88
/** As much of a face is drawn as this share of the wheel's radius. */
const FACE = 0.3
/** A finger’s way counts for a quarter of itself: an arbor is moved by hundredths. */
const FINE = 0.25

interface Drag {
  what: 'arbor' | 'open' | 'turn'
  scale: DOMMatrix
  x: number
  y: number
  from: Moved
  deg: number
}

interface EscapementPictureProps {
  /** as it is tried */
  geometry: EscapementGeometry
  swingDeg: number
  /** where the pallets stand in their swing, + clockwise */
  palletDeg: number
  action: EscapementAction
  moved: Moved
  bent: number[]
  low: number[]
  onMove: (moved: Moved) => void
  onTurn: (palletDeg: number) => void
}

/**
 * Wheel and pallets at their true scale and angles, as seen from the front. The arbor is dragged nearer or farther, a
 * pallet is dragged to open or close them, the wheel's middle to turn the pallets; all of it is on sliders too.
 */
export function EscapementPicture(props: EscapementPictureProps) {
  const { geometry, swingDeg, palletDeg, action, moved, bent, low, onMove, onTurn } = props
  const svg = useRef<SVGSVGElement>(null)
  const drag = useRef<Drag | null>(null)
  const { teeth, tipRadiusMm: r, centreDistanceMm: c } = geometry
  const stands = wheelStands(geometry, swingDeg, palletDeg) ?? 0
  const pitch = 360 / teeth
  const up = Math.max(r * 0.35, ...[...geometry.palletEntry, ...geometry.palletExit].map((p) => p.yMm))
  const wide = Math.max(
    r * 1.08,
    ...[...geometry.palletEntry, ...geometry.palletExit].map((p) => Math.abs(p.xMm) * 1.1),
  )
  const view = { x: -wide * 1.35, y: -up - r * 0.16, width: wide * 2.7, height: up + c + r * 1.26 }
  const unit = view.width / 100
  const start = (what: 'arbor' | 'open' | 'turn') => (event: PointerEvent) => {
    event.currentTarget.setPointerCapture(event.pointerId)
    // The scale is asked once, where the drag begins: asking again would have the page laid out at every move.
    const scale = svg.current?.getScreenCTM()?.inverse()
    if (!scale) return
    drag.current = { what, scale, ...pointIn(scale, event), from: moved, deg: palletDeg }
  }
  const move = (event: PointerEvent) => {
    const d = drag.current
    if (!d) return
    const now = pointIn(d.scale, event)
    const [dx, dy] = [now.x - d.x, now.y - d.y]
    if (d.what === 'arbor') onMove({ ...d.from, nearerMm: within(d.from.nearerMm + dy * FINE * 0.3, 2) })
    else if (d.what === 'open')
      onMove({
        ...d.from,
        openedDeg: within(d.from.openedDeg + (Math.sign(d.x) * dx * FINE * 180) / (Math.PI * r), 10),
      })
    else onTurn(within(d.deg + (dx / r) * swingDeg, swingDeg))
  }
  const end = () => {
    drag.current = null
  }
  const grips = { onPointerMove: move, onPointerUp: end, onPointerCancel: end }
  const tipAt = (tooth: number, mm = r): [number, number] => {
    const t = ((stands + tooth * pitch) * Math.PI) / 180
    return [mm * Math.sin(t), c - mm * Math.cos(t)]
  }
  const wheel = Array.from({ length: teeth }, (_, i) => {
    const short = low.includes(i + 1) ? 0.985 : 1
    const lean = bent.includes(i + 1) ? 0.25 : 0
    return [tipAt(i - 0.46, r * 0.84), tipAt(i + lean, r * short), tipAt(i + 0.06, r * 0.84)]
  }).flat()
  const place = (p: { xMm: number; yMm: number }) => `${p.xMm.toFixed(3)} ${(-p.yMm).toFixed(3)}`
  return (
    <svg
      ref={svg}
      viewBox={`${view.x} ${view.y} ${view.width} ${view.height}`}
      className={styles.picture}
      role="img"
      aria-label={`Escape wheel of ${teeth} and its pallets, ${c.toFixed(2)} mm apart: ${action.verdict}`}
    >
      <path
        d={`M${wheel.map(([x, y]) => `${x.toFixed(3)} ${y.toFixed(3)}`).join('L')}Z`}
        className={styles.wheel}
        strokeWidth={unit * 0.2}
      />
      <circle cx={0} cy={c} r={r * 0.7} className={styles.rim} strokeWidth={unit * 0.15} />
      {[0, 72, 144, 216, 288].map((deg) => {
        const [x, y] = tipAt((deg - 0) / pitch, r * 0.7)
        return <path key={deg} d={`M0 ${c}L${x} ${y}`} className={styles.arm} strokeWidth={unit * 0.8} />
      })}
      {[...bent, ...low].map((tooth) => {
        const [x, y] = tipAt(tooth - 1, r * 1.03)
        return (
          <g key={tooth}>
            <circle cx={x} cy={y} r={unit * 1.5} className={styles.bad} strokeWidth={unit * 0.4} />
            <text x={x} y={y + unit * 4.2} fontSize={unit * 2.6} textAnchor="middle" className={styles.badWords}>
              {tooth} {bent.includes(tooth) ? 'bent' : 'low'}
            </text>
          </g>
        )
      })}
      <path d={`M0 0V${c}`} className={styles.centres} strokeWidth={unit * 0.3} />
      <text x={unit * 1.2} y={c * 0.62} fontSize={unit * 3.4} className={styles.measured}>
        {c.toFixed(2)} mm
      </text>
      <g transform={`rotate(${palletDeg})`}>
        {(['palletEntry', 'palletExit'] as const).map((side) => {
          // The faces as far as they are used, and the pallet's body behind them towards the arbor.
          const outline = faceOf(geometry[side], c, r)
          const behind = side === 'palletEntry' ? BODY : 2 - BODY
          const body = outline.toReversed().map((p) => ({ xMm: p.xMm * behind, yMm: p.yMm * behind }))
          const mid = body[Math.floor(body.length / 2)] ?? { xMm: 0, yMm: 0 }
          return (
            <g key={side} onPointerDown={start('open')} {...grips} className={styles.grip} data-grip={side}>
              <path
                d={`M0 0Q${(mid.xMm * 0.85).toFixed(3)} ${(-mid.yMm * 0.06 - r * 0.1).toFixed(3)} ${place(mid)}`}
                className={styles.palletArm}
                strokeWidth={unit * 3.4}
              />
              <path
                d={`M${[...outline, ...body].map(place).join('L')}Z`}
                className={styles.pallet}
                strokeWidth={unit * 0.3}
              />
            </g>
          )
        })}
      </g>
      <g onPointerDown={start('arbor')} {...grips} className={styles.grip} data-grip="arbor">
        <circle r={unit * 3.6} className={styles.handle} strokeWidth={unit * 0.5} />
        <path
          d={`M0 ${-unit * 6}l${unit * 1.4} ${unit * 1.8}h${-unit * 2.8}zM0 ${unit * 6}l${unit * 1.4} ${-unit * 1.8}h${-unit * 2.8}z`}
          className={styles.handleArrow}
        />
        <circle r={unit * 1.2} className={styles.arbor} strokeWidth={unit * 0.3} />
      </g>
      <circle
        cx={0}
        cy={c}
        r={unit * 3}
        className={styles.hub}
        strokeWidth={unit * 0.3}
        onPointerDown={start('turn')}
        {...grips}
      />
      {(
        [
          ['entry', -1],
          ['exit', 1],
        ] as const
      ).map(([name, side]) => {
        const told = action[name]
        const x = side * wide * 1.3
        const y = -(geometry[side < 0 ? 'palletEntry' : 'palletExit'].at(-1)?.yMm ?? 0)
        return (
          <g key={name} textAnchor={side < 0 ? 'start' : 'end'}>
            <text x={x} y={y - unit * 5} fontSize={unit * 3.5} fontWeight="600" fill="var(--ink)">
              {told.dropDeg === null ? 'no drop' : `drop ${told.dropDeg.toFixed(1)}°`}
            </text>
            <text x={x} y={y - unit} fontSize={unit * 2.9} fill="var(--quiet)">
              off the {name}
            </text>
            <text x={x} y={y + unit * 2.8} fontSize={unit * 2.9} fill="var(--quiet)">
              {holdWords(told)}
            </text>
          </g>
        )
      })}
    </svg>
  )
}

/** The face of a pallet from the edge that a tooth leaves, so far inwards as it is used. */
function faceOf(outline: Point[], centreDistanceMm: number, tipRadiusMm: number): Point[] {
  const fromWheel = (p: Point) => Math.hypot(p.xMm, p.yMm + centreDistanceMm)
  const edge = outline.reduce((best, p, i) => (fromWheel(p) < fromWheel(outline[best] ?? p) ? i : best), 0)
  const face: Point[] = []
  let along = 0
  for (let i = edge; i >= 0; i--) {
    const [p, before] = [outline[i], face.at(-1)]
    if (!p) break
    const step = before ? distanceMm(before, p) : 0
    const room = FACE * tipRadiusMm - along
    if (before && step > room) {
      face.push({
        xMm: before.xMm + ((p.xMm - before.xMm) * room) / step,
        yMm: before.yMm + ((p.yMm - before.yMm) * room) / step,
      })
      break
    }
    along += step
    face.push(p)
  }
  return face
}

/** How a landed tooth is held: locked, or pushed back. */
function holdWords({ lockDeg, recoilDeg }: EscapementAction['entry']): string {
  if (lockDeg === null || recoilDeg === null) return ''
  return lockDeg < 0.05 && recoilDeg > 0 ? `recoil ${recoilDeg.toFixed(1)}°` : `lock ${lockDeg.toFixed(1)}°`
}

function pointIn(scale: DOMMatrix, { clientX, clientY }: PointerEvent): { x: number; y: number } {
  const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(scale)
  return { x, y }
}

function within(value: number, most: number): number {
  return Math.min(most, Math.max(-most, value))
}
