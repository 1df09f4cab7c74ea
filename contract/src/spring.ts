import { TRAIN_NAMES } from '@treadle/core/choices'
import {
  array,
  boolean,
  id,
  idOrNone,
  measured,
  mm,
  only,
  requiredLine,
  ruled,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'
import type { Stamped } from './stamped.ts'

export const SPRING_CHOICES = ['', 'keep', 'stock', 'order'] as const

/** The mainspring of a train: as it was found, what is fitted instead, and how far that is. */
export const SpringSheetChange = ruled(
  only({
    id: id(),
    version: version(),
    train: string().oneOf(TRAIN_NAMES).required().label('Train'),
    widthMm: mm(1, 100, 'Width'),
    /** near the arbor, in the middle, near the wall */
    innerMm: mm(0.03, 3, 'Thick, near the arbor'),
    middleMm: mm(0.03, 3, 'Thick, in the middle'),
    outerMm: mm(0.03, 3, 'Thick, near the wall'),
    lengthMm: mm(50, 20_000, 'Length'),
    /** counted in the barrel, run down */
    coils: mm(1, 60, 'Coils, in the barrel'),
    barrelInsideMm: mm(4, 400, 'Barrel, inside'),
    barrelHeightMm: mm(1, 110, 'Barrel, height inside'),
    arborMm: mm(1, 200, 'Arbor'),
    turnsUsed: mm(0.5, 60, 'Turns used'),
    /** out of its barrel, laid loose on the bench, across its outer coil */
    looseMm: mm(5, 3000, 'Laid loose, across'),
    end: string().oneOf(['', 'hole', 'loop']).defined().label('Outer end'),
    holeEnd: string().oneOf(['', 'sound', 'torn']).defined().label('Its end'),
    set: boolean().required().label('Set'),
    rust: boolean().required().label('Rust pits'),
    cracks: boolean().required().label('Cracks'),
    choice: string().oneOf(SPRING_CHOICES).defined().label('What is done'),
    stockId: idOrNone(),
    fittedWidthMm: mm(1, 100, 'Fitted, width'),
    fittedThickMm: mm(0.03, 3, 'Fitted, thick'),
    fittedLengthMm: mm(50, 20_000, 'Fitted, length'),
    winderNmm: mm(1, 1_000_000, 'Winder, rated'),
    done: array(requiredLine(30)).max(30).required().label('Steps done'),
    note: text(500).defined().label('Note'),
  }),
  [
    'arbor',
    'Arbor: it must be smaller than the barrel',
    (s) => s.arborMm === null || s.barrelInsideMm === null || s.arborMm < s.barrelInsideMm,
  ],
)
export type SpringSheetChange = InferType<typeof SpringSheetChange>
export type SpringSheetRow = SpringSheetChange & Stamped

export function blankSpringSheet(id: string, train: SpringSheetChange['train']): SpringSheetChange {
  return {
    id,
    version: 0,
    train,
    widthMm: null,
    innerMm: null,
    middleMm: null,
    outerMm: null,
    lengthMm: null,
    coils: null,
    barrelInsideMm: null,
    barrelHeightMm: null,
    arborMm: null,
    turnsUsed: null,
    looseMm: null,
    end: '',
    holeEnd: '',
    set: false,
    rust: false,
    cracks: false,
    choice: '',
    stockId: null,
    fittedWidthMm: null,
    fittedThickMm: null,
    fittedLengthMm: null,
    winderNmm: null,
    done: [],
    note: '',
  }
}

/** The suspension spring as it was found, and the one fitted. */
export const SuspensionChange = only({
  id: id(),
  version: version(),
  blades: measured(1, 4).integer().required().label('Blades'),
  thickMm: mm(0.01, 2, 'Thick'),
  widthMm: mm(0.3, 60, 'Width of a blade'),
  freeMm: mm(0.5, 300, 'Free length'),
  massKg: measured(0.001, 2000).nullable().defined().label('Mass of the bob'),
  kinked: boolean().required().label('Kinked'),
  rust: boolean().required().label('Rusted'),
  twisted: boolean().required().label('Twisted, or blades unequal'),
  makeshift: boolean().required().label('Makeshift'),
  fittedThickMm: mm(0.01, 2, 'Fitted, thick'),
  fittedWidthMm: mm(0.3, 60, 'Fitted, width'),
  fittedFreeMm: mm(0.5, 300, 'Fitted, free length'),
  note: text(500).defined().label('Note'),
})
export type SuspensionChange = InferType<typeof SuspensionChange>
export type SuspensionRow = SuspensionChange & Stamped

export function blankSuspension(id: string): SuspensionChange {
  return {
    id,
    version: 0,
    blades: 2,
    thickMm: null,
    widthMm: null,
    freeMm: null,
    massKg: null,
    kinked: false,
    rust: false,
    twisted: false,
    makeshift: false,
    fittedThickMm: null,
    fittedWidthMm: null,
    fittedFreeMm: null,
    note: '',
  }
}
