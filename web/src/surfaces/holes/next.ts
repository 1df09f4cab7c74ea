interface Standing {
  hole: { arbor: string; plate: string; bushed: boolean }
  verdict: 'bush' | 'leave' | null
  /** something typed is not kept yet */
  changed: boolean
  /** all that a verdict needs is typed, and can be */
  whole: boolean
  pivotUnfinished: boolean
  next: { arbor: string; plate: string } | undefined
}

export interface Next {
  what: 'keep' | 'pivot-first' | 'bushed' | 'next-hole' | 'listen'
  label: string
  hint?: string
}

/** What the foot does now at a hole; nothing while what is typed is not whole: a press would lose or half keep it. */
export function nextOf({ hole, verdict, changed, whole, pivotUnfinished, next }: Standing): Next | null {
  const onward = next && `${next.arbor}, ${next.plate} plate`
  if (changed && !whole) return null
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
          what: 'bushed',
          label: 'Press when this bush is in and tried',
          hint: `${hole.arbor}, ${hole.plate} plate`,
        }
  return next
    ? { what: 'next-hole', label: 'Press to take the next hole', hint: onward }
    : { what: 'listen', label: 'Press to go on and set it in beat' }
}
