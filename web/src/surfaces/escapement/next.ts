import type { Cure, Moved, WorkStep } from '@treadle/core'

interface Standing {
  /** the escapement can be drawn */
  drawn: boolean
  /** how the drawing is moved, how it was set, and the cure in words */
  tried: Moved
  kept: Moved
  cure: Cure | null
  cureWords: string
  triedWords: string
  /** it is fine as it is tried */
  fine: boolean
  toppingSteps: Pick<WorkStep, 'key' | 'title'>[]
  topped: string[]
}

export type Next = { label: string; hint?: string } & (
  { what: 'try'; to: Moved } | { what: 'set' } | { what: 'top'; key: string } | { what: 'depthing' }
)

const same = (a: Moved, b: Moved) =>
  Math.abs(a.nearerMm - b.nearerMm) < 0.005 && Math.abs(a.openedDeg - b.openedDeg) < 0.005

/** What the foot does now at the escapement: try the cure, note that it is set so, the wheel's next step, then on. */
export function nextOf({
  drawn,
  tried,
  kept,
  cure,
  cureWords,
  triedWords,
  fine,
  toppingSteps,
  topped,
}: Standing): Next {
  const step = toppingSteps.find((s) => !topped.includes(s.key))
  if (drawn && !fine && cure)
    return {
      what: 'try',
      to: { nearerMm: tried.nearerMm + cure.nearerMm, openedDeg: tried.openedDeg + cure.openedDeg },
      label: `Press to try: ${cureWords}`,
      hint: 'the drawing moves, nothing is kept',
    }
  if (drawn && !same(tried, kept))
    return {
      what: 'set',
      label: `Press when it is set so: ${triedWords}`,
      hint: 'kept with the clock, and told to Beat',
    }
  if (step)
    return {
      what: 'top',
      key: step.key,
      label: `Press when done: ${step.title.toLowerCase()}`,
      hint: `escape wheel; ${topped.length + 1} of ${toppingSteps.length}`,
    }
  return { what: 'depthing', label: 'Press to go on to the depthing' }
}
