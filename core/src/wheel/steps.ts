import { step, type WorkStep } from '../steps/step.ts'
import { lanternTrundles } from './lantern.ts'
import { reversingSteps, trundleSteps } from './reversing.ts'
import type { Reversed } from './reversed.ts'
import type { WayKey } from './ways.ts'

/** What the steps of a way name. */
export interface StepFacts {
  rivetMm: number | null
  reversed: Pick<Reversed, 'conflicts'> | null
  hasClick: boolean
  trundlesMm: (number | null)[]
  shroudLoose: boolean
  teeth: number[]
  moveMm: number
  moveWay: 'front' | 'back' | null
}

/** The steps of a way out, in the order that does not spoil the part; none where there is nothing to be done. */
export function stepsOfWay(way: WayKey | '', facts: StepFacts): WorkStep[] {
  const teeth = facts.teeth.join(', ')
  switch (way) {
    case 'reverse':
      return reversingSteps(facts.rivetMm, facts.reversed, facts.hasClick)
    case 'some-trundles':
    case 'all-trundles': {
      const all = facts.trundlesMm.filter((mm): mm is number => mm !== null)
      const bad = all.length >= 3 ? lanternTrundles(all) : null
      return trundleSteps(bad?.keptMm ?? 0, way === 'all-trundles' ? [] : (bad?.replace ?? []), facts.shroudLoose)
    }
    case 'dress':
      return [
        step(
          'straighten',
          'Straighten what is bent',
          'With support behind the tooth, from its root, a little at a time.',
        ),
        step(
          'dress',
          'Dress the tips',
          'A fine file along the tip, never across the working flank; as little as possible.',
        ),
        step('deburr', 'Take off the burr', 'And look again under the loupe: no crack at a root.'),
        step('mesh', 'Try it with its pinion', 'Every tooth once round: no catch, no butting.'),
      ]
    case 'replace-teeth':
      return [
        step(
          'slot',
          'Cut the slot',
          `At ${teeth === '' ? 'each bad tooth' : teeth}: as deep as a tooth again into the rim, dovetailed a little.`,
        ),
        step('piece', 'Fit a piece', 'Brass of the wheel’s own thickness, driven in so that it holds by itself.'),
        step(
          'solder',
          'Fix it',
          'Soft solder, as little as flows; washed of its flux at once.',
          'Hot metal and fumes: air, eyes covered, lead-free where the rules ask for it.',
        ),
        step('shape', 'File it to shape', 'By its neighbours: pitch, height and flanks.'),
        step('mesh', 'Try it with its pinion', 'Every tooth once round: no catch, no butting.'),
      ]
    case 'used-wheel':
      return [
        step('check', 'Check it against the old one', 'Count, across the tips, thickness, side of the collet.'),
        step('bore', 'Make its bore fit', 'Open it true, or turn a collet for it.'),
        step('depth', 'Try the depth', 'In the depthing tool, with the pinion it will drive.'),
        step('mount', 'Mount it true', 'Flat and round: it is looked at as it turns.'),
        step('bag', 'Bag the old one', 'It stays with the clock, marked.'),
      ]
    case 'fresh-track':
      return [
        step('free', 'Free the wheel', 'From its collet, or the pinion from its seat; nothing else moves.'),
        step(
          'move',
          `Move it ${facts.moveMm.toFixed(1)} mm ${facts.moveWay === 'front' ? 'to the front' : 'to the back'}`,
          'So that it runs wholly beside the groove.',
        ),
        step(
          'clear',
          'Look that all is clear',
          'Of the plates, the next wheel, the pillars; and the next mesh still runs on its full width.',
        ),
        step('fix', 'Fix it and try it', 'True, and free in every position.'),
      ]
    case 'new-wheel':
    case 'new-pinion':
      return [
        step('order', 'Order or cut it', 'To the count, the module, the thickness and the bore of the old one.'),
        step('depth', 'Try the depth', 'In the depthing tool, before anything is fixed.'),
        step('mount', 'Mount it true', 'Flat and round: it is looked at as it turns.'),
        step('bag', 'Bag the old one', 'It stays with the clock, marked; the new one is marked too.'),
      ]
    default:
      return []
  }
}
