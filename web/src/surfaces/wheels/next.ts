import type { WorkStep } from '@treadle/core'
import { partTitle, type MovementPart } from './partsOf.ts'

interface Standing {
  part: Pick<MovementPart, 'arbor' | 'part'>
  /** steps of the way that was chosen; none: nothing to be done */
  steps: Pick<WorkStep, 'key' | 'title'>[]
  done: string[]
  /** it can't be undone and the owner has not agreed */
  waitsForOwner: boolean
  next: Pick<MovementPart, 'arbor' | 'part'> | undefined
}

export type Next = { label: string; hint?: string } & (
  { what: 'step'; key: string } | { what: 'ask-owner' } | { what: 'next-part' } | { what: 'springs' }
)

/** What the foot does now at a wheel: the next step of its work, the next wheel or pinion, then on to the springs. */
export function nextOf({ part, steps, done, waitsForOwner, next }: Standing): Next {
  const step = steps.find((s) => !done.includes(s.key))
  if (step && waitsForOwner)
    return { what: 'ask-owner', label: 'Ask the owner first', hint: 'this can’t be undone; tick it once they agreed' }
  if (step)
    return {
      what: 'step',
      key: step.key,
      label: `Press when done: ${step.title.toLowerCase()}`,
      hint: `${partTitle(part)}; ${done.length + 1} of ${steps.length}`,
    }
  if (next) return { what: 'next-part', label: `Press for the next: ${partTitle(next)}` }
  return { what: 'springs', label: 'Press to go on to the springs' }
}
