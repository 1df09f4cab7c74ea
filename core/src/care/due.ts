import { guaranteeUntil } from './guarantee.ts'
import { OIL_DOUBTS, type OilDoubt } from '../oil/doubt.ts'
import type { OwedMark } from './marks.ts'
import { oilDue, type OilSchool } from './oilDue.ts'
import type { Owed } from './now.ts'
import { whenThere } from './workshopTime.ts'

/** What falls due of a clock that went home. */
export const CARE_KINDS = ['check', 'service', 'guarantee'] as const
export type CareKind = (typeof CARE_KINDS)[number]

/** A clock at home, as far as its care asks. */
export interface CareFacts {
  /** the day it was oiled last, ISO 8601 */
  oiledOn: string
  /** fresh oil on old, in place */
  stopGap: boolean
  doubt: OilDoubt | null
  mercury: boolean
  chimes: boolean
  weights: boolean
  moon: boolean
}

export interface CareDue {
  kind: CareKind
  /** ISO 8601 */
  dueOn: string
  why: string
  /** what is inspected with it, the oil aside */
  withIt: CarePart[]
  /** what is to be looked at on that day */
  look: string[]
}

/** What is inspected whenever the oil is. */
export const CARE_PARTS = ['suspension', 'mercury', 'chimes'] as const
export type CarePart = (typeof CARE_PARTS)[number]

/**
 * What falls due of the oil of a clock at home, in order of time: a look at it and at what is inspected with it, and its
 * service.
 *
 * By the school, but oil of a bottle past its time, or oil that was seen not to stay, is looked at after a year. The oil's
 * age counts, whether the clock goes or not.
 */
export function careDue(facts: CareFacts, school: OilSchool): CareDue[] {
  const { oiledOn, stopGap, doubt } = facts
  const { checkOn, serviceOn } = oilDue(oiledOn, school, facts)
  const oiled = `Oiled ${oiledOn.slice(0, 7)}${stopGap ? ', in place' : ''}`
  return [
    {
      kind: 'check',
      dueOn: checkOn,
      why: `${oiled}${doubt === null ? '' : `; ${OIL_DOUBTS[doubt]}`}; it is at home.`,
      withIt: withOil(facts),
      look: lookAt(facts),
    },
    {
      kind: 'service',
      dueOn: serviceOn,
      why: `${oiled}; it is at home.`,
      withIt: withOil(facts),
      look: [...lookAt(facts), 'Wear: shake of each hole, pivots, pallets; end shake'],
    },
  ]
}

/**
 * The end of the guarantee of a clock's last visit, whatever was done on it; null: none is given.
 *
 * @param closedOn - the day it went home, ISO 8601
 * @param guaranteeMonths - 0: none is given
 */
export function guaranteeDue(closedOn: string, guaranteeMonths: number): CareDue | null {
  const dueOn = guaranteeUntil(closedOn, guaranteeMonths)
  if (dueOn === null) return null
  return {
    kind: 'guarantee',
    dueOn,
    why: `It went home ${closedOn.slice(0, 10)} with ${guaranteeMonths} months of guarantee.`,
    withIt: [],
    look: ['Does it keep time, strike and run its days? What is ours to mend is mended before this day'],
  }
}

/** A suspension spring has no age at which it is due: it is inspected each time, as mercury and chimes are. */
function withOil({ mercury, chimes }: CareFacts): CarePart[] {
  return CARE_PARTS.filter((part) => part === 'suspension' || { mercury, chimes }[part])
}

function lookAt({ mercury, chimes, weights, moon }: CareFacts): string[] {
  return [
    'Pivots front and back: oil clear in its sink, run down the plate, or dark',
    'Suspension spring: kinks, rust, cracks at its ends',
    'Beat and arc against how it left; its footing against the picture',
    ...(weights ? ['Lines or chains, pulleys, hooks of the weights'] : []),
    ...(mercury ? ['Mercury: jar, cap, stirrup and hanger; the case fixed and locked'] : []),
    ...(chimes ? ['Chime hammers and their springs, rods, the chime train’s pivots'] : []),
    ...(moon ? ['Moon and date as the sky has them'] : []),
  ]
}

const HOUR = 9

/** When a due day begins for the workshop, Unix s: nine in the morning there. */
export function careDueS({ dueOn }: Pick<CareDue, 'dueOn'>, timeZone: string): number {
  return whenThere(dueOn, HOUR, timeZone)
}

const SUBJECTS: Record<CareKind, string> = { check: '', service: '', guarantee: 'guarantee' }
const TITLES: Record<CareKind, string> = {
  check: 'Its oil is due for a look: ask its owner',
  service: 'Due for service: ask its owner',
  guarantee: 'Its guarantee ends: ask how it goes',
}

/** What falls due, as a thing owed; `later` and `done` are said of it by the same marks. */
export function careOwed(due: CareDue, timeZone: string, nowS: number): Owed {
  const dueS = careDueS(due, timeZone)
  return {
    kind: 'recall',
    dueS,
    weight: dueS <= nowS && due.kind !== 'guarantee' ? 'watch' : 'sound',
    title: TITLES[due.kind],
    why: due.why,
    subject: SUBJECTS[due.kind],
  }
}

/** How a due thing stands. */
export const CARE_STATES = ['coming', 'due', 'put-off', 'answered', 'not-needed', 'lapsed'] as const
export type CareState = (typeof CARE_STATES)[number]

const DAY_S = 86_400
/** Nobody answered for so long after it fell due: the owner has let it lapse. */
const LAPSED_DAYS = 365

/** Whether a due thing is still to come, is due, was put off, answered or not wanted, or has lapsed unanswered. */
export function careState(owed: Owed, marks: OwedMark[], nowS: number): CareState {
  const dueS = owed.dueS ?? 0
  const mark = marks.find((m) => m.kind === owed.kind && m.subject === owed.subject && isSame(m.dueS, dueS))
  if (mark?.state === 'done') return 'answered'
  if (mark?.state === 'not-needed') return 'not-needed'
  if (mark?.state === 'later' && (mark.untilS ?? 0) > nowS) return 'put-off'
  if (dueS > nowS) return 'coming'
  return nowS - dueS > LAPSED_DAYS * DAY_S ? 'lapsed' : 'due'
}

function isSame(a: number | null, b: number): boolean {
  return a !== null && Math.abs(a - b) < 60
}
