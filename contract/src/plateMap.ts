import { TRAIN_NAMES } from '@treadle/core/choices'
import {
  array,
  id,
  idOrNone,
  line,
  measured,
  numbers,
  only,
  ruled,
  requiredLine,
  string,
  version,
  type InferType,
} from './fields.ts'

export const PLATES = ['front', 'back'] as const
export type Plate = (typeof PLATES)[number]
export const ARBOR_ROLES = ['escape', 'pallet', 'other'] as const

const place = (label: string) => measured(-600, 600).label(label)
const along = (label: string) => measured(0, 1).required().label(label)

/** Where an arbor stands, as seen from the front, and what the plates are like there. Its counts are the train sheet's. */
export const PlacedArbor = only({
  train: string().oneOf(TRAIN_NAMES).required().label('Train'),
  name: requiredLine(60).label('Arbor'),
  index: measured(0, 12).integer().required().label('Place in the train'),
  role: string().oneOf(ARBOR_ROLES).required().label('Role'),
  xMm: place('x').nullable().defined(),
  yMm: place('y').nullable().defined(),
  pinionAt: along('Pinion along the arbor'),
  wheelAt: along('Wheel along the arbor'),
  /** thickness of each plate at its hole */
  frontMm: measured(0.3, 60).nullable().defined().label('Front plate here'),
  backMm: measured(0.3, 60).nullable().defined().label('Back plate here'),
  /** the plate that is a cock or bridge there, which gives under the press */
  cock: string()
    .oneOf(['', ...PLATES])
    .defined()
    .label('Cock'),
  /** of the mesh that drives its pinion, from a wheel measured across its tips */
  moduleMm: measured(0.05, 20).nullable().defined().label('Module'),
})
export type PlacedArbor = InferType<typeof PlacedArbor>

export const FIXTURE_KINDS = ['pillar', 'screw', 'other'] as const

/** A hole of a plate that no arbor runs in. */
const Fixture = only({
  name: requiredLine(40).label('Name'),
  kind: string().oneOf(FIXTURE_KINDS).required().label('Kind'),
  plate: string()
    .oneOf(['both', ...PLATES])
    .required()
    .label('Plate'),
  xMm: place('x').required(),
  yMm: place('y').required(),
  diameterMm: measured(0.2, 60).required().label('Across'),
})
export type Fixture = InferType<typeof Fixture>

/** The movement’s two plates; they are the clock's, whatever visit they were measured on. */
export const PlateMapChange = ruled(
  only({
    id: id(),
    version: version(),
    arbors: array(PlacedArbor).max(40).required().label('Arbors'),
    fixtures: array(Fixture).max(60).required().label('Pillars and screws'),
    edge: array(only({ xMm: place('x').required(), yMm: place('y').required() }))
      .max(60)
      .required()
      .label('Edge'),
    betweenMm: measured(1, 3000).nullable().defined().label('Between the plates'),
    photoId: idOrNone(),
    /** takes a place on the photo to one on the plate: nine numbers by rows */
    trueing: numbers(-1e9, 1e9, [9, 9]).nullable().label('Trueing'),
    note: line(400).defined().label('Note'),
  }),
  [
    'names',
    'Arbors: two of one train have the same name',
    (map) => {
      const names = (map as { arbors?: PlacedArbor[] }).arbors?.map((a) => `${a.train} ${a.name}`) ?? []
      return new Set(names).size === names.length
    },
  ],
  [
    'fixtures',
    'Pillars and screws: each needs a name of its own',
    (map) => {
      const names = (map as { fixtures?: Fixture[] }).fixtures?.map((f) => f.name) ?? []
      return new Set(names).size === names.length
    },
  ],
  [
    'corners',
    'Edge: give three corners or more, or none',
    (map) => {
      const corners = (map as { edge?: unknown[] }).edge?.length ?? 0
      return corners === 0 || corners >= 3
    },
  ],
)
export type PlateMapChange = InferType<typeof PlateMapChange>
export type PlateMapRow = PlateMapChange & { clockId: string }
