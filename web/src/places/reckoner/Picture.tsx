import { trainSheet, type Mainspring, type TrainCandidate } from '@treadle/core'
import { lazy, Suspense } from 'react'

const SpringPicture = lazy(async () => ({
  default: (await import('../../parts/SpringPicture.tsx')).SpringPicture,
}))
const TrainPicture = lazy(async () => ({
  default: (await import('../../parts/TrainPicture.tsx')).TrainPicture,
}))

/** The picture of a calculation, where one says more than its figures. */
export function Picture({
  name,
  input,
  answer,
}: {
  name: string
  input: Record<string, unknown>
  answer: Record<string, unknown>
}) {
  return <Suspense fallback={null}>{pictureOf(name, input, answer)}</Suspense>
}

function pictureOf(name: string, input: Record<string, unknown>, answer: Record<string, unknown>) {
  switch (name) {
    case 'spring.energy':
      return <SpringPicture spring={input as unknown as Mainspring} />
    case 'train.beats':
      return <TrainOf wheels={input.wheels} pinions={input.pinions} escape={input.escapeTeeth} />
    case 'train.missing': {
      const best = (answer.candidates as TrainCandidate[])[0]
      return best ? <TrainOf wheels={best.wheels} pinions={best.pinions} escape={best.escapeTeeth} /> : null
    }
    case 'drive.margin':
      return <Bar filled={1 - (answer.marginPercent as number) / 100} label="least of the fitted" />
    case 'trouble.next':
      return <Ranked causes={answer.causes as { title: string; probability: number }[]} />
    default:
      return null
  }
}

function TrainOf({ wheels, pinions, escape }: { wheels: unknown; pinions: unknown; escape: unknown }) {
  if (!Array.isArray(wheels) || !Array.isArray(pinions) || typeof escape !== 'number') return null
  const counts = [...(wheels as number[]), escape]
  const names = ['Hourly', 'Third', 'Fourth', 'Fifth', 'Sixth', 'Seventh']
  const arbors = counts.map((wheel, i) => ({
    name: i === counts.length - 1 ? 'Escape' : (names[i] ?? `Arbor ${i + 1}`),
    wheel,
    pinion: i === 0 ? null : ((pinions as number[])[i - 1] ?? null),
  }))
  return <TrainPicture sheet={trainSheet(arbors, 0, true)} />
}

function Bar({ filled, label }: { filled: number; label: string }) {
  const share = Math.min(1.4, Math.max(0, filled))
  return (
    <svg viewBox="0 0 150 22" width="100%" style={{ maxWidth: 420 }} role="img" aria-label={label}>
      <rect x="1" y="6" width="100" height="9" fill="var(--deep)" stroke="var(--line)" />
      <rect x="1" y="6" width={100 * share} height="9" fill={share > 1 ? 'var(--madder)' : 'var(--brass-line)'} />
      <line x1="101" x2="101" y1="2" y2="19" stroke="var(--ink)" strokeWidth="1.5" />
    </svg>
  )
}

function Ranked({ causes }: { causes: { title: string; probability: number }[] }) {
  return (
    <ol style={{ listStyle: 'none', padding: 0, margin: '0.5rem 0' }}>
      {causes.slice(0, 5).map((c) => (
        <li key={c.title} style={{ display: 'grid', gridTemplateColumns: '3rem 1fr', gap: '0.8rem' }}>
          <strong>{(100 * c.probability).toFixed(0)} %</strong>
          <span>
            {c.title}
            <span
              style={{ display: 'block', height: 5, width: `${100 * c.probability}%`, background: 'var(--brass-line)' }}
            />
          </span>
        </li>
      ))}
    </ol>
  )
}
