import type { WorkStep } from '@treadle/core'

interface Standing {
  steps: Pick<WorkStep, 'key' | 'title'>[]
  done: string[]
  /** the train is confirmed off */
  isOff: boolean
  winder: 'fit' | 'too weak' | 'not said'
  /** another train, or the suspension */
  next: string | undefined
}

export type Next = { label: string; hint?: string } & (
  { what: 'step'; key: string } | { what: 'wait' | 'power' | 'next' | 'escapement' }
)

/** What the foot does now at a mainspring: the next step, never with a winder too weak; then the next, then on. */
export function nextOf({ steps, done, isOff, winder, next }: Standing): Next {
  const step = steps.find((s) => !done.includes(s.key))
  if (step && !isOff)
    return { what: 'power', label: 'Press to confirm its power off first', hint: 'until then its spring is wound' }
  if (step && winder === 'too weak')
    return { what: 'wait', label: 'Not with this winder', hint: 'it is too weak for this spring' }
  if (step && winder === 'not said')
    return { what: 'wait', label: 'Say what the winder is rated for', hint: 'before the spring is touched' }
  if (step)
    return {
      what: 'step',
      key: step.key,
      label: `Press when done: ${step.title.toLowerCase()}`,
      hint: `${done.length + 1} of ${steps.length}`,
    }
  return next
    ? { what: 'next', label: `Press for the next: ${next}` }
    : { what: 'escapement', label: 'Press to go on to the escapement' }
}
