interface Standing {
  hole: { arbor: string; plate: string; bushed: boolean }
  verdict: 'bush' | 'leave' | null
  /** something typed is not kept yet */
  changed: boolean
  /** all that a verdict needs is typed, and can be */
  whole: boolean
  pivotUnfinished: boolean
  next: { arbor: string; plate: string } | undefined
  /** some pivot waits; some hole waits for its bush */
  pivotsWait: boolean
  bushesWait: boolean
}

export interface Next {
  what: 'type' | 'keep' | 'pivot-first' | 'plan' | 'next-hole' | 'pivots' | 'assemble'
  label: string
  hint?: string
}

/** What the foot does now at a hole; it is told to type while what is typed is not whole: a press would lose it. */
export function nextOf(standing: Standing): Next {
  const { hole, verdict, changed, whole, pivotUnfinished, next, pivotsWait, bushesWait } = standing
  const onward = next && `${next.arbor}, ${next.plate} plate`
  if (changed && !whole) return { what: 'type', label: 'Type what is missing, then Enter' }
  if (changed)
    return {
      what: 'keep',
      label: next ? 'Press to keep this, and take the next hole' : 'Press to keep this',
      hint: onward,
    }
  if (verdict === 'bush' && !hole.bushed)
    return pivotUnfinished
      ? {
          what: 'pivot-first',
          label: 'Press to finish its pivot first',
          hint: 'the bush is fitted to the finished pivot',
        }
      : {
          what: 'plan',
          label: 'Press to bush it, by its plan',
          hint: `${hole.arbor}, ${hole.plate} plate`,
        }
  return next
    ? { what: 'next-hole', label: 'Press to take the next hole', hint: onward }
    : pivotsWait
      ? { what: 'pivots', label: 'Press to go on to the pivots' }
      : bushesWait
        ? { what: 'plan', label: 'Press to go on to the bushes' }
        : { what: 'assemble', label: 'Press to go on and assemble it' }
}
