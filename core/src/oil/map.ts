import { endsOf } from '../movement/ends.ts'
import type { HoleFacts } from '../hole/facts.ts'
import { STRIKE_KIND_FACTS, type StrikeKind } from '../strike/kinds.ts'
import { OIL_RULES, type OilPart, type OilRule } from './plan.ts'
import { oilSink } from './sink.ts'

export type OilSideName = 'front' | 'back' | 'inside'

/** One point of a movement that is oiled, or stays dry. */
export interface OilPoint extends OilRule {
  key: string
  name: string
  part: OilPart
  side: OilSideName
  train: string
  /** how it is reached, where that is not plain; empty: from its own side */
  reach: string
  /** its sink, mm, as far as it is known */
  sink: { acrossMm: number; depthMm: number } | null
}

/** What the sheets of a clock know of it, as far as its oil asks. */
export interface OiledWork {
  trains: { train: string; power: string }[]
  trainSheets: { train: string; arbors: { name: string }[]; hourly: number | null }[]
  plateMap: { arbors: { train: string; name: string; index: number; role: string; cock?: string | undefined }[] } | null
  holes: (Pick<HoleFacts, 'train' | 'arbor' | 'plate'> & {
    sinkMm?: number | null | undefined
    plateMm: number | null
  })[]
  strike: StrikeKind | null
  /** it has a pendulum with its suspension and crutch */
  pendulum: boolean
}

/** A sink is cut up to a third of the plate deep: a rule of thumb. */
const SINK_SHARE = 1 / 3

/**
 * Every point of a movement that is oiled and what stays dry, from what its sheets know: pivots of every arbor, springs,
 * clicks, escapement, strike and case; front first, then back, then what is reached from inside.
 */
export function oilPoints(work: OiledWork): OilPoint[] {
  const points = [...pivots(work), ...power(work), ...escapement(work), ...strike(work), ...dry(work)]
  const order = { front: 0, back: 1, inside: 2 }
  return points.sort((a, b) => order[a.side] - order[b.side])
}

/** A point added by hand, as the others stand. */
export function addedPoint(point: { name: string; part: OilPart; side: OilSideName }): OilPoint {
  return at(`added ${point.name}`, point.name, point.part, point.side)
}

function at(key: string, name: string, part: OilPart, side: OilSideName, rest: Partial<OilPoint> = {}): OilPoint {
  return { key: key.slice(0, 100), name, part, side, train: '', reach: '', sink: null, ...OIL_RULES[part], ...rest }
}

function pivots(work: OiledWork): OilPoint[] {
  const { trains, trainSheets, plateMap, holes } = work
  const names = trains.map((t) => t.train)
  const { ends } = endsOf(names, { trainSheets, plateMap, holes })
  const knowsPallets = ends.some((e) => /pallet/i.test(e.arbor))
  const all = [
    ...ends,
    ...(knowsPallets || !names.includes('going')
      ? []
      : (['front', 'back'] as const).map((plate) => ({ train: 'going', arbor: 'Pallet arbor', plate }))),
  ]
  return all.map(({ train, arbor, plate }) => {
    const sheet = trainSheets.find((s) => s.train === train)
    const placed = plateMap?.arbors.find((a) => a.train === train && a.name === arbor)
    const index = placed?.index ?? sheet?.arbors.findIndex((a) => a.name === arbor) ?? -1
    const hourly = sheet !== undefined && sheet.hourly !== null && sheet.arbors[sheet.hourly]?.name === arbor
    const underCock = placed?.cock === plate
    const hole = holes.find((h) => h.train === train && h.arbor === arbor && h.plate === plate)
    return at(`${train} ${arbor} ${plate}`, `${arbor}, ${train}`, index === 0 ? 'great pivot' : 'pivot', plate, {
      train,
      side: hourly && plate === 'front' ? 'inside' : plate,
      reach: underCock
        ? 'under its cock'
        : hourly && plate === 'front'
          ? 'front plate, from between the plates: the motion work covers its sink'
          : '',
      sink: sinkOf(hole),
    })
  })
}

function sinkOf(hole: OiledWork['holes'][number] | undefined): OilPoint['sink'] {
  if (!hole?.sinkMm || hole.plateMm === null) return null
  return { acrossMm: hole.sinkMm, depthMm: Math.min(hole.plateMm * SINK_SHARE, hole.sinkMm / 2) }
}

function power({ trains }: OiledWork): OilPoint[] {
  return trains.flatMap(({ train, power: by }) => {
    const spring = by === 'spring' || by === 'open-spring' || by === 'fusee'
    const of = (what: string) => `${what}, ${train}`
    return [
      ...(spring
        ? [
            at(`${train} mainspring`, of('Mainspring'), 'mainspring', 'inside', {
              train,
              reach:
                by === 'open-spring'
                  ? 'its coils, and its seat on the arbor before it goes on'
                  : 'in its barrel, before the lid is pressed on',
            }),
          ]
        : []),
      at(`${train} click`, of('Click'), 'click', 'inside', { train }),
      at(`${train} ratchet`, of('Ratchet'), 'ratchet', 'inside', { train }),
      ...(by === 'weight'
        ? [
            at(`${train} pulley`, of('Pulley axle'), 'pulley axle', 'inside', {
              train,
              reach: 'on its line, over a cloth',
            }),
          ]
        : []),
    ]
  })
}

function escapement({ trains, pendulum }: OiledWork): OilPoint[] {
  if (!trains.some((t) => t.train === 'going')) return []
  return [
    at('pallet faces', 'Pallet faces', 'pallet faces', 'back', { train: 'going' }),
    ...(pendulum
      ? [
          at('crutch fork', 'Crutch fork', 'crutch fork', 'back', { train: 'going' }),
          at('suspension', 'Suspension, its brass', 'suspension', 'back', { train: 'going' }),
        ]
      : []),
  ]
}

function strike({ trains, strike: kind }: OiledWork): OilPoint[] {
  const has = (train: string) => trains.some((t) => t.train === train)
  if (!has('strike') && !has('chime')) return []
  const quarters = kind === null ? 'none' : STRIKE_KIND_FACTS[kind].quarters
  return [
    at('hammer tail', 'Hammer tail', 'hammer tail', 'inside', { train: 'strike' }),
    at('lifting piece', 'Lifting piece and its pins', 'lifting surface', 'front', {
      train: 'strike',
      reach: 'behind the dial',
    }),
    at('warning lever', 'Warning lever and lock', 'lifting surface', 'front', { train: 'strike' }),
    ...(kind !== null && STRIKE_KIND_FACTS[kind].counts === 'rack'
      ? [at('rack', 'Rack tail and hook', 'lifting surface', 'front', { train: 'strike', reach: 'behind the dial' })]
      : []),
    ...(has('chime') && quarters !== 'bird'
      ? [at('chime activator', 'Chime drum under its hammers', 'chime activator', 'back', { train: 'chime' })]
      : []),
  ]
}

function dry({ trains }: OiledWork): OilPoint[] {
  return [
    ...trains.flatMap(({ train }) => [
      at(`${train} teeth`, `Wheel teeth, ${train}`, 'wheel teeth', 'inside', { train }),
      at(`${train} leaves`, `Pinion leaves, ${train}`, 'pinion leaves', 'inside', { train }),
    ]),
    at('motion work', 'Motion work', 'motion work teeth', 'front', { train: 'going', reach: 'behind the dial' }),
  ]
}

/** The drop that a point is given, µl; null where its sink is not known, or can’t be as it is given. */
export function dropFor(point: Pick<OilPoint, 'with' | 'sink'>): number | null {
  if (point.sink === null || point.with === 'dry' || point.with === 'grease') return null
  const { acrossMm, depthMm } = point.sink
  return oilSink(acrossMm, Math.min(depthMm, acrossMm / 2)).microlitres
}

/** What to do where oil was found as it should not be. */
export const OIL_TROUBLE: { found: string; does: string }[] = [
  {
    found: 'A river down the plate',
    does: 'Too much was put in, and the river has drained the hole: wipe plate and sink dry, peg the hole, and oil anew with less.',
  },
  {
    found: 'A flooded sink',
    does: 'Draw it off with the corner of a paper until the pivot stands in a ring of oil and the sink’s edge is dry.',
  },
  {
    found: 'Green or black oil',
    does: 'Wiping the sink leaves what is in the hole: the wheel comes out and the hole is pegged.',
  },
  { found: 'Oil on teeth', does: 'Wash wheel and pinion and dry them; oil there only holds dust.' },
]
