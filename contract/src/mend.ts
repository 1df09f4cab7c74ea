import type { PivotWork } from '@treadle/core'
import { BUSHING_METHODS, PIVOT_WORK } from '@treadle/core/choices'
import {
  array,
  boolean,
  id,
  idOrNone,
  line,
  measured,
  only,
  ruled,
  requiredLine,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'
import { arborPlace } from './place.ts'
import { PLATES } from './plateMap.ts'

export const BINDS = ['dial up', 'dial down', 'upright'] as const

/** One arbor between the empty plates, clean and dry: what it does there. */
export const ArborTestChange = only({
  id: id(),
  version: version(),
  ...arborPlace,
  endshakeMm: measured(0, 20).nullable().defined().label('Endshake'),
  /** the positions in which it binds; none: it is free in all */
  binds: array(string().oneOf(BINDS).required()).max(3).required().label('Binds'),
  feel: string().oneOf(['', 'smooth', 'gritty', 'rough']).defined().label('Feel'),
  tried: boolean().required().label('Tried in every position'),
  note: line(300).defined().label('Note'),
})
export type ArborTestChange = InferType<typeof ArborTestChange>
export type ArborTestRow = ArborTestChange & { jobId: string; at: string; who: string; whoId?: string | null }

export const PIVOT_WORK_TITLES: Record<PivotWork, string> = {
  '': 'not done yet',
  left: 'left as it is',
  polished: 'polished by hand',
  burnished: 'filed and burnished',
  papered: 'papers and paste',
  straightened: 'straightened',
  're-pivoted': 're-pivoted',
}

/** One end of an arbor: what was found, what was done, how thick it is now. */
export const PivotChange = ruled(
  only({
    id: id(),
    version: version(),
    ...arborPlace,
    plate: string().oneOf(PLATES).required().label('Plate'),
    nail: string().oneOf(['', 'smooth', 'catches']).defined().label('Fingernail'),
    firstMm: measured(0.05, 50).nullable().defined().label('Gauge, at the shoulder'),
    secondMm: measured(0.05, 50).nullable().defined().label('Gauge, at the end'),
    outOfRoundMm: measured(0, 5).nullable().defined().label('Out of round'),
    runoutMm: measured(0, 10).nullable().defined().label('Runs out'),
    grooveDepthMm: measured(0, 5).nullable().defined().label('Groove, deep'),
    originalMm: measured(0.05, 50).nullable().defined().label('As it was made'),
    /** the arbor beside it, for a new pivot */
    arborMm: measured(0.1, 100).nullable().defined().label('Arbor, across'),
    shoulder: string().oneOf(['', 'clean', 'worn']).defined().label('Shoulder'),
    rust: boolean().required().label('Rust pits'),
    /** that straightening may break it was said to the owner before */
    ownerTold: boolean().required().label('The owner was told'),
    work: string().oneOf(PIVOT_WORK).defined().label('Done'),
    finishedMm: measured(0.05, 50).nullable().defined().label('Finished'),
    note: line(300).defined().label('Note'),
  }),
  ['finished', 'Finished: enter what the gauge says once it is done', (p) => p.work === '' || p.finishedMm !== null],
  [
    'groove',
    'Groove: it can’t be as deep as half the pivot',
    (p) => {
      const gauge = Math.max(p.firstMm ?? 0, p.secondMm ?? 0)
      const deepest = Math.max(p.grooveDepthMm ?? 0, (p.outOfRoundMm ?? 0) / 2)
      return gauge === 0 || (deepest < gauge / 2 && (p.nail !== 'catches' || gauge > 0.04))
    },
  ],
  [
    'told',
    'Straightening: tell the owner first that it may break',
    (p) => p.work !== 'straightened' || p.ownerTold === true,
  ],
)
export type PivotChange = InferType<typeof PivotChange>
export type PivotRow = PivotChange & { jobId: string; at: string; who: string; whoId?: string | null }

/** A pivot of which nothing is known yet. */
export function blankPivot(
  id: string,
  place: Pick<PivotChange, 'train' | 'arbor' | 'arborIndex' | 'plate'>,
): PivotChange {
  return {
    ...place,
    id,
    version: 0,
    nail: '',
    firstMm: null,
    secondMm: null,
    outOfRoundMm: null,
    runoutMm: null,
    grooveDepthMm: null,
    originalMm: null,
    arborMm: null,
    shoulder: '',
    rust: false,
    ownerTold: false,
    work: '',
    finishedMm: null,
    note: '',
  }
}

export const BUSH_SOURCES = ['stock', 'turned'] as const
export const BUSH_SOURCE_TITLES: Record<(typeof BUSH_SOURCES)[number], string> = {
  stock: 'from the drawer',
  turned: 'turned here',
}

/** The work on one hole of the plan: how, with what, and which steps are done. */
export const BushingChange = only({
  id: id(),
  version: version(),
  holeId: id(),
  method: string().oneOf(BUSHING_METHODS).required().label('How'),
  spoilt: boolean().required().label('Spoilt'),
  source: string().oneOf(BUSH_SOURCES).required().label('Bush'),
  stockId: idOrNone(),
  cutterMm: measured(0.3, 60).nullable().defined().label('Cutter'),
  outsideMm: measured(0.3, 60).nullable().defined().label('Bush, outside'),
  insideMm: measured(0.05, 50).nullable().defined().label('Bush, inside'),
  lengthMm: measured(0.2, 100).nullable().defined().label('Bush, length'),
  /** the pivot it was sized by, and the hole as it was broached */
  pivotMm: measured(0.05, 50).nullable().defined().label('Pivot'),
  finishedMm: measured(0.05, 50).nullable().defined().label('Finished hole'),
  done: array(requiredLine(30)).max(30).required().label('Steps done'),
  note: text(500).defined().label('Note'),
})
export type BushingChange = InferType<typeof BushingChange>
/** The work on a hole before anything is chosen for it. */
export function blankBushing(id: string, holeId: string): BushingChange {
  return {
    id,
    version: 0,
    holeId,
    method: 'hand',
    spoilt: false,
    source: 'turned',
    stockId: null,
    cutterMm: null,
    outsideMm: null,
    insideMm: null,
    lengthMm: null,
    pivotMm: null,
    finishedMm: null,
    done: [],
    note: '',
  }
}
export type BushingRow = BushingChange & { jobId: string; at: string; who: string; whoId?: string | null }

/** A hole that was bushed on an earlier visit of this clock. */
export interface BushedBefore {
  train: string
  arbor: string
  plate: 'front' | 'back'
  jobNumber: number
  at: string
  /** as it was found, and as it was left; mm */
  longAxisMm: number | null
  shortAxisMm: number | null
  wearDeg: number | null
  outsideMm: number | null
  finishedMm: number | null
}
