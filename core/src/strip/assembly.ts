/** A step of the strip log, as far as its way back asks. */
export interface LoggedStep {
  id: string
  position: number
  part: string
  /** how many single parts came out at this step, screws with them */
  count: number
  back: boolean
}

export interface Assembly<S> {
  /** the log read backwards: last out, first in */
  steps: S[]
  partsOut: number
  partsBack: number
  /** what has not gone back */
  leftOver: S[]
}

/** The assembly list of a strip log: the steps from the last to the first, and what is still to go back. */
export function assemblyOf<S extends LoggedStep>(log: S[]): Assembly<S> {
  const steps = [...log].sort((a, b) => b.position - a.position || (a.id < b.id ? 1 : -1))
  const leftOver = steps.filter((s) => !s.back)
  const count = (of: S[]) => of.reduce((n, s) => n + s.count, 0)
  return { steps, partsOut: count(steps), partsBack: count(steps) - count(leftOver), leftOver }
}

/** A place between two neighbours (or before the first, after the last), so that one step moves and no other changes. */
export function placeBetween(before: number | null, after: number | null): number {
  if (before === null) return after === null ? 1 : after - 1
  return after === null ? before + 1 : (before + after) / 2
}
