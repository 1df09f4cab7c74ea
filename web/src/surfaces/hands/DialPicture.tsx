import { DIAL_MINUTES, dialTime } from '@treadle/core'
import { useRef, useState } from 'react'
import styles from './Hands.module.css'

const HOURS = Array.from({ length: 12 }, (_, i) => i + 1)
const ROMAN = ['I', 'II', 'III', 'IIII', 'V', 'VI', 'VII', 'VIII', 'IX', 'X', 'XI', 'XII']

/** A point of the dial at so many degrees past twelve. */
function at(deg: number, radius: number): { x: number; y: number } {
  const rad = (deg * Math.PI) / 180
  return { x: radius * Math.sin(rad), y: -radius * Math.cos(rad) }
}

/**
 * A dial drawn with its hands; two taps set it: where the hour hand points, then where the minute hand does. The second
 * tells which hour the first meant: hands that can't stand so together are read as the nearest that can.
 */
export function DialPicture({
  minutes,
  label,
  onSet,
  stops = [],
}: {
  /** minutes past twelve; null: not said */
  minutes: number | null
  label: string
  onSet?: ((minutes: number) => void) | undefined
  /** where it stops on its way, minutes past twelve */
  stops?: number[]
}) {
  const svg = useRef<SVGSVGElement>(null)
  const [hourDeg, setHourDeg] = useState<number | null>(null)
  const tap = (clientX: number, clientY: number) => {
    const box = svg.current?.getBoundingClientRect()
    if (!box || !onSet) return
    const [x, y] = [clientX - box.left - box.width / 2, clientY - box.top - box.height / 2]
    const deg = ((Math.atan2(x, -y) * 180) / Math.PI + 360) % 360
    if (hourDeg === null) setHourDeg(deg)
    else {
      setHourDeg(null)
      onSet(fromTaps(hourDeg, deg))
    }
  }
  const shownHour = hourDeg ?? (minutes === null ? null : minutes / 2)
  return (
    <figure className={styles.dial}>
      <svg
        ref={svg}
        viewBox="-110 -110 220 220"
        role="img"
        aria-label={`${label}: ${minutes === null ? 'not said' : dialTime(minutes)}`}
        onPointerDown={(e) => tap(e.clientX, e.clientY)}
        className={onSet ? styles.tapped : undefined}
      >
        <circle r="106" className={styles.rim} />
        <circle r="98" className={styles.face} />
        {Array.from({ length: 60 }, (_, i) => {
          const [a, b] = [at(6 * i, 97), at(6 * i, i % 5 === 0 ? 90 : 94)]
          return <line key={i} x1={a.x} y1={a.y} x2={b.x} y2={b.y} className={styles.tick} />
        })}
        {HOURS.map((h) => {
          const p = at(30 * h, 78)
          return (
            <text key={h} x={p.x} y={p.y} className={styles.hour}>
              {ROMAN[h - 1]}
            </text>
          )
        })}
        {stops.map((m) => {
          const p = at(6 * (m % 60), 103)
          return <circle key={m} cx={p.x} cy={p.y} r="3.2" className={styles.stopMark} />
        })}
        {shownHour !== null && (
          <g transform={`rotate(${shownHour})`} className={styles.hand}>
            <path d="M-3.2 8 -2.2 -40 -6 -46 0 -58 6 -46 2.2 -40 3.2 8z" />
          </g>
        )}
        {minutes !== null && hourDeg === null && (
          <g transform={`rotate(${6 * (minutes % 60)})`} className={styles.hand}>
            <path d="M-2.4 12 -1 -86 0 -92 1 -86 2.4 12z" />
          </g>
        )}
        <circle r="5" className={styles.hub} />
      </svg>
      {onSet && (
        <figcaption className="quiet">
          {hourDeg === null
            ? 'Tap where the hour hand points, then the minute hand.'
            : 'Now where the minute hand points.'}
        </figcaption>
      )}
    </figure>
  )
}

/** The time of the dial that two hands at these angles come nearest to, whole minutes past twelve. */
export function fromTaps(hourDeg: number, minuteDeg: number): number {
  const past = Math.round(minuteDeg / 6) % 60
  // The hour hand stands half a degree a minute past its hour.
  const hour = Math.round((hourDeg - past / 2) / 30)
  return (((60 * hour + past) % DIAL_MINUTES) + DIAL_MINUTES) % DIAL_MINUTES
}
