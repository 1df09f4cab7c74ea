/** What may be asked for oil, or must stay dry. */
export const OIL_PARTS = [
  'pivot',
  'great pivot',
  'pallet faces',
  'crutch fork',
  'suspension',
  'mainspring',
  'click',
  'ratchet',
  'wheel teeth',
  'pinion leaves',
  'motion work teeth',
  'hammer tail',
  'lifting surface',
  'chime activator',
  'pulley axle',
] as const
export type OilPart = (typeof OIL_PARTS)[number]

export const OIL_KINDS = ['pivot oil', 'heavy oil', 'grease'] as const
export type OilKind = (typeof OIL_KINDS)[number]

export interface OilRule {
  with: OilKind | 'dry'
  howMuch: string
  why: string
}

const TEETH: OilRule = {
  with: 'dry',
  howMuch: 'none',
  why: 'Oil on teeth gathers dust and grinds them; they roll, they don’t slide.',
}

/** What each part gets, by the rule of the craft. */
export const OIL_RULES: Record<OilPart, OilRule> = {
  pivot: {
    with: 'pivot oil',
    howMuch: 'half to two thirds of the sink',
    why: 'Too much runs down the plate and drains the hole.',
  },
  'great pivot': {
    with: 'heavy oil',
    howMuch: 'half to two thirds of the sink',
    why: 'It turns slowly under a great load: thin oil is pressed out.',
  },
  'pallet faces': {
    with: 'pivot oil',
    howMuch: 'a trace where the teeth land',
    why: 'The teeth slide along them; more is only carried round the wheel.',
  },
  'crutch fork': {
    with: 'pivot oil',
    howMuch: 'a trace on its sides',
    why: 'It slides on the rod at every swing; dry, it squeaks and takes power.',
  },
  suspension: {
    with: 'pivot oil',
    howMuch: 'a trace on the brass, none on the blades',
    why: 'Where the brass hangs in its block it turns a little.',
  },
  mainspring: {
    with: 'heavy oil',
    howMuch: 'a thin film along its coils',
    why: 'The coils slide on each other; a dry spring jumps and loses power.',
  },
  click: {
    with: 'grease',
    howMuch: 'a trace at its rivet and nose',
    why: 'It slides under the whole load of the spring.',
  },
  ratchet: { with: 'grease', howMuch: 'a trace on its teeth', why: 'The click slides over each of them.' },
  'wheel teeth': TEETH,
  'pinion leaves': TEETH,
  'motion work teeth': { ...TEETH, why: `${TEETH.why} Behind the dial the oil creeps onto it.` },
  'hammer tail': {
    with: 'grease',
    howMuch: 'a trace where the pins lift it',
    why: 'The pins slide along it under load.',
  },
  'lifting surface': {
    with: 'grease',
    howMuch: 'a trace where it slides',
    why: 'Levers and cams slide slowly on each other: oil would run off.',
  },
  'chime activator': {
    with: 'grease',
    howMuch: 'on four of its teeth: turning spreads it',
    why: 'It lifts every hammer by sliding under it.',
  },
  'pulley axle': {
    with: 'pivot oil',
    howMuch: 'a trace',
    why: 'It turns under the whole weight; what is too much drops on the line and the case.',
  },
}

export interface PlannedPoint extends OilRule {
  name: string
}

/** What each point gets, how much and why, in the order in which they were given. */
export function oilPlan(points: { name: string; part: OilPart }[]): { points: PlannedPoint[] } {
  return { points: points.map(({ name, part }) => ({ name, ...OIL_RULES[part] })) }
}
