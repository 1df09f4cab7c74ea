import { FieldError, requirePositive, requireWithin } from '../check/require.ts'
import { circularLossSecondsPerDay } from './circularLoss.ts'
import { temperatureSecondsPerDay } from './compensation.ts'
import { addedMassSecondsPerDay, bodyOf, compoundPendulum, type CompoundPendulum } from './compound.ts'
import { STANDARD_GRAVITY } from './gravity.ts'
import { pendulumLengthMm } from './length.ts'
import { DAMP_SECONDS_PER_DAY } from './materials.ts'
import { alphaOf, bodiesOf, rodOf, type SheetBody, type SheetPart } from './sheet.ts'
import { hungBody, type HungBody, type Suspension } from './suspension.ts'

/** What a pendulum on the bench is asked by. */
export interface LaboratorySetting {
  /** m/s² */
  gravity?: number | undefined
  pitchMm?: number | null | undefined
  suspension?: Suspension | null | undefined
  /** the arc at which it is driven, degrees */
  semiArcDeg?: number | null | undefined
}

/** A pendulum of real parts and what changes its rate; all of it s/day, + gains. */
export interface Laboratory extends CompoundPendulum {
  bodies: SheetBody[]
  /** for each °C warmer */
  secondsPerDayPerC: number
  /** what a gram does where it does most: on the tray, or at half length */
  gramAtMm: number
  secondsPerDayPerGram: number
  /** how much of a turn the rod and what stays with it take away, 0 to 1 */
  heldBack: number
  /** for a tenth of a degree more of arc; null where the arc is not known */
  secondsPerDayPerTenthDeg: number | null
  /** for a millimetre more of arc at the foot; null where the arc is not known */
  secondsPerDayPerArcMm: number | null
  /** how deep its lowest point hangs, mm */
  footMm: number
  /** what ten hundredths more of damp do to a bare wooden rod in the end; null: it is not of wood */
  secondsPerDayPerDamp: number | null
  /** where it really bends and what its spring does; null where the spring is not known */
  hung: HungBody | null
  /** beats an hour as it hangs on its spring and swings at its arc, as far as they are known */
  workingBeatsPerHour: number
}

const DAY_S = 86_400

/**
 * All that is to be known of a pendulum of real parts.
 *
 * @param parts - of the sheet, at most 40, one of them a rod
 * @throws FieldError naming the part and its figure
 */
export function laboratoryOf(parts: readonly SheetPart[], setting: LaboratorySetting = {}): Laboratory {
  const { gravity = STANDARD_GRAVITY, pitchMm, suspension, semiArcDeg } = setting
  const bodies = bodiesOf(parts)
  const body = compoundPendulum(bodies, gravity, pitchMm ?? undefined)
  const rod = rodOf(parts)
  const gramAtMm = parts.find((p) => p.kind === 'tray')?.atMm ?? body.lengthMm / 2
  const footMm = Math.max(...bodies.map(lowest))
  const hung = suspension ? hungBody(suspension, bodyOf(bodies), gravity) : null
  const arc = (more: number) =>
    semiArcDeg == null ? null : circularLossSecondsPerDay(semiArcDeg) - circularLossSecondsPerDay(semiArcDeg + more)
  const slowed = semiArcDeg == null ? 0 : circularLossSecondsPerDay(semiArcDeg)
  return {
    ...body,
    bodies,
    secondsPerDayPerC: temperatureSecondsPerDay(bodies, alphaOf(rod)),
    gramAtMm,
    secondsPerDayPerGram: addedMassSecondsPerDay(1, gramAtMm, body.massG, body.cgMm, body.lengthMm),
    heldBack: 1 - body.secondsPerDayPerMm / (DAY_S / 2 / body.lengthMm),
    secondsPerDayPerTenthDeg: arc(0.1),
    secondsPerDayPerArcMm: arc((Math.atan(1 / footMm) * 180) / Math.PI),
    footMm,
    secondsPerDayPerDamp: rod.material === 'wood' && rod.alphaPerMillion === null ? DAMP_SECONDS_PER_DAY : null,
    hung,
    workingBeatsPerHour: body.beatsPerHour * (1 + ((hung?.secondsPerDay ?? 0) - slowed) / DAY_S),
  }
}

function lowest({ shape, centreMm, lengthMm = 0, radiusMm = 0 }: SheetBody): number {
  return centreMm + (shape === 'rod' || shape === 'cylinder' ? lengthMm / 2 : radiusMm)
}

/** What it takes to make a pendulum beat as its train asks. */
export interface Needed {
  /** of the equivalent simple pendulum, as its train asks at that place, its arc and spring allowed for */
  lengthMm: number
  /** found less needed: + too long */
  tooLongMm: number
  secondsPerDay: number
  /** how far all that rides on the nut must go down, mm (− up); null where no way of it helps */
  lowerMm: number | null
  /** turns of the nut for that, + raises; null where the pitch is not known */
  turns: number | null
  /** whether the thread reaches so far; null where its travel was not measured */
  reaches: boolean | null
  /** mass of the bob at which it would beat so where it hangs now, g; null where none between half and twice as much does */
  bobG: number | null
}

/**
 * Needed against found: how far the bob must go, whether the thread reaches, and which bob would do in its place.
 *
 * With everything on the nut lowered by s, I = I₀ + 2s·Σₘm·x + s²·Σₘm and S = S₀ + s·Σₘm; I/S = L is solved for the
 * smaller s.
 *
 * @param beatsPerHour - of the train, 600 to 40,000
 * @param thread - what is left of it, mm: to raise and to lower
 * @throws FieldError naming the figure
 */
export function neededAgainst(
  parts: readonly SheetPart[],
  beatsPerHour: number,
  setting: LaboratorySetting = {},
  thread: { upMm: number | null; downMm: number | null } = { upMm: null, downMm: null },
): Needed {
  const found = laboratoryOf(parts, setting)
  const gravity = setting.gravity ?? STANDARD_GRAVITY
  const all = bodyOf(found.bodies)
  const moving = bodyOf(found.bodies.filter((b) => b.moves === true))
  // A spring makes it quick and an arc slow: the body is as much longer or shorter. The spring does a little more or
  // less where the bob comes to hang, so it is gone through again from there.
  let { beatsPerHour: body, workingBeatsPerHour: working } = found
  let lengthMm = 0
  let lowerMm: number | null = null
  for (let time = 0; time < TIMES; time++) {
    const before = lengthMm
    lengthMm = pendulumLengthMm((beatsPerHour * body) / working, gravity)
    if (Math.abs(lengthMm - before) < SETTLED_MM) break
    lowerMm = solveSmaller(
      moving.massG,
      2 * moving.moment - lengthMm * moving.massG,
      all.inertia - lengthMm * all.moment,
    )
    if (lowerMm === null || Math.abs(lowerMm) > found.lengthMm / 2) break
    const there = laboratoryOf(loweredBy(parts, lowerMm), setting)
    body = there.beatsPerHour
    working = there.workingBeatsPerHour
  }
  const { pitchMm } = setting
  const turns = lowerMm === null || pitchMm == null ? null : -lowerMm / pitchMm
  const left = lowerMm === null ? null : lowerMm > 0 ? thread.downMm : thread.upMm
  return {
    lengthMm,
    tooLongMm: found.lengthMm - lengthMm,
    secondsPerDay: DAY_S * (found.workingBeatsPerHour / beatsPerHour - 1),
    lowerMm,
    turns,
    reaches: lowerMm === null ? false : left === null ? null : Math.abs(lowerMm) <= left,
    bobG: bobThatDoes(found.bodies, parts, lengthMm),
  }
}

const TIMES = 40
const SETTLED_MM = 1e-6

/** The root of a·s² + b·s + c nearer to nought; null where there is none within the pendulum's own size. */
function solveSmaller(a: number, b: number, c: number): number | null {
  if (a === 0) return null
  const under = b * b - 4 * a * c
  if (under < 0 || b === 0) return null
  return (-2 * c) / (b + Math.sign(b) * Math.sqrt(under))
}

function bobThatDoes(bodies: SheetBody[], parts: readonly SheetPart[], lengthMm: number): number | null {
  const isBob = (b: SheetBody) => parts[b.of]?.kind === 'bob'
  const bob = bodyOf(bodies.filter(isBob))
  const rest = bodyOf(bodies.filter((b) => !isBob(b)))
  const times = (lengthMm * rest.moment - rest.inertia) / (bob.inertia - lengthMm * bob.moment)
  return times >= 0.5 && times <= 2 ? times * bob.massG : null
}

/** The sheet with all that rides on the nut lowered by so many mm. */
export function loweredBy(parts: readonly SheetPart[], mm: number): SheetPart[] {
  const RIDES = new Set(['bob', 'nut', 'jar'])
  return parts.map((p) => (RIDES.has(p.kind) && p.atMm !== null ? { ...p, atMm: p.atMm + mm } : p))
}

/**
 * A pendulum for a count where the old one is lost: a steel or wooden rod and a lead-filled bob of the usual
 * proportions, its bob where it beats so.
 *
 * A bob is about a fifth of the length across; the rod is long enough for the nut below it.
 */
export function proposedPendulum(beatsPerHour: number, setting: LaboratorySetting = {}): SheetPart[] {
  requireWithin('beatsPerHour', beatsPerHour, 600, 40_000)
  const lengthMm = pendulumLengthMm(beatsPerHour, setting.gravity ?? STANDARD_GRAVITY)
  const across = Math.round(Math.min(190, Math.max(35, lengthMm / 5)))
  const top = Math.round(Math.min(20, lengthMm * 0.03))
  const foot = Math.round(lengthMm + across / 2 + Math.max(12, lengthMm * 0.04))
  const parts: SheetPart[] = [
    {
      ...BLANK,
      kind: 'rod',
      material: 'steel',
      atMm: (top + foot) / 2,
      lengthMm: foot - top,
      acrossMm: lengthMm > 600 ? 7 : lengthMm > 300 ? 4 : 2.5,
    },
    {
      ...BLANK,
      kind: 'bob',
      shape: 'lens',
      material: lengthMm > 300 ? 'lead' : 'brass',
      atMm: lengthMm,
      acrossMm: across,
      thickMm: Math.max(7, Math.round(across * 0.2)),
      holdsAt: 'bottom',
    },
    {
      ...BLANK,
      kind: 'nut',
      material: 'brass',
      atMm: lengthMm + across / 2 + 5,
      massG: Math.max(2, Math.round(lengthMm / 40)),
    },
  ]
  const { lowerMm } = neededAgainst(parts, beatsPerHour, setting)
  return loweredBy(parts, lowerMm ?? 0).map(roundedPlace)
}

const BLANK: Omit<SheetPart, 'kind' | 'material'> = {
  shape: null,
  massG: null,
  atMm: null,
  lengthMm: null,
  acrossMm: null,
  thickMm: null,
  pairs: null,
  holdsAt: null,
  alphaPerMillion: null,
}

/** A part of a kind with nothing said of it but what it usually is of. */
export function blankPart(kind: SheetPart['kind']): SheetPart {
  const usual = {
    rod: 'steel',
    bob: 'lead',
    nut: 'brass',
    jar: 'mercury',
    sleeve: 'zinc',
    gridiron: 'brass',
    tray: 'brass',
    weight: 'brass',
  } as const
  return {
    ...BLANK,
    kind,
    material: usual[kind],
    shape: kind === 'bob' ? 'disc' : null,
    holdsAt: kind === 'bob' ? 'centre' : null,
  }
}

function roundedPlace(p: SheetPart): SheetPart {
  return { ...p, atMm: p.atMm === null ? null : Math.round(p.atMm * 100) / 100 }
}

/** What stands in for compensation on a sheet: the part and which of its figures is chosen. */
export interface Compensation {
  /** place among the parts; null: it is not there, and would be this sleeve */
  index: number | null
  what: 'jar' | 'sleeve' | 'gridiron'
  /** as it is: height of the column, length of the sleeve or of each rising rod */
  lengthMm: number | null
  /** the length at which warmth does nothing; null: none does */
  rightMm: number | null
  /** what a degree does at some lengths about it, + gains when warmer */
  curve: { lengthMm: number; secondsPerDayPerC: number }[]
}

const CURVE = 25

/**
 * What would hold it from summer to winter: for each jar, sleeve or gridiron of the sheet the length at which a degree
 * does nothing to the whole pendulum, found by halving; where there is none of them, the zinc sleeve it would take.
 *
 * Where the part is longer than right it is over-compensated and gains when warmer; shorter, it loses.
 */
export function compensationsOf(parts: readonly SheetPart[]): Compensation[] {
  const there = parts.flatMap((p, index) =>
    p.kind === 'jar' || p.kind === 'sleeve' || p.kind === 'gridiron' ? [{ index, what: p.kind }] : [],
  )
  const tried = there.length > 0 ? there : [{ index: null, what: 'sleeve' as const }]
  const rod = rodOf(parts)
  return tried.map(({ index, what }) => {
    const withLength = (lengthMm: number): SheetPart[] =>
      index === null
        ? [...parts, { ...blankPart('sleeve'), lengthMm }]
        : parts.map((p, i) => (i === index ? { ...p, lengthMm } : p))
    const perC = (lengthMm: number): number => {
      const all = withLength(lengthMm)
      return temperatureSecondsPerDay(bodiesOf(all), alphaOf(rod))
    }
    const now = index === null ? null : (parts[index]?.lengthMm ?? null)
    const most =
      what === 'jar' ? ((index === null ? null : parts[index]?.atMm) ?? 0) * 0.95 : (rod.lengthMm ?? 1000) * 1.5
    const rightMm = most > 0 ? crossing(perC, most) : null
    const from = Math.max(most / 400, Math.min(rightMm ?? most / 2, now ?? Infinity) * 0.4)
    const to = Math.min(most, Math.max(rightMm ?? most / 2, now ?? 0) * 1.5)
    const curve = Array.from({ length: CURVE }, (_, i) => {
      const lengthMm = from + ((to - from) * i) / (CURVE - 1)
      return { lengthMm, secondsPerDayPerC: perC(lengthMm) }
    })
    return { index, what, lengthMm: now, rightMm, curve }
  })
}

/** The least length at which what a degree does goes from loss to gain; null where it never does. */
function crossing(perC: (mm: number) => number, most: number): number | null {
  const step = most / 60
  let low = most / 1000
  if (perC(low) >= 0) return null
  for (let high = step; high <= most; high += step) {
    if (perC(high) >= 0) {
      let top = high
      for (let i = 0; i < 50; i++) {
        const middle = (low + top) / 2
        if (perC(middle) < 0) low = middle
        else top = middle
      }
      return (low + top) / 2
    }
    low = high
  }
  return null
}

/** What a degree does with shot in each jar instead of mercury, to the same height; null where there is no jar of it. */
export function withShot(parts: readonly SheetPart[]): { secondsPerDayPerC: number; secondsPerDay: number } | null {
  if (!parts.some((p) => p.kind === 'jar' && p.material === 'mercury')) return null
  const filled = parts.map((p): SheetPart =>
    p.kind === 'jar' && p.material === 'mercury' ? { ...p, material: 'shot', massG: null } : p,
  )
  const before = laboratoryOf(parts)
  const after = laboratoryOf(filled)
  return {
    secondsPerDayPerC: after.secondsPerDayPerC,
    secondsPerDay: DAY_S * (after.beatsPerHour / before.beatsPerHour - 1),
  }
}

/**
 * The bob that a drive keeps swinging at an arc: what each beat gets over what a kilogram costs, g.
 *
 * @param microJPerBeat - given to each beat
 * @param share - of it that reaches the pendulum, 0 to 1
 * @param quality - of such a pendulum
 */
export function bobKeptG(
  microJPerBeat: number,
  share: number,
  quality: number,
  lengthMm: number,
  semiArcDeg: number,
  gravity = STANDARD_GRAVITY,
): number {
  requirePositive('microJPerBeat', microJPerBeat)
  requireWithin('sharePercent', share * 100, 0.1, 100)
  requirePositive('quality', quality)
  requirePositive('lengthMm', lengthMm)
  requireWithin('semiArcDeg', semiArcDeg, 0.05, 45)
  const perKg = gravity * (lengthMm / 1000) * (1 - Math.cos((semiArcDeg * Math.PI) / 180)) * (Math.PI / quality) * 1e6
  if (perKg <= 0) throw new FieldError('semiArcDeg', semiArcDeg, 'it must swing')
  return (1000 * microJPerBeat * share) / perKg
}
