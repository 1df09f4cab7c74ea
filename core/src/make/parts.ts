import { FieldError, requirePositive } from '../check/require.ts'
import { unlessRefused } from '../check/unlessRefused.ts'
import { countWheelRim, snailEdge, type FlatPoint } from './flat.ts'
import { repivotSizes } from '../pivot/repivot.ts'
import { AT_LATHE, step, type WorkStep } from '../steps/step.ts'

export const MADE_PARTS = [
  'arbor',
  'pivot',
  'click rivet',
  'bush',
  'stud',
  'collet',
  'hand collet',
  'count wheel',
  'count wheel with halves',
  'snail',
] as const
export type MadePart = (typeof MADE_PARTS)[number]

/** A length of one thickness of a turned part, from its left end; tolerances above and below, mm. */
export interface Section {
  name: string
  diameterMm: number
  lengthMm: number
  aboveMm: number
  belowMm: number
}

/** A bore along the part’s middle, from its right end. */
export interface Bore {
  diameterMm: number
  depthMm: number
  aboveMm: number
  belowMm: number
}

/** A part as it is drawn: a turned one by its sections from left to right, a flat one by its edge; a bore, what it is made of, and how. */
export interface PartDrawing {
  part: MadePart
  sections: Section[]
  bore: Bore | null
  /** the edge of a part that is cut from sheet, mm from its middle; null: it is turned */
  flat: FlatPoint[] | null
  lengthMm: number
  /** least rod to turn it from, mm, of the round figures that rod is sold in; of a flat part, how thick the sheet is */
  rodMm: number
  material: string
  steps: WorkStep[]
}

/** What each part is measured from: the key of a size, what it is called, and a size to begin with, mm. */
export const PART_SIZES: Record<MadePart, { key: string; title: string; startMm: number }[]> = {
  arbor: [
    size('bodyMm', 'Body, across', 3),
    size('bodyLongMm', 'Body, between the shoulders', 24),
    size('frontPivotMm', 'Front pivot, across', 1),
    size('frontLongMm', 'Front pivot, long', 2.6),
    size('backPivotMm', 'Back pivot, across', 1),
    size('backLongMm', 'Back pivot, long', 2.6),
  ],
  pivot: [
    size('pivotMm', 'Pivot, across', 1),
    size('pivotLongMm', 'Pivot, long', 2.6),
    size('arborMm', 'Arbor, across', 2.4),
  ],
  'click rivet': [
    size('clickHoleMm', 'Hole of the click', 2.4),
    size('clickMm', 'Click, thick', 1.6),
    size('wheelHoleMm', 'Hole of the wheel', 2),
    size('wheelMm', 'Wheel, thick', 2),
  ],
  bush: [size('holeMm', 'Hole of the plate', 3), size('insideMm', 'Inside', 1), size('plateMm', 'Plate, thick', 2.4)],
  stud: [
    size('tailMm', 'Tail in the plate, across', 2),
    size('plateMm', 'Plate, thick', 2.4),
    size('collarMm', 'Collar, across', 5),
    size('collarLongMm', 'Collar, long', 1),
    size('postMm', 'Post, across', 2.5),
    size('postLongMm', 'Post, long', 6),
  ],
  collet: [
    size('arborMm', 'Arbor, across', 3),
    size('bodyMm', 'Body, across', 7),
    size('bodyLongMm', 'Body, long', 3),
    size('wheelBoreMm', 'Bore of the wheel', 5),
    size('wheelMm', 'Wheel, thick', 1.2),
  ],
  'hand collet': [
    size('pipeMm', 'Pipe or arbor, across', 3),
    size('bodyMm', 'Body, across', 6),
    size('bodyLongMm', 'Body, long', 2.5),
    size('handHoleMm', 'Hole of the hand', 4.5),
    size('handMm', 'Hand, thick', 0.8),
  ],
  'count wheel': countWheelSizes(1.4),
  'count wheel with halves': countWheelSizes(1.2),
  snail: [
    size('highMm', 'Radius at one o’clock', 16),
    size('stepMm', 'Step for a tooth of the rack', 1),
    size('boreMm', 'Bore', 5),
    size('thickMm', 'Thick', 1),
  ],
}

function countWheelSizes(slotMm: number) {
  return [
    size('outsideMm', 'Across', 50),
    size('slotDeepMm', 'Slot, deep', 3),
    size('slotWideMm', 'Slot, wide: the detent and a little', slotMm),
    size('boreMm', 'Bore', 5),
    size('thickMm', 'Thick', 1.2),
  ]
}

function size(key: string, title: string, startMm: number) {
  return { key, title, startMm }
}

/** Above and below a size, mm: what runs in a hole, what is driven into one, what is broached out later, and the rest. */
const RUNS = { aboveMm: 0, belowMm: 0.01 }
const DRIVEN = { aboveMm: 0.02, belowMm: 0 }
const UNDER = { aboveMm: 0, belowMm: 0.05 }
const FREE = { aboveMm: 0.05, belowMm: 0.05 }

/**
 * A turned part drawn from what was measured: its sections and bore with tolerances, mm, the rod and the steps.
 *
 * Tolerances are a workshop’s rules: a pivot up to a hundredth under its size, what is driven in up to two over, a bore
 * that is broached later up to five under.
 *
 * @throws FieldError naming the size that can’t be
 */
export function drawPart(part: MadePart, sizes: Record<string, number>): PartDrawing {
  const of = (key: string) => {
    const mm = sizes[key] ?? Number.NaN
    requirePositive(key, mm)
    return mm
  }
  switch (part) {
    case 'arbor': {
      smaller('frontPivotMm', of('frontPivotMm'), 'bodyMm', of('bodyMm'))
      smaller('backPivotMm', of('backPivotMm'), 'bodyMm', of('bodyMm'))
      return drawn(part, 'pivot steel', [
        section('front pivot', of('frontPivotMm'), of('frontLongMm'), RUNS),
        section('body', of('bodyMm'), of('bodyLongMm'), FREE),
        section('back pivot', of('backPivotMm'), of('backLongMm'), RUNS),
      ])
    }
    case 'pivot': {
      const plug = repivotSizes(of('pivotMm'), of('arborMm'))
      return drawn(part, 'pivot steel', [
        section('plug, driven in', plug.plugMm, plug.depthMm, { aboveMm: 0.005, belowMm: 0 }),
        section('pivot, turned down in place', of('pivotMm'), of('pivotLongMm'), RUNS),
      ])
    }
    case 'click rivet': {
      const hole = of('clickHoleMm')
      smaller('wheelHoleMm', of('wheelHoleMm'), 'clickHoleMm', hole + 0.001)
      return drawn(part, 'soft steel', [
        section('head, slightly domed', 1.8 * hole, 0.5 * hole, FREE),
        section('shank, the click turns on it', hole - 0.05, of('clickMm') + 0.05, RUNS),
        section(
          'tail, spread on the far side',
          // Never thicker than the shank: it goes through the click first.
          Math.min(hole - 0.05, of('wheelHoleMm') - 0.02),
          of('wheelMm') + 0.6 * of('wheelHoleMm'),
          RUNS,
        ),
      ])
    }
    case 'bush': {
      smaller('insideMm', of('insideMm'), 'holeMm', of('holeMm'))
      return drawn(
        part,
        'bush bronze or brass rod',
        [section('outside, pressed in', of('holeMm') + 0.02, of('plateMm') + 0.1, { aboveMm: 0.01, belowMm: 0.005 })],
        { diameterMm: of('insideMm') - 0.05, depthMm: of('plateMm') + 0.1, ...UNDER },
      )
    }
    case 'stud': {
      smaller('tailMm', of('tailMm'), 'collarMm', of('collarMm'))
      smaller('postMm', of('postMm'), 'collarMm', of('collarMm'))
      return drawn(part, 'pivot steel', [
        section('tail, riveted behind', of('tailMm') + 0.01, of('plateMm') + 0.4 * of('tailMm'), DRIVEN),
        section('collar', of('collarMm'), of('collarLongMm'), FREE),
        section('post', of('postMm'), of('postLongMm'), RUNS),
      ])
    }
    case 'collet':
      return onPipe(
        part,
        of('arborMm'),
        of('bodyMm'),
        of('bodyLongMm'),
        ['wheelBoreMm', of('wheelBoreMm')],
        of('wheelMm'),
      )
    case 'count wheel':
    case 'count wheel with halves': {
      const rim = countWheelRim(part === 'count wheel' ? 'none' : 'one', {
        outsideMm: of('outsideMm'),
        slotDeepMm: of('slotDeepMm'),
        slotWideMm: of('slotWideMm'),
      })
      smaller('boreMm', of('boreMm'), 'outsideMm', 0.6 * of('outsideMm'))
      return cut(part, rim, of('boreMm'), of('thickMm'))
    }
    case 'snail':
      return cut(
        part,
        snailEdge({ highMm: of('highMm'), stepMm: of('stepMm'), boreMm: of('boreMm') }),
        of('boreMm'),
        of('thickMm'),
      )
    case 'hand collet':
      return onPipe(part, of('pipeMm'), of('bodyMm'), of('bodyLongMm'), ['handHoleMm', of('handHoleMm')], of('handMm'))
  }
}

/** A collet: a body on an arbor or a pipe, with a seat that is riveted over the wheel or the hand. */
function onPipe(
  part: MadePart,
  throughMm: number,
  bodyMm: number,
  bodyLongMm: number,
  [seatKey, seatMm]: [string, number],
  thickMm: number,
): PartDrawing {
  smaller(seatKey, seatMm, 'bodyMm', bodyMm)
  if (throughMm >= seatMm - 0.6)
    throw new FieldError(
      seatKey,
      seatMm,
      `over ${throughMm} mm it leaves a seat too thin to rivet; 0.3 mm is the least wall`,
    )
  const longMm = bodyLongMm + thickMm + 0.3
  return drawn(
    part,
    'brass rod',
    [section('body', bodyMm, bodyLongMm, FREE), section('seat, riveted over', seatMm - 0.01, thickMm + 0.3, RUNS)],
    { diameterMm: throughMm - 0.03, depthMm: longMm, ...UNDER },
  )
}

function section(
  name: string,
  diameterMm: number,
  lengthMm: number,
  tolerance: Pick<Section, 'aboveMm' | 'belowMm'>,
): Section {
  return { name, diameterMm, lengthMm, ...tolerance }
}

function smaller(field: string, mm: number, than: string, thanMm: number): void {
  if (mm >= thanMm) throw new FieldError(field, mm, `it must be smaller than ${than}, ${thanMm.toFixed(2)} mm`)
}

function drawn(part: MadePart, material: string, sections: Section[], bore: Bore | null = null): PartDrawing {
  const widest = Math.max(...sections.map((s) => s.diameterMm))
  return {
    part,
    sections,
    bore,
    flat: null,
    lengthMm: sections.reduce((sum, s) => sum + s.lengthMm, 0),
    rodMm: Math.ceil((widest + 0.3) * 2) / 2,
    material,
    steps: stepsOf(part, bore),
  }
}

/** Whether a part is made: every step of its drawing is done. One that can’t be drawn is not. */
export function isMade({
  part,
  sizes,
  done,
}: {
  part: MadePart
  sizes: Record<string, number>
  done: string[]
}): boolean {
  const drawing = unlessRefused(() => drawPart(part, sizes))
  return !(drawing instanceof FieldError) && drawing.steps.every((s) => done.includes(s.key))
}

/** A part that is cut from sheet: how large it is across stands for its length. */
function cut(part: MadePart, flat: FlatPoint[], boreMm: number, thickMm: number): PartDrawing {
  const farthest = Math.max(...flat.map((p) => Math.hypot(p.xMm, p.yMm)))
  return {
    part,
    sections: [],
    bore: { diameterMm: boreMm, depthMm: thickMm, ...UNDER },
    flat,
    lengthMm: 2 * farthest,
    rodMm: thickMm,
    material: part === 'snail' ? 'brass or steel sheet' : 'brass sheet',
    steps: [
      step(
        'stick',
        'Lay the print on the sheet',
        'Print at full size, check the ruler with a caliper, and stick it on.',
      ),
      step('bore', 'Drill and broach the bore', 'First of all: everything else is measured from it.', AT_LATHE),
      step('round', 'Turn it round', 'On an arbor through its own bore, to the size across.', AT_LATHE),
      step(
        'cut',
        part === 'snail' ? 'Saw and file the steps' : 'Saw and file the slots',
        part === 'snail'
          ? 'Leave the line; file each step to its radius with the caliper from the bore.'
          : 'Leave the line; file each to the detent’s width, its sides straight to the middle.',
      ),
      step(
        'try',
        'Try it in the clock',
        part === 'snail'
          ? 'One and twelve first: the tail comes down in the middle of a step at both.'
          : 'Round all twelve hours with the detent by hand, before the train is in.',
      ),
      step('finish', 'Finish', 'Burrs off, edges broken; what the detent or tail touches is polished.'),
    ],
  }
}

/** Face, centre, turn, drill, part, face the other end: what is made first holds what is made next. */
function stepsOf(part: MadePart, bore: Bore | null): WorkStep[] {
  if (part === 'pivot')
    return [
      step('face', 'Face the broken end', 'Square to the arbor, held close in the lathe.', AT_LATHE),
      step('centre', 'Centre it', 'A small, true centre: the new pivot runs as true as this.'),
      step(
        'drill',
        'Drill',
        'Slow, oiled, cleared often; to the depth drawn. A hard arbor is softened only at its end.',
      ),
      step('plug', 'Turn the plug', 'To the size drawn, a hair of taper; oil and drive it in.'),
      step('turn', 'Turn it down in place', 'To the pivot’s size with its shoulder square, then burnish or polish.'),
      step('measure', 'Measure', 'Pivot, length and run-out; its bush follows.'),
    ]
  const bored = bore
    ? [
        step('drill', 'Drill', 'From the faced end, under the size drawn; cleared often.'),
        step('broach', 'Broach', 'From both ends, a little at a time, to the size drawn.'),
      ]
    : []
  const spread =
    part === 'click rivet' || part === 'stud' || part === 'collet' || part === 'hand collet'
      ? [
          step(
            'rivet',
            'Rivet it in',
            'Supported close round it; many light blows all round, on the rivet and never on the arm.',
          ),
        ]
      : []
  return [
    step('face', 'Face the end', 'Rod short out of the chuck.', AT_LATHE),
    step('centre', 'Centre it', 'Where it is drilled, or held between centres.'),
    step('turn', 'Turn', 'The thickest first, then the shoulders to their lengths; measure before the last cut.'),
    ...bored,
    step('part', 'Part it off', 'A little longer than drawn.'),
    step('other', 'Face the other end', 'Turned round and held gently; to the length drawn.'),
    step('finish', 'Finish', 'Edges broken, pivots and posts polished; measured against the drawing.'),
    ...spread,
  ]
}

/** Half the outline of a part, from its left end along to its right, mm: where it is and how far from the middle. */
export function outlineOfPart({ sections }: Pick<PartDrawing, 'sections'>): { alongMm: number; radiusMm: number }[] {
  let along = 0
  return sections.flatMap(({ diameterMm, lengthMm }) => {
    const from = along
    along += lengthMm
    return [
      { alongMm: from, radiusMm: diameterMm / 2 },
      { alongMm: along, radiusMm: diameterMm / 2 },
    ]
  })
}
