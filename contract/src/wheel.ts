import type { WayKey } from '@treadle/core'
import { CLICK_STATES, FLANKS, TOOTH_FAULTS, WAY_KEYS, WHEEL_PARTS } from '@treadle/core/choices'
import {
  array,
  boolean,
  id,
  idOrNone,
  line,
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
import { arborPlace } from './place.ts'
import type { Stamped } from './stamped.ts'

const felt = (label: string) => string().oneOf(CLICK_STATES).defined().label(label)

/** The wheel of an arbor, or its pinion: what was found tooth by tooth, what is done about it, and how far that is. */
export const WheelSheetChange = ruled(
  only({
    id: id(),
    version: version(),
    ...arborPlace,
    part: string().oneOf(WHEEL_PARTS).required().label('Part'),
    /** teeth, leaves or trundles; the train sheet's where that has it */
    count: measured(3, 1000).integer().nullable().defined().label('Count'),
    outsideMm: mm(0.5, 1500, 'Outside'),
    boreMm: mm(0.1, 300, 'Bore'),
    thickMm: mm(0.1, 100, 'Thick'),
    faults: array(
      only({
        tooth: measured(1, 1000).integer().required().label('Tooth'),
        fault: string().oneOf(TOOTH_FAULTS).required().label('What it is'),
      }),
    )
      .max(1000)
      .required()
      .label('Teeth'),
    worn: string().oneOf(FLANKS).defined().label('Worn flank'),
    click: felt('Click'),
    clickSpring: felt('Click spring'),
    rivet: felt('Rivet of the click'),
    rivetMm: mm(0.3, 30, 'Rivet, across'),
    /** of the click work, from the wheel's centre as seen from the click's side */
    holes: array(
      only({
        name: requiredLine(40).label('Hole'),
        xMm: measured(-1000, 1000).required().label('To the right'),
        yMm: measured(-1000, 1000).required().label('Up'),
        diameterMm: measured(0.1, 300).required().label('Across'),
      }),
    )
      .max(20)
      .required()
      .label('Holes'),
    mirrorDeg: measured(0, 360).nullable().defined().label('Mirrored about'),
    /** crossings of the wheel, and how wide an arm is at the rivet */
    arms: measured(3, 12).integer().nullable().defined().label('Crossings'),
    armMm: mm(0.5, 200, 'Arm, wide'),
    leafMm: mm(0.2, 300, 'Leaves, long'),
    grooveFromMm: mm(0, 300, 'Groove, from the front end'),
    grooveToMm: mm(0, 300, 'Groove, to'),
    grooveMm: mm(0, 20, 'Groove, deep'),
    trundlesMm: array(measured(0.1, 30).nullable().defined()).max(40).required().label('Trundles'),
    shroud: felt('Shroud'),
    way: string<WayKey | ''>()
      .oneOf(['', ...WAY_KEYS])
      .defined()
      .label('Way out'),
    donorId: idOrNone().label('Donor'),
    /** the owner said yes to what can't be undone */
    ownerAgreed: boolean().required().label('The owner agreed'),
    done: array(requiredLine(30)).max(30).required().label('Steps done'),
    note: text(500).defined().label('Note'),
  }),
  [
    'teeth',
    'Teeth: a number is greater than the count',
    (w) => w.count === null || w.faults.every((f) => f.tooth <= (w.count ?? Infinity)),
  ],
  ['twice', 'Teeth: one is named twice', (w) => new Set(w.faults.map((f) => f.tooth)).size === w.faults.length],
  [
    'groove',
    'Groove: it ends before it begins, or beyond the leaves',
    (w) =>
      w.grooveFromMm === null ||
      w.grooveToMm === null ||
      (w.grooveFromMm < w.grooveToMm && (w.leafMm === null || w.grooveToMm <= w.leafMm)),
  ],
)
export type WheelSheetChange = InferType<typeof WheelSheetChange>
export type WheelSheetRow = WheelSheetChange & Stamped

/** A sheet of which nothing is known yet. */
export function blankWheelSheet(
  id: string,
  place: Pick<WheelSheetChange, 'train' | 'arbor' | 'arborIndex' | 'part'>,
): WheelSheetChange {
  return {
    ...place,
    id,
    version: 0,
    count: null,
    outsideMm: null,
    boreMm: null,
    thickMm: null,
    faults: [],
    worn: '',
    click: '',
    clickSpring: '',
    rivet: '',
    rivetMm: null,
    holes: [],
    mirrorDeg: null,
    arms: null,
    armMm: null,
    leafMm: null,
    grooveFromMm: null,
    grooveToMm: null,
    grooveMm: null,
    trundlesMm: [],
    shroud: '',
    way: '',
    donorId: null,
    ownerAgreed: false,
    done: [],
    note: '',
  }
}

/** The ways out with the workshop's own figures. */
export const Ways = only({
  ways: array(
    only({
      key: string<WayKey>().oneOf(WAY_KEYS).required(),
      title: requiredLine(80).label('Way'),
      price: string()
        .required()
        .matches(/^\d{1,9}(\.\d{1,2})?$/, '${path} must be an amount such as 12.50')
        .label('Price'),
      years: measured(0.5, 200).required().label('Years it lasts'),
      undone: boolean().required().label('Can be undone'),
      remark: line(200).defined().label('Remark'),
    }),
  )
    .min(1)
    .max(30)
    .required()
    .label('Ways'),
})
