import { step, type WorkStep } from '../steps/step.ts'

/** What the steps of fitting a mainspring name. */
export interface FittingFacts {
  end: 'hole' | 'loop' | ''
  fromDrawer: boolean
  /** fully wound, by the figure safety reckons with, N·mm */
  woundNmm: number | null
  open: boolean
}

/** Fitting a mainspring, step by step; what can hurt is said where it does. */
export function springSteps({ end, fromDrawer, woundNmm, open }: FittingFacts): WorkStep[] {
  const pulls = woundNmm === null ? '' : ` It pulls ${woundNmm.toFixed(0)} N·mm fully wound.`
  return [
    step('out', 'Take the old one out', `With a winder rated for it.${pulls}`, HURTS),
    step(
      'take',
      fromDrawer ? 'Take the new one from its drawer' : 'Lay the new one beside the old',
      'Width, thickness and end as wanted; which way round it goes: the hook of barrel or pillar tells.',
    ),
    step(
      'clean',
      'Clean it and look at it',
      'Wiped along its length, no rust, no crack, its end sound. Never bend it by hand.',
    ),
    step(
      'oil',
      'Oil it',
      open
        ? 'Its seat on the arbor first, then a film along the strip.'
        : 'A film along the strip before it goes in; never after.',
    ),
    step(
      'wind',
      'Wind it in',
      `The right way round, in a winder rated for it${end === 'loop' ? '; the clamp leaves the straight piece by the loop free' : ''}. A bound new spring is let go under cover in the winder, never by cutting its wire in the hand.`,
      HURTS,
    ),
    step(
      'hook',
      'Hook it',
      end === 'loop'
        ? 'The loop over its pillar.'
        : 'The hole over the barrel’s hook, the inner end on the arbor’s; turn the arbor a little and feel both hold.',
    ),
    step(
      'count',
      'Count its turns',
      'Wind it in the barrel by hand and count; let it down again under control.',
      'Treat it as wound until it is let down.',
    ),
  ]
}

const HURTS =
  'A mainspring breaks fingers and blinds: eyes covered, heavy gloves, the movement or barrel held fast, a winder rated for it. A winder that is too weak is worse than none.'
