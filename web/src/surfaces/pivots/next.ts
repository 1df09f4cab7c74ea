interface Standing {
  next: { stop: { name: string }; plate: string } | undefined
  /** the pivot that is shown has a plan and no finished figure yet */
  unfinished: boolean
}

export interface Next {
  what: 'next-pivot' | 'bushings'
  label: string
  hint?: string
}

/** What the foot does now at a pivot: go to the next, and say so where this one is not finished; then to the bushings. */
export function nextOf({ next, unfinished }: Standing): Next {
  return next
    ? {
        what: 'next-pivot',
        label: `Press for the next pivot: ${next.stop.name}, ${next.plate}`,
        hint: unfinished ? 'this one is not finished' : undefined,
      }
    : { what: 'bushings', label: 'Press to go on to the bushings' }
}
