/** A step of the strip log, as far as its way back asks. */
export interface LoggedStep {
  id: string
  position: number
  part: string
  /** how many single parts came out at this step, screws with them */
  count: number
  back: boolean
  /** why it does not go back; empty: it does */
  notBack: string
}

export interface PartsCount<S> {
  partsOut: number
  partsBack: number
  /** parts that do not go back, each with its reason */
  partsKept: number
  /** what has not gone back, and of which nobody has said why */
  leftOver: S[]
}

/** Parts out against parts in: what is left over is what has neither gone back nor a reason. */
export function partsCount<S extends LoggedStep>(log: S[]): PartsCount<S> {
  const leftOver = log.filter((s) => !s.back && s.notBack === '')
  const count = (of: S[]) => of.reduce((n, s) => n + s.count, 0)
  return {
    partsOut: count(log),
    partsBack: count(log.filter((s) => s.back)),
    partsKept: count(log.filter((s) => !s.back && s.notBack !== '')),
    leftOver,
  }
}

/** A place between two neighbours (or before the first, after the last), so that one step moves and no other changes. */
export function placeBetween(before: number | null, after: number | null): number {
  if (before === null) return after === null ? 1 : after - 1
  return after === null ? before + 1 : (before + after) / 2
}
