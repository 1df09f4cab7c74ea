import { discAngleDeg } from '@treadle/core'
import styles from './Moon.module.css'

const ARCH = 100
/** Of the circle that the moons' middles go round on. */
const ORBIT = 66
const MOON = 22
/** The humps that hide the coming and the going moon, and where their middles are. */
const HUMP = 36
const HUMP_AT = 64

/** The moon of a dial's arch as its disc should look at this age, behind its two humps; both moons of the disc are drawn. */
export function DiscPicture({ ageDays, southern, label }: { ageDays: number; southern: boolean; label: string }) {
  const deg = discAngleDeg(ageDays, southern)
  const place = (d: number) => {
    const rad = (d * Math.PI) / 180
    return { x: ORBIT * Math.cos(rad), y: -ORBIT * Math.sin(rad) }
  }
  const moons = [place(deg), place(deg + 180)]
  return (
    <figure className={styles.disc}>
      <svg viewBox="-122 -116 244 132" role="img" aria-label={label}>
        <defs>
          <clipPath id="moon-arch">
            <path d={`M${-ARCH} 0A${ARCH} ${ARCH} 0 0 1 ${ARCH} 0V12H${-ARCH}z`} />
          </clipPath>
        </defs>
        <g clipPath="url(#moon-arch)">
          <rect x={-ARCH} y={-ARCH} width={2 * ARCH} height={112} className={styles.sky} />
          {STARS.map(([r, at]) => {
            const rad = ((at - deg) * Math.PI) / 180
            return <circle key={at} cx={r * Math.cos(rad)} cy={r * Math.sin(rad)} r="1.1" className={styles.star} />
          })}
          {moons.map((m, i) => (
            <g key={i}>
              <circle cx={m.x} cy={m.y} r={MOON} className={styles.moon} />
              <path
                d={`M${m.x - 8} ${m.y + 8}q8 6 16 0M${m.x - 7} ${m.y - 4}h3M${m.x + 4} ${m.y - 4}h3M${m.x} ${m.y - 3}v6`}
                className={styles.look}
              />
            </g>
          ))}
          {[-HUMP_AT, HUMP_AT].map((x) => (
            <circle key={x} cx={x} cy={8} r={HUMP} className={styles.hump} />
          ))}
        </g>
        <path d={`M${-ARCH} 12V0A${ARCH} ${ARCH} 0 0 1 ${ARCH} 0V12`} className={styles.arch} />
        {/* the scale of ages over the arch */}
        {[0, 5, 10, 14.77, 20, 25, 29.5].map((age) => {
          const rad = (discAngleDeg(age, southern) * Math.PI) / 180
          return (
            <text key={age} x={110 * Math.cos(rad)} y={-108 * Math.sin(rad)} className={styles.age}>
              {age === 14.77 ? '15' : age === 29.5 ? '29½' : age}
            </text>
          )
        })}
      </svg>
      <figcaption>{label}</figcaption>
    </figure>
  )
}

const STARS: [radius: number, deg: number][] = [
  [40, 20],
  [88, 55],
  [50, 95],
  [90, 120],
  [38, 150],
  [86, 200],
  [46, 245],
  [92, 285],
  [52, 330],
]
