/** A step of a piece of work: what, which way, how much, and the caution where it applies. */
export interface WorkStep {
  key: string
  title: string
  does: string
  caution?: string
}

export function step(key: string, title: string, does: string, caution?: string): WorkStep {
  return { key, title, does, ...(caution === undefined ? {} : { caution }) }
}

/** The usual caution at a lathe. */
export const AT_LATHE = 'At the lathe: eyes covered, loose ends and sleeves away, no gloves.'
