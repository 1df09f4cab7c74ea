import { AT_LATHE, step, type WorkStep } from '../steps/step.ts'
import type { Reversed } from './reversed.ts'

const SHIM_MM = 0.25

/** Drills in growing sizes for the head of a rivet, mm: about two fifths, seven tenths and the whole of its shank. */
export function drillsForRivet(rivetMm: number): number[] {
  return [0.4, 0.7, 1].map((share) => Math.round(share * rivetMm * 10) / 10)
}

/** Reversing a great wheel with its click work, step by step; the sizes are the wheel’s own. */
export function reversingSteps(
  rivetMm: number | null,
  reversed: Pick<Reversed, 'conflicts'> | null,
  hasClick = true,
): WorkStep[] {
  const drills = rivetMm === null ? null : drillsForRivet(rivetMm)
  const left = reversed?.conflicts[0]?.leftMm
  const all: (WorkStep | null)[] = [
    step(
      'note',
      'Note the sides',
      'Which side the spring, the click and the washer stand on: draw it, or take a photo of both sides.',
    ),
    step(
      'free',
      'Free the arbor',
      'Turn away the swaged brass in the lathe until the arbor comes free of the wheel.',
      'At the lathe: eyes covered, loose ends away, no gloves.',
    ),
    hasClick
      ? step(
          'drill-head',
          'Drill the rivet’s head',
          `Centre-punch the click’s rivet and drill its head in growing sizes${drills ? `: ${drills.map((d) => d.toFixed(1)).join(', ')} mm` : ''}, until it lets go.`,
        )
      : null,
    hasClick ? step('punch-out', 'Punch the rivet out', 'Supported close round it, from the head’s side.') : null,
    hasClick
      ? step(
          'spring-wire',
          'Free the click spring',
          'Thin its holding wire and draw it; the spring is kept with its side marked.',
        )
      : null,
    hasClick
      ? step(
          'scribe',
          'Scribe the bore’s circle',
          'A circle of the wheel’s bore on the other face, to set the dividers from its centre.',
        )
      : null,
    hasClick
      ? step(
          'mark-hole',
          'Mark the rivet’s hole',
          `At the same radius on the mirrored arm, as drawn${left === undefined ? '' : `: there only ${left.toFixed(2)} mm of metal would be left to an old hole, so take another arm`}. At least one rivet’s width of metal stays between the old hole and the new.`,
        )
      : null,
    hasClick
      ? step(
          'drill-hole',
          'Drill for the rivet',
          `${rivetMm === null ? 'To the click’s hole' : `To the click, ${rivetMm.toFixed(1)} mm`}; counterbore the far side, so that the rivet is locked.`,
        )
      : null,
    hasClick
      ? step(
          'rivet',
          'Rivet the click',
          `A new rivet with a slightly domed head. A shim of about ${SHIM_MM} mm under the click while the rivet is spread with many light, slightly angled blows: on the rivet, never on the arm.`,
        )
      : null,
    hasClick ? step('shim', 'Take the shim out', 'The click must move freely and not wobble.') : null,
    hasClick
      ? step(
          'click-spring',
          'Fit the click spring',
          'Countersink for the head of its wire, so that it lies flush on the mainspring’s side; it is brisk.',
        )
      : null,
    step(
      'swage',
      'Swage the wheel on',
      `${hasClick ? 'The washer, then swage' : 'Swage'} it again with a small chisel-shaped punch, a little all round; it runs true.`,
    ),
    hasClick
      ? step(
          'wind',
          'Wind it by hand',
          'It winds freely and holds at every tooth of the ratchet: try each.',
          'Before any spring goes on: a click that slips breaks fingers and teeth.',
        )
      : null,
  ]
  return all.filter((s) => s !== null)
}

/** New trundles in a lantern pinion, step by step. */
export function trundleSteps(keptMm: number, replace: number[], shroudLoose: boolean): WorkStep[] {
  const which = replace.length === 0 ? 'All' : replace.join(', ')
  return [
    step(
      'open',
      'Open the shroud',
      `Number ${which}: with a tool of the trundle’s own diameter, which spares the holes.`,
    ),
    step('out', 'Take the bad ones out', 'Draw them; the sound ones stay.'),
    step(
      'cut',
      'Cut the wire',
      `Wire of ${keptMm.toFixed(2)} mm, each as long as the others; ends squared and deburred.`,
    ),
    step('in', 'Put the new ones in', 'Each to the bottom of its hole; then close the holes over the ends.'),
    ...(shroudLoose
      ? [step('stake', 'Stake the shroud', 'The loose shroud is staked again, square to the arbor.')]
      : []),
    step('true', 'Look whether it runs true', 'Between centres; tap the shroud until it does.'),
    step('polish', 'Polish', 'The trundles lengthways, the pivots and shoulders once more.'),
    step('gauge', 'Gauge all again', 'All lie within about 0.01 mm of each other.'),
  ]
}

/** Straightening and topping an escape wheel, step by step. */
export function toppingSteps(toRadiusMm: number | null, mostMm: number | null): WorkStep[] {
  const to = toRadiusMm === null ? '' : ` to ${toRadiusMm.toFixed(2)} mm`
  return [
    step(
      'straighten',
      'Straighten the bent teeth',
      'With support behind the tooth, a little at a time; before any topping.',
    ),
    step('mount', 'Mount it close to the chuck', 'So that it runs true; the shortest tooth marked.', AT_LATHE),
    step(
      'top',
      'Bring a fine stone in',
      `On the slide, slowly, until the sound is even and most tips shine${to}${mostMm === null ? '' : `: at most ${mostMm.toFixed(2)} mm comes off`}. A tip or two left low is better than taking all down to it.`,
      'The stone only touches: eyes covered, the slide locked, hands off the tips.',
    ),
    step('deburr', 'Take off the burr', 'Finest steel wool against the burr; the faces of the teeth stay as they are.'),
    step('measure', 'Measure the tips again', 'Least and greatest: the pallets’ arbor comes nearer by what is told.'),
  ]
}
