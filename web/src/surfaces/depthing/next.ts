import { FEELS, type DepthTrial, type Feel } from '@treadle/core'

interface Standing {
  /** settings to try, and how those tried felt */
  trials: DepthTrial[]
  keptMm: number | null
  /** the best of them, across the runners */
  bestMm: number | null
  next: { arbor: string } | undefined
  /** there is anything to set */
  known: boolean
}

export type Next = { label: string; hint?: string } & (
  { what: 'feel'; at: number; feel: Feel } | { what: 'keep'; mm: number } | { what: 'next' } | { what: 'make' }
)

/** What the foot does now at the depthing tool: this setting is smooth, then keep the best, then the next mesh. */
export function nextOf({ trials, keptMm, bestMm, next, known }: Standing): Next {
  const at = trials.findIndex((t) => t.feel === '')
  const trial = trials[at]
  if (known && trial)
    return {
      what: 'feel',
      at,
      feel: 'smooth',
      label: `Press if it is smooth at ${trial.acrossMm.toFixed(2)} mm`,
      hint: `else say ${FEELS.filter((f) => f !== 'smooth').join(', ')}; ${at + 1} of ${trials.length}`,
    }
  if (known && bestMm !== null && keptMm === null)
    return { what: 'keep', mm: bestMm, label: `Press to keep ${bestMm.toFixed(2)} mm across the runners` }
  if (next) return { what: 'next', label: `Press for the next mesh: ${next.arbor}` }
  return { what: 'make', label: 'Press to go on: parts to make' }
}
