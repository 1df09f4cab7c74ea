import type { BeatOffset, Hearing, Side } from '@treadle/core'
import { useEffect, useRef } from 'react'
import styles from './Listen.module.css'

/** A swing is drawn through so many places of a sine, straight from one to the next. */
const PLACES = 32
const WIDTH = 800
const HALF = 376
const MIDDLE = WIDTH / 2
const BASE = 226
const BAND = 26

interface Props {
  semiArcDeg: number
  releaseDeg: number
  offset: BeatOffset
  sidesTold: boolean
  /** while it listens: the beats, and when the recording began */
  live: { result: Hearing; firstSide: Side | null; startedMs: number } | null
}

/** The swing itself, at its true arc, with the two releases where they really fall. */
export function SwingPicture({ semiArcDeg: arc, releaseDeg: release, offset, sidesTold, live }: Props) {
  const widest = Math.ceil(arc + 0.8)
  const radius = HALF / Math.sin((widest * Math.PI) / 180)
  const at = (deg: number, out = 0) => {
    const angle = (deg * Math.PI) / 180
    return { x: MIDDLE + (radius + out) * Math.sin(angle), y: BASE - radius + (radius + out) * Math.cos(angle) }
  }
  const band = (from: number, to: number) => {
    const [a, b, c, d] = [at(from, -BAND), at(to, -BAND), at(to), at(from)]
    return `M${a.x} ${a.y}A${radius - BAND} ${radius - BAND} 0 0 0 ${b.x} ${b.y}L${c.x} ${c.y}A${radius} ${radius} 0 0 1 ${d.x} ${d.y}Z`
  }
  const left = -release + offset.offsetDeg
  const right = release + offset.offsetDeg
  const step = widest > 14 ? 5 : widest > 8 ? 2 : 1
  const degrees = Array.from(
    { length: 2 * Math.floor(widest / step) + 1 },
    (_, i) => (i - Math.floor(widest / step)) * step,
  )
  const out = Math.abs(offset.offsetDeg) > 0.01 * arc
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 300`}
      className={styles.swing}
      role="img"
      aria-label={describe(arc, left, right, offset, sidesTold)}
    >
      <line
        x1={MIDDLE}
        x2={MIDDLE}
        y1="22"
        y2={BASE + 12}
        stroke="var(--brass-line)"
        strokeWidth="2"
        strokeDasharray="2 5"
      />
      <text x={MIDDLE - 8} y="34" textAnchor="end" className={styles.brass}>
        plumb
      </text>
      <path d={band(-arc, arc)} fill="var(--line)" opacity="0.7" />
      {sidesTold && (
        <>
          <path d={band(-arc, left)} fill="var(--verdigris)" opacity="0.55" />
          <path d={band(right, arc)} fill="var(--verdigris)" opacity="0.55" />
        </>
      )}
      {degrees.map((deg) => {
        const [from, to, label] = [at(deg, 8), at(deg, deg % (5 * step) === 0 ? 24 : 18), at(deg, 42)]
        return (
          <g key={deg}>
            <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} stroke="var(--ink)" strokeWidth="1.5" />
            <text x={label.x} y={label.y} textAnchor="middle" className={styles.degree}>
              {Math.abs(deg)}°
            </text>
          </g>
        )
      })}
      {sidesTold ? (
        <>
          <Release at={at(left, -BAND - 2)} label="drops here, left" anchor="end" />
          <Release at={at(right, -BAND - 2)} label="drops here, right" anchor="start" />
          {out && (
            <>
              <line
                x1={at(offset.offsetDeg).x}
                x2={at(offset.offsetDeg).x}
                y1="48"
                y2={BASE}
                stroke="var(--madder)"
                strokeWidth="2.5"
              />
              <text
                x={at(offset.offsetDeg).x + (offset.offsetDeg > 0 ? 10 : -10)}
                y="62"
                textAnchor={offset.offsetDeg > 0 ? 'start' : 'end'}
                className={styles.madder}
              >
                middle of the escapement, {Math.abs(offset.offsetDeg).toFixed(2)}°{' '}
                {offset.offsetDeg > 0 ? 'right' : 'left'}
              </text>
            </>
          )}
        </>
      ) : (
        <text x={MIDDLE} y={BASE - BAND - 22} textAnchor="middle" className={styles.untold}>
          which side drops late is not told yet
        </text>
      )}
      <text x={at(-arc).x - 4} y={at(-arc, 64).y} className={styles.sound}>
        end of swing {arc.toFixed(1)}°
      </text>
      <text x={at(arc).x + 4} y={at(arc, 64).y} textAnchor="end" className={styles.sound}>
        end of swing {arc.toFixed(1)}°
      </text>
      <Bob arc={arc} release={right} at={at} radius={radius} live={live} />
    </svg>
  )
}

function Release({ at, label, anchor }: { at: { x: number; y: number }; label: string; anchor: 'start' | 'end' }) {
  return (
    <g>
      <line x1={at.x} x2={at.x} y1="112" y2={at.y - 16} stroke="var(--steel)" strokeWidth="2" />
      <path d={`M${at.x} ${at.y}l-9 -18h18z`} fill="var(--steel)" />
      <text x={at.x} y="102" textAnchor={anchor} className={styles.steel}>
        {label}
      </text>
    </g>
  )
}

/** The bob, moving in step with the beats heard; at rest at the right-hand end when it does not listen. */
function Bob({
  arc,
  release,
  at,
  radius,
  live,
}: {
  arc: number
  release: number
  at: (deg: number, out?: number) => { x: number; y: number }
  radius: number
  live: Props['live']
}) {
  const group = useRef<SVGGElement>(null)
  useEffect(() => {
    const last = live?.result.beats.at(-1)
    if (!live || !last || matchMedia('(prefers-reduced-motion: reduce)').matches) return
    const period = (live.result.intervalsMs[0] + live.result.intervalsMs[1]) / 1000
    const isRight = (last.index % 2 === 0) === (live.firstSide !== 'left')
    // Phase of the release in θ = A·sin(2πt/T): rising through +release on the right, falling through on the left.
    const phase = Math.asin(Math.max(-1, Math.min(1, release / arc))) / (2 * Math.PI) + (isRight ? 0 : 0.5)
    const swings = (Date.now() - live.startedMs) / 1000 - last.atS
    // The browser moves it by itself, without drawing the picture anew: a telephone that listens for long stays cool.
    const motion = group.current?.animate(keyframes(arc), { duration: 1000 * period, iterations: Infinity })
    if (motion) motion.currentTime = 1000 * period * (swings / period + phase)
    return () => motion?.cancel()
  })
  const [top, bob] = [at(0, -240), at(0, -BAND / 2)]
  return (
    <g
      ref={group}
      className={styles.bob}
      style={{ transformOrigin: `${MIDDLE}px ${at(0).y - radius}px`, transform: `rotate(${-arc}deg)` }}
    >
      <line x1={top.x} y1={top.y} x2={bob.x} y2={bob.y} stroke="var(--ink)" strokeWidth="4" />
      <circle cx={bob.x} cy={bob.y} r="30" fill="var(--ground)" stroke="var(--brass-line)" strokeWidth="4" />
      <circle cx={bob.x} cy={bob.y} r="22" fill="none" stroke="var(--brass-line)" strokeWidth="1" />
    </g>
  )
}

/** One whole swing of the bob, from the middle to the right first. */
function keyframes(arc: number): Keyframe[] {
  return Array.from({ length: PLACES + 1 }, (_, i) => ({
    transform: `rotate(${-arc * Math.sin((2 * Math.PI * i) / PLACES)}deg)`,
  }))
}

function describe(arc: number, left: number, right: number, offset: BeatOffset, told: boolean): string {
  if (!told) return `A swing of ${arc} degrees either way. Which side drops late is not told yet.`
  const side = offset.offsetDeg > 0 ? 'right' : 'left'
  return `A swing of ${arc} degrees either way; it drops at ${Math.abs(left).toFixed(2)} degrees on the left and ${Math.abs(right).toFixed(2)} on the right; the middle of the escapement stands ${Math.abs(offset.offsetDeg).toFixed(2)} degrees to the ${side}.`
}
