import { SHEET_PART_TITLES } from '@treadle/contract'
import { loweredBy, restOfBob, type Laboratory, type SheetPart, type Suspension } from '@treadle/core'
import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react'
import styles from './Lab.module.css'
import { labelOf, spread } from './labels.ts'

/** The drawing is so high; a pendulum of any length fills it. */
const HEIGHT = 560
const WIDTH = 392
const AXIS = 124
const TOP = 40

interface Drag {
  key: string
  y: number
  scale: number
  from: readonly SheetPart[]
}

interface PendulumPictureProps {
  parts: readonly SheetPart[]
  lab: Laboratory
  suspension: Suspension | null
  /** thread left, mm */
  threadUpMm: number | null
  threadDownMm: number | null
  /** as it is dragged; `over` once it is let go */
  onDrag: (parts: SheetPart[], over: boolean) => void
}

/** What of a part a hand can move, and how the sheet follows. */
interface Grip {
  key: string
  label: string
  valueMm: number
  moved: (from: readonly SheetPart[], mm: number) => SheetPart[]
}

/**
 * A pendulum at its true scale below its cock: what swings, where its weight hangs and where it swings as if all of it
 * were. The bob with all that rides on its nut, the rod's foot, a tray or weight, a column and a sleeve are dragged, or
 * moved by the arrow keys.
 */
export function PendulumPicture(props: PendulumPictureProps) {
  const { parts, lab, suspension, onDrag } = props
  const svg = useRef<SVGSVGElement>(null)
  const drag = useRef<Drag | null>(null)
  const foot = Math.max(lab.footMm, lab.lengthMm, 1)
  const k = (HEIGHT - TOP - 30) / foot
  const y = (mm: number) => TOP + mm * k
  const wide = (mm: number, least = 1) => Math.max(least, mm * k)
  const move = (grip: Grip) => ({
    onPointerDown: (event: PointerEvent) => {
      event.currentTarget.setPointerCapture(event.pointerId)
      // Asked once, where the drag begins: asking again would have the page laid out at every move.
      const height = svg.current?.getBoundingClientRect().height ?? HEIGHT
      const width = svg.current?.getBoundingClientRect().width ?? WIDTH
      const shown = Math.min(height / HEIGHT, width / WIDTH)
      drag.current = { key: grip.key, y: event.clientY, scale: 1 / (shown * k), from: parts }
    },
    onPointerMove: (event: PointerEvent) => {
      const d = drag.current
      if (d?.key === grip.key) onDrag(grip.moved(d.from, tenth((event.clientY - d.y) * d.scale)), false)
    },
    onPointerUp: (event: PointerEvent) => {
      const d = drag.current
      if (d?.key !== grip.key) return
      drag.current = null
      const mm = tenth((event.clientY - d.y) * d.scale)
      if (mm !== 0) onDrag(grip.moved(d.from, mm), true)
    },
    onPointerCancel: () => {
      if (drag.current?.key === grip.key) onDrag([...drag.current.from], true)
      drag.current = null
    },
    onKeyDown: (event: KeyboardEvent) => {
      const step = { ArrowDown: 0.1, ArrowUp: -0.1, PageDown: 0, PageUp: 0 }[event.key] ?? 0
      if (step === 0) return
      event.preventDefault()
      onDrag(grip.moved(parts, event.shiftKey ? step * 10 : step), true)
    },
  })
  const grip = (g: Grip, children: ReactNode) => (
    <g
      key={g.key}
      className={styles.grip}
      role="slider"
      data-grip={g.key.replace(/\d+$/, '')}
      tabIndex={0}
      aria-label={g.label}
      aria-orientation="vertical"
      aria-valuenow={Math.round(g.valueMm * 10) / 10}
      aria-valuetext={`${g.valueMm.toFixed(1)} mm`}
      {...move(g)}
    >
      {children}
    </g>
  )
  const change =
    (index: number, field: 'atMm' | 'lengthMm', sign = 1) =>
    (from: readonly SheetPart[], mm: number): SheetPart[] =>
      from.map((p, i) => (i === index ? { ...p, [field]: Math.max(0.1, (p[field] ?? 0) + sign * mm) } : p))
  const rod = parts.find((p) => p.kind === 'rod')
  const rodAt = parts.findIndex((p) => p.kind === 'rod')
  const rodTop = (rod?.atMm ?? 0) - (rod?.lengthMm ?? 0) / 2
  const rodFoot = (rod?.atMm ?? 0) + (rod?.lengthMm ?? 0) / 2
  const labels = spread(
    [
      { key: 'cg', at: y(lab.cgMm), words: `weight’s centre ${lab.cgMm.toFixed(1)}`, className: styles.measured },
      ...parts.flatMap((p, i) => labelOf(p, i, y, props)),
      { key: 'osc', at: y(lab.lengthMm), words: `swings as if at ${lab.lengthMm.toFixed(1)}`, className: styles.told },
    ],
    HEIGHT,
  )
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={styles.picture}
      role="group"
      aria-label={`The pendulum, true to scale: ${lab.footMm.toFixed(0)} mm to its foot`}
    >
      <rect x={AXIS - 46} y={TOP - 12} width={92} height={7} className={styles.cock} />
      <line x1={AXIS} x2={AXIS} y1={TOP - 6} y2={y(Math.max(0, rodTop))} className={styles.spring} />
      {suspension && (
        <text x={AXIS + 54} y={TOP - 12} className={styles.quiet} fontSize="15">
          spring {suspension.thicknessMm} × {suspension.widthMm} mm
        </text>
      )}
      {lab.hung && (
        <text x={AXIS + 54} y={TOP + 8} className={styles.quiet} fontSize="15">
          bends {lab.hung.bendsAtMm.toFixed(1)} mm below the cock
        </text>
      )}
      {parts.map((p, i) => (p.kind === 'gridiron' ? <Grid key={i} part={p} top={rodTop} y={y} wide={wide} /> : null))}
      {rod &&
        grip(
          {
            key: 'rod',
            label: 'Rod, its foot',
            valueMm: rodFoot,
            moved: (from, mm) =>
              from.map((p, i) =>
                i === rodAt
                  ? { ...p, lengthMm: Math.max(1, (p.lengthMm ?? 0) + mm), atMm: Math.max(0.5, (p.atMm ?? 0) + mm / 2) }
                  : p,
              ),
          },
          <>
            <rect
              x={AXIS - wide(rod.acrossMm ?? 6, 3) / 2}
              width={wide(rod.acrossMm ?? 6, 3)}
              y={y(rodTop)}
              height={Math.max(1, y(rodFoot) - y(rodTop))}
              className={styles.rod}
            />
            <rect x={AXIS - 14} y={y(rodFoot) - 8} width={28} height={16} rx={8} className={styles.halo} />
          </>,
        )}
      {parts.map((p, i) => {
        switch (p.kind) {
          case 'sleeve':
            return grip(
              {
                key: `sleeve${i}`,
                label: 'Sleeve, its length',
                valueMm: p.lengthMm ?? 0,
                moved: change(i, 'lengthMm'),
              },
              <Sleeve part={p} parts={parts} y={y} wide={wide} />,
            )
          case 'bob':
            return grip(
              { key: `bob${i}`, label: 'Bob, how deep', valueMm: p.atMm ?? 0, moved: loweredBy },
              <Bob part={p} y={y} wide={wide} />,
            )
          case 'jar':
            return grip(
              {
                key: `jar${i}`,
                label: `${p.material === 'shot' ? 'Shot' : 'Mercury'}, how high it stands`,
                valueMm: p.lengthMm ?? 0,
                moved: change(i, 'lengthMm', -1),
              },
              <Jar part={p} y={y} wide={wide} />,
            )
          case 'nut':
            return (
              <g key={i}>
                <Travel at={p.atMm ?? 0} up={props.threadUpMm} down={props.threadDownMm} y={y} />
                <rect
                  x={AXIS - wide(p.acrossMm ?? 24, 14) / 2}
                  width={wide(p.acrossMm ?? 24, 14)}
                  y={y(p.atMm ?? 0) - wide(p.lengthMm ?? 8, 8) / 2}
                  height={wide(p.lengthMm ?? 8, 8)}
                  className={styles.rising}
                />
              </g>
            )
          case 'tray':
          case 'weight':
            return grip(
              {
                key: `${p.kind}${i}`,
                label: `${SHEET_PART_TITLES[p.kind]}, how deep`,
                valueMm: p.atMm ?? 0,
                moved: change(i, 'atMm'),
              },
              <>
                {p.kind === 'tray' ? (
                  <rect x={AXIS - 24} width={48} y={y(p.atMm ?? 0) - 3} height={7} className={styles.tray} />
                ) : (
                  <circle cx={AXIS - 9} cy={y(p.atMm ?? 0) - 7} r={5.5} className={styles.weight} />
                )}
                <rect x={AXIS - 28} y={y(p.atMm ?? 0) - 14} width={56} height={24} rx={6} className={styles.halo} />
              </>,
            )
          default:
            return null
        }
      })}
      <line x1={AXIS - 92} x2={AXIS + 96} y1={y(lab.cgMm)} y2={y(lab.cgMm)} className={styles.measuredLine} />
      <line x1={AXIS - 112} x2={AXIS + 96} y1={y(lab.lengthMm)} y2={y(lab.lengthMm)} className={styles.toldLine} />
      {labels.map(({ key, at, words, className }) => (
        <text key={key} x={AXIS + 102} y={at + 5} className={className} fontSize="16">
          {words}
        </text>
      ))}
    </svg>
  )
}

type Scale = (mm: number) => number
type Wide = (mm: number, least?: number) => number

function Bob({ part, y, wide }: { part: SheetPart; y: Scale; wide: Wide }) {
  const at = y(part.atMm ?? 0)
  const across = wide(part.acrossMm ?? 10, 10)
  if (part.shape === 'cylinder') {
    const high = wide(part.lengthMm ?? 10, 10)
    return <rect x={AXIS - across / 2} width={across} y={at - high / 2} height={high} rx={3} className={styles.bob} />
  }
  return (
    <>
      <circle cx={AXIS} cy={at} r={across / 2} className={styles.bob} />
      {part.shape === 'lens' && (
        <circle cx={AXIS} cy={at} r={across / 3.4} fill="none" stroke="var(--brass)" strokeOpacity="0.5" />
      )}
      {part.shape === 'ball' && (
        <ellipse cx={AXIS} cy={at} rx={across / 2} ry={across / 8} fill="none" stroke="var(--brass)" />
      )}
      <circle cx={AXIS} cy={at} r={across / 2 + 4} className={styles.halo} />
    </>
  )
}

/** How far the nut can go either way on its thread, beside it. */
function Travel({ at, up, down, y }: { at: number; up: number | null; down: number | null; y: Scale }) {
  if (up === null && down === null) return null
  const [from, to] = [y(at - (up ?? 0)), y(at + (down ?? 0))]
  return (
    <path
      d={`M${AXIS + 20} ${from}h7M${AXIS + 20} ${to}h7M${AXIS + 23.5} ${from}V${to}`}
      className={styles.travel}
      aria-hidden
    />
  )
}

function Jar({ part, y, wide }: { part: SheetPart; y: Scale; wide: Wide }) {
  const [bottom, column, inside] = [part.atMm ?? 0, part.lengthMm ?? 0, part.acrossMm ?? 30]
  const across = wide(inside, 8)
  return (
    <>
      <rect
        x={AXIS - across / 2}
        width={across}
        y={y(bottom - column)}
        height={Math.max(1, y(bottom) - y(bottom - column))}
        className={styles.filled}
      />
      <rect
        x={AXIS - across / 2 - 2}
        width={across + 4}
        y={y(bottom - column * 1.15)}
        height={Math.max(1, y(bottom) - y(bottom - column * 1.15)) + 2}
        className={styles.glass}
      />
      <rect
        x={AXIS - across / 2 - 7}
        width={across + 14}
        y={y(bottom - column) - 9}
        height={18}
        rx={8}
        className={styles.halo}
      />
    </>
  )
}

function Sleeve({ part, parts, y, wide }: { part: SheetPart; parts: readonly SheetPart[]; y: Scale; wide: Wide }) {
  if (!parts.some((p) => p.kind === 'bob' && p.atMm !== null)) return null
  const top = restOfBob(parts)
  const across = wide(part.acrossMm ?? 12, 9)
  const high = Math.max(2, y(top + (part.lengthMm ?? 0)) - y(top))
  return (
    <>
      <rect x={AXIS - across / 2} width={across} y={y(top)} height={high} className={styles.sleeve} />
      <rect x={AXIS - 14} y={y(top) + high - 8} width={28} height={16} rx={8} className={styles.halo} />
    </>
  )
}

function Grid({ part, top, y, wide }: { part: SheetPart; top: number; y: Scale; wide: Wide }) {
  const pairs = part.pairs ?? 0
  const across = wide(part.acrossMm ?? 6, 2.5)
  const high = Math.max(1, y(top + (part.lengthMm ?? 0)) - y(top))
  return (
    <>
      {Array.from({ length: pairs * 2 }, (_, i) =>
        [-1, 1].map((side) => (
          <rect
            key={`${i} ${side}`}
            x={AXIS + side * (i + 1) * across * 1.9 - across / 2}
            width={across}
            y={y(top)}
            height={high}
            className={i % 2 === 0 ? styles.rising : styles.rod}
          />
        )),
      )}
    </>
  )
}

function tenth(mm: number): number {
  return Math.round(mm * 10) / 10
}
