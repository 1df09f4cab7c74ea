import { BEFORE_THE_CUT, type BushingStep } from '@treadle/core'

interface Standing {
  /** the hole that is shown */
  hole: { train: string; arbor: string; plate: string }
  steps: Pick<BushingStep, 'key' | 'title'>[]
  /** keys of steps that are done */
  done: string[]
  pivotOpen: boolean
  /** another hole that is not bushed yet */
  nextHole: { arbor: string; plate: string } | undefined
  /** a train that has not yet run by itself since */
  trainToRun: string | undefined
}

export type Next = { label: string; hint?: string } & (
  | { what: 'step'; key: string }
  | { what: 'pivot-first' }
  | { what: 'next-hole' }
  | { what: 'run-train'; train: string }
  | { what: 'assemble' }
)

/** What the foot does now: the next step of this hole, its pivot first, the next hole, the train, then on. */
export function nextOf({ hole, steps, done, pivotOpen, nextHole, trainToRun }: Standing): Next {
  const step = steps.find((s) => !done.includes(s.key))
  if (step && pivotOpen && !BEFORE_THE_CUT.includes(step.key))
    return {
      what: 'pivot-first',
      label: 'Press to finish its pivot first',
      hint: 'the bush is fitted to the finished pivot',
    }
  if (step)
    return {
      what: 'step',
      key: step.key,
      label: `Press when done: ${step.title.toLowerCase()}`,
      hint: `${hole.arbor}, ${hole.plate} plate; ${done.length + 1} of ${steps.length}`,
    }
  if (nextHole) return { what: 'next-hole', label: `Press for the next hole: ${nextHole.arbor}, ${nextHole.plate}` }
  if (trainToRun !== undefined)
    return {
      what: 'run-train',
      train: trainToRun,
      label: `Press when the ${trainToRun} train runs by itself`,
      hint: 'dry, a finger’s pressure on the great wheel; it backs off at the end',
    }
  return { what: 'assemble', label: 'Press to go on and assemble' }
}
