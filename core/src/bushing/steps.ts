import { formatClockDirection } from '../wear/clockAngle.ts'
import { broachSteps } from './turned.ts'

export const BUSHING_METHODS = ['hand', 'jig'] as const
/** by hand: file back, cutter, broach; in a jig: centred on the old centre and reamed */
export type BushingMethod = (typeof BUSHING_METHODS)[number]

export const OLD_BUSHES = ['none', 'pressed', 'screwed', 'punched'] as const
/** what an earlier repair left in the hole */
export type OldBush = (typeof OLD_BUSHES)[number]

/** All that the steps of one hole name; mm and degrees clockwise from 12 as seen from the front. */
export interface HoleWork {
  plate: 'front' | 'back'
  method: BushingMethod
  old: OldBush
  /** across the hole that the old bush leaves; not known: measured when it is out */
  oldHoleMm: number | null
  /** across the oil sink that is there */
  sinkMm: number | null
  /** the hole was spoilt: it is plugged and found again */
  spoilt: boolean
  /** the plate here is a cock, or a bridge, that gives under the press */
  cock: boolean
  wearMm: number
  wearDeg: number | null
  /** where the marker’s two outer points go */
  marker: { reachMm: number; fromDeg: number; toDeg: number } | null
  /** names of the holes to mask, nearest first */
  neighbours: string[]
  /** how far it goes back along the line of centres, where it was bushed off its centre before */
  correction: { mm: number; deg: number } | null
  cutterMm: number | null
  /** of the bush: from stock, or as turned */
  bush: { from: 'stock' | 'turned'; outsideMm: number; insideMm: number; lengthMm: number } | null
  finishedMm: number
  plateMm: number
}

export interface BushingStep {
  key: string
  title: string
  /** what, which way, how much */
  does: string
  caution?: string
}

/** What is done before the plate is cut, in this order; the rest only once all of it is done. */
export const BEFORE_THE_CUT = ['mark', 'reference', 'mask']

/** Each step once it is done, as the journal says it. */
const DONE: Record<string, string> = {
  mark: 'wear marked',
  reference: 'reference marks made',
  mask: 'neighbours masked',
  old: 'old bush out',
  plug: 'plugged',
  find: 'centre found',
  drill: 'drilled',
  centre: 'centred',
  cut: 'cut',
  bush: 'bush to hand',
  press: 'pressed in',
  broach: 'broached',
  sink: 'sink cut, burr off',
  alone: 'tried alone between the plates',
  pair: 'tried with its neighbour',
}

/** A step that is done, in words; its key where it is not known. */
export function stepDone(key: string): string {
  return DONE[key] ?? key
}

/** Whether the plate may be cut: every step before it is done. */
export function mayCut(done: string[]): boolean {
  return BEFORE_THE_CUT.every((key) => done.includes(key))
}

/**
 * The work on one hole, step by step, each with its figures in words.
 *
 * Schools: filed back by hand about the old centre, or centred in a jig. Screwed bushes come out; a spoilt hole is plugged
 * and found again from its marks or its distances; a hole bushed off its centre goes back by so much.
 */
export function bushingSteps(work: HoleWork): BushingStep[] {
  return [...before(work), ...old(work), ...cut(work), ...fit(work), ...trial()]
}

function before({ wearDeg, wearMm, marker, neighbours, plate }: HoleWork): BushingStep[] {
  const seen = plate === 'front' ? '' : ', seen from the front through the movement'
  return [
    {
      key: 'mark',
      title: 'Mark the wear',
      does:
        wearDeg === null || wearMm <= 0
          ? 'No wear to one side: mark the hole so that it is not taken for another.'
          : `A scriber line on the plate toward ${formatClockDirection(wearDeg)}${seen}: that side is worn by ${mm(wearMm)}.`,
    },
    {
      key: 'reference',
      title: 'Reference marks',
      does: marker
        ? `Three-pointed marker in the hole, reach ${mm(marker.reachMm)}: a light mark at ${formatClockDirection(marker.fromDeg)} and one at ${formatClockDirection(marker.toDeg)}${seen}. The centre can be found again from them.`
        : 'Two light marks a known distance from the hole, on brass: the centre can be found again from them.',
    },
    {
      key: 'mask',
      title: 'Mask the neighbours',
      does:
        neighbours.length > 0
          ? `Tape over ${neighbours.slice(0, 3).join(', ')}: the wrong hole is cut sooner than one thinks.`
          : 'Tape over the holes next to it: the wrong hole is cut sooner than one thinks.',
    },
  ]
}

function old({ old: found, oldHoleMm, cutterMm, spoilt }: HoleWork): BushingStep[] {
  const out: BushingStep[] = []
  const known =
    oldHoleMm === null
      ? null
      : `It leaves ${mm(oldHoleMm)}${cutterMm === null ? ': no cutter in the drawer is larger' : `: the ${mm(cutterMm)} cutter cleans that up`}.`
  if (found === 'screwed')
    out.push({
      key: 'old',
      title: 'Screwed bush out',
      does: `Unscrew it from the slotted side, warm if it holds. ${known ?? 'Measure the thread’s hole across its crests: the cutter must be larger than that.'}`,
    })
  if (found === 'pressed')
    out.push({
      key: 'old',
      title: 'Old bush out',
      does: `Press it out toward the outside. ${known ?? 'Measure the hole it leaves: the cutter must clean that up.'}`,
    })
  if (found === 'punched')
    out.push({
      key: 'old',
      title: 'Punch marks',
      does: 'The hole was closed with a punch. Write it down; the marks stay unless the owner wants them gone.',
    })
  if (spoilt)
    out.push(
      {
        key: 'plug',
        title: 'Plug it',
        does: 'Cut it round, press in a blind brass plug, face it flush on both sides.',
      },
      {
        key: 'find',
        title: 'Find the centre',
        does: 'Set the marker on its two reference marks and prick the centre; without marks, strike the distances from two good holes and prick where they cross.',
      },
      {
        key: 'drill',
        title: 'Drill',
        does: 'Drill a small pilot square to the plate, then to the pivot’s drilled size. Try the depth before going on.',
      },
    )
  return out
}

function cut({ method, wearMm, wearDeg, cutterMm, correction, plateMm }: HoleWork): BushingStep[] {
  const away = wearDeg === null ? null : formatClockDirection((wearDeg + 180) % 360)
  const size = cutterMm === null ? 'a cutter that cleans it up (none in the drawer does)' : `the ${mm(cutterMm)} cutter`
  const move = correction
    ? ` It was bushed off its centre before: go ${mm(correction.mm)} toward ${formatClockDirection(correction.deg)} beyond that.`
    : ''
  return [
    method === 'hand'
      ? {
          key: 'centre',
          title: 'File it back',
          does:
            away === null || wearMm <= 0
              ? `It is round: nothing to file back.${move}`
              : `File the unworn side, toward ${away}, back by ${mm(wearMm)}: then it is as long to both sides of the old centre.${move}`,
        }
      : {
          key: 'centre',
          title: 'Centre the jig',
          does: `Bring the jig’s point to the old centre${away === null || wearMm <= 0 ? '' : `, ${mm(wearMm / 2)} from the middle of the slot toward ${away}`}, and clamp.${move}`,
        },
    {
      key: 'cut',
      title: 'Cut',
      does: `With ${size}, from the inside, upright, turned by hand. ${mm(plateMm)} of plate here.`,
      caution: 'Hold the plate flat on wood or in a vice with soft jaws; eyes covered, fingers behind the cutter.',
    },
  ]
}

function fit({ bush, plateMm, finishedMm, cock, sinkMm }: HoleWork): BushingStep[] {
  const steps = bush ? broachSteps(bush.insideMm, finishedMm) : []
  return [
    {
      key: 'bush',
      title: bush?.from === 'stock' ? 'Take the bush' : 'Turn the bush',
      does: bush
        ? `${bush.from === 'stock' ? 'From the drawer' : 'To the drawing'}: ${size(bush.outsideMm)} × ${size(bush.insideMm)} × ${mm(bush.lengthMm)}.`
        : 'No bush can be named while no cutter fits this hole.',
      ...(bush?.from === 'turned' && {
        caution: 'At the lathe: eyes covered, sleeves and hair away, no gloves; no abrasive round a finger.',
      }),
    },
    {
      key: 'press',
      title: 'Press it in',
      does: `From the inside, square, flush inside.${cock ? ' Under a cock: support it close round the hole, or it bends.' : ' On a flat stake.'}${bush && bush.lengthMm > plateMm + 0.02 ? ' Face it flush on the outside.' : ''}${bush && sinkMm !== null && sinkMm > bush.outsideMm ? ` The oil sink there, ${mm(sinkMm)}, is wider than the bush: only the plate below it holds it, so leave the bush long into the sink and cut the sink anew.` : ''}`,
    },
    {
      key: 'broach',
      title: 'Broach',
      does:
        steps.length > 0
          ? `From both sides by turns: ${steps.map(size).join(', ')} mm. Try the pivot at each.`
          : `Try the pivot; it wants ${mm(finishedMm)}.`,
    },
    {
      key: 'sink',
      title: 'Oil sink, burr',
      does: `Oil sink on the outside, no deeper than ${mm(plateMm / 3)}; take the burr off inside.`,
    },
  ]
}

function trial(): BushingStep[] {
  return [
    {
      key: 'alone',
      title: 'Alone',
      does: 'That one wheel between the plates: it spins free dial up, dial down and upright, with endshake of 0.1 mm or more.',
    },
    {
      key: 'pair',
      title: 'With its neighbour',
      does: 'The pair in mesh: no bind, no butting, a little shake at every tooth.',
    },
  ]
}

function mm(value: number): string {
  return `${value.toFixed(2)} mm`
}

function size(value: number): string {
  return value.toFixed(2)
}
