interface Standing {
  stop: { name: string }
  tried: boolean
  next: { name: string; train: string } | undefined
}

export interface Next {
  what: 'free' | 'next-arbor' | 'pivots'
  label: string
  hint?: string
}

/** What the foot does now at an arbor between the plates: say that it is free, go to the next, then to the pivots. */
export function nextOf({ stop, tried, next }: Standing): Next {
  if (!tried)
    return {
      what: 'free',
      label: `Press when the ${stop.name.toLowerCase()} is free in every position`,
      hint: 'dial up, dial down and upright',
    }
  return next
    ? { what: 'next-arbor', label: `Press for the next: ${next.name}`, hint: `${next.train} train` }
    : { what: 'pivots', label: 'Press to go on to the pivots' }
}
