import { mean } from 'simple-statistics'
import { ringStory, type RingStory, type ToothReport } from '@treadle/core'
import { Link } from 'react-router'
import styles from './Deeper.module.css'

const SIZE = 320
const MIDDLE = SIZE / 2
const OUTER = 128
const INNER = 86
/** A tooth as late as the latest, or as this at least, is drawn so long. */
const LONGEST = 24
const LEAST_FULL_MS = 0.5

/** The escape wheel's teeth in a ring: outside as they drop from the first pallet, inside from the second. */
export function ToothRing({
  reports,
  teeth,
  chalk,
  sheetOf,
}: {
  reports: ToothReport[]
  teeth: number
  chalk: number | null
  sheetOf?: ((heardFirst: number) => string) | undefined
}) {
  const story = ringStory(reports, teeth)
  const full = Math.max(LEAST_FULL_MS, ...reports.map((r) => Math.abs(r.lateMs)))
  const turn = (tooth: number) => ((tooth - (chalk ?? 1)) / teeth) * 360
  const bad = new Set(story.teeth.map((t) => t.tooth))
  return (
    <figure className={styles.ring}>
      <svg viewBox={`0 0 ${SIZE} ${SIZE}`} role="img" aria-label={storyInWords(story, teeth, chalk)}>
        <circle cx={MIDDLE} cy={MIDDLE} r={OUTER} className={styles.rim} />
        <circle cx={MIDDLE} cy={MIDDLE} r={INNER} className={styles.rim} />
        {reports.map((r) => {
          const radius = r.pallet === 'first' ? OUTER : INNER
          const length = (r.lateMs / full) * LONGEST
          return (
            <line
              key={`${r.pallet}${r.tooth}`}
              transform={`rotate(${turn(r.tooth)} ${MIDDLE} ${MIDDLE})`}
              x1={MIDDLE}
              x2={MIDDLE}
              y1={MIDDLE - radius}
              y2={MIDDLE - radius - length}
              className={r.bent ? styles.badTooth : styles.tooth}
            />
          )
        })}
        {[...bad].map((tooth) => (
          <text
            key={tooth}
            transform={`rotate(${turn(tooth)} ${MIDDLE} ${MIDDLE})`}
            x={MIDDLE}
            y={14}
            textAnchor="middle"
            className={styles.toothName}
          >
            ▲{numberOf(tooth, teeth, chalk)}
          </text>
        ))}
        <text x={MIDDLE} y={MIDDLE - 6} textAnchor="middle" className={styles.hub}>
          {teeth} teeth
        </text>
        <text x={MIDDLE} y={MIDDLE + 14} textAnchor="middle" className={styles.hubQuiet}>
          longest {full.toFixed(1)} ms
        </text>
      </svg>
      <figcaption>
        {storyInWords(story, teeth, chalk)}{' '}
        {sheetOf && chalk !== null && bad.size > 0 && (
          <Link to={sheetOf(numberOf(1, teeth, chalk))}>To the wheel’s tips, with these marked</Link>
        )}
      </figcaption>
    </figure>
  )
}

/** A tooth's number from the chalked one, or from the first that was heard. */
function numberOf(tooth: number, teeth: number, chalk: number | null): number {
  return chalk === null ? tooth : ((((tooth - chalk) % teeth) + teeth) % teeth) + 1
}

function storyInWords(story: RingStory, teeth: number, chalk: number | null): string {
  const counted = chalk === null ? 'counted from the first that was heard' : 'counted from the chalk'
  if (story.kind === 'even')
    return 'All teeth drop alike on both pallets: nothing of the beat comes from the escape wheel.'
  if (story.kind === 'eccentric')
    return `The whole wheel drops late and early by ${(story.eccentricMs ?? 0).toFixed(1)} ms once a turn: it runs out of true, or its pivots or holes are worn.`
  const one = (t: RingStory['teeth'][number]) => {
    const ms = [t.firstMs, t.secondMs].filter((v) => v !== null)
    const late = mean(ms)
    return `tooth ${numberOf(t.tooth, teeth, chalk)} drops ${Math.abs(late).toFixed(1)} ms ${late > 0 ? 'late' : 'early'}`
  }
  const list = story.teeth.map(one).join(', ')
  if (story.kind === 'one pallet')
    return `On one pallet only ${list} (${counted}): its tip, or that pallet’s face, not its length.`
  const late = story.teeth.some((t) => (t.firstMs ?? t.secondMs ?? 0) > 0)
  return `On both pallets ${list} (${counted}): ${late ? 'bent back' : 'short, or bent forward: a short one drops louder too'}.`
}
