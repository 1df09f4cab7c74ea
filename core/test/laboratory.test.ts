import {
  blankPart,
  bobKeptG,
  bodiesOf,
  bodyOf,
  circularPeriodRatio,
  compensationsOf,
  FieldError,
  hungBody,
  laboratoryOf,
  loweredBy,
  MATERIAL_FACTS,
  mercuryColumn,
  neededAgainst,
  ownInertia,
  pendulumDecay,
  pendulumLengthMm,
  proposedPendulum,
  temperatureSecondsPerDay,
  withShot,
  type SheetPart,
} from '@treadle/core'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'

const DAY_S = 86_400
const ROD: SheetPart = { ...blankPart('rod'), atMm: 520, lengthMm: 1010, acrossMm: 7 }
const BOB: SheetPart = { ...blankPart('bob'), atMm: 985, acrossMm: 170, massG: 4200, material: 'brass' }
const NUT: SheetPart = { ...blankPart('nut'), atMm: 1080, massG: 45 }
const PLAIN = [ROD, BOB, NUT]
const light = (p: SheetPart): SheetPart => ({ ...p, massG: 1e-9 })

describe('parts by their size', () => {
  test('weigh what their metal weighs', () => {
    const rod = bodiesOf([ROD])[0]!
    expect(rod.massG).toBeCloseTo((Math.PI * 3.5 ** 2 * 1010 * 7.85) / 1000, 6)
    const ball = bodiesOf([ROD, { ...BOB, massG: null, shape: 'ball', acrossMm: 60 }])[1]!
    expect(ball.massG).toBeCloseTo(((4 / 3) * Math.PI * 30 ** 3 * 8.45) / 1000, 6)
    const flat = bodiesOf([{ ...ROD, acrossMm: 12, thickMm: 4 }])[0]!
    expect(flat.massG).toBeCloseTo((12 * 4 * 1010 * 7.85) / 1000, 6)
  })

  test('a lens has the mass and the inertia of thin rings laid together', () => {
    const lens = bodiesOf([ROD, { ...BOB, massG: null, shape: 'lens', acrossMm: 160, thickMm: 50 }])[1]!
    let [mass, inertia] = [0, 0]
    const dr = 0.01
    for (let r = dr / 2; r < 80; r += dr) {
      const ring = 2 * Math.PI * r * dr * 50 * (1 - (r / 80) ** 2) * 8.45e-3
      mass += ring
      inertia += ring * r * r
    }
    expect(lens.massG / mass).toBeCloseTo(1, 6)
    expect(ownInertia(lens) / inertia).toBeCloseTo(1, 6)
  })

  test('what is missing of which part is named', () => {
    const fails = (parts: SheetPart[]) => {
      try {
        bodiesOf(parts)
      } catch (error) {
        return error instanceof FieldError ? error.field : 'another'
      }
      return null
    }
    expect(fails([ROD, { ...BOB, massG: null }])).toBe('parts[1].thickMm')
    expect(fails([{ ...ROD, lengthMm: null }])).toBe('parts[0].lengthMm')
    expect(fails([BOB])).toBe('parts')
    expect(fails([...PLAIN, blankPart('weight')])).toBe('parts[3].massG')
  })
})

describe('what changes its rate', () => {
  test('a turn of the nut does what lowering the parts on it does, and the rod holds some of it back', () => {
    const { secondsPerDayPerTurn, beatsPerHour, heldBack } = laboratoryOf(PLAIN, { pitchMm: 0.8 })
    const raised = laboratoryOf(loweredBy(PLAIN, -0.008)).beatsPerHour
    expect(secondsPerDayPerTurn! / ((100 * DAY_S * (raised - beatsPerHour)) / beatsPerHour)).toBeCloseTo(1, 3)
    expect(heldBack).toBeGreaterThan(0.02)
    expect(heldBack).toBeLessThan(0.1)
    // All of it moves: nothing is held back but what the bob's own size does.
    const bare = laboratoryOf([light(ROD), { ...BOB, acrossMm: 0.01 }])
    expect(Math.abs(bare.heldBack)).toBeLessThan(1e-6)
  })

  test('a gram does most at half length unless a tray says where it lies', () => {
    expect(laboratoryOf(PLAIN).gramAtMm).toBeCloseTo(laboratoryOf(PLAIN).lengthMm / 2, 9)
    const tray: SheetPart = { ...blankPart('tray'), massG: 8, atMm: 300 }
    const { secondsPerDayPerGram, beatsPerHour } = laboratoryOf([...PLAIN, tray])
    const more = laboratoryOf([...PLAIN, { ...tray, massG: 9 }]).beatsPerHour
    expect(secondsPerDayPerGram).toBeCloseTo((DAY_S * (more - beatsPerHour)) / beatsPerHour, 9)
  })

  test('more arc makes it lose by the exact elliptic integral', () => {
    const { secondsPerDayPerTenthDeg, secondsPerDayPerArcMm, footMm } = laboratoryOf(PLAIN, { semiArcDeg: 2 })
    const rate = (deg: number) => DAY_S * (1 / circularPeriodRatio(deg) - 1)
    expect(secondsPerDayPerTenthDeg).toBeCloseTo(rate(2.1) - rate(2), 3)
    expect(footMm).toBeCloseTo(1080, 6)
    expect(secondsPerDayPerArcMm).toBeCloseTo(rate(2 + (Math.atan(1 / footMm) * 180) / Math.PI) - rate(2), 3)
  })
})

/** The rate a degree gives, by moving every part by hand as the chain of what carries it grows, and weighing it anew. */
function warmedByHand(
  bodies: { massG: number; lengthMm: number; atMm: (t: number) => number; grows: number }[],
): number {
  const lengthAt = (t: number) => {
    let [moment, inertia] = [0, 0]
    for (const b of bodies) {
      const [x, l] = [b.atMm(t), b.lengthMm * (1 + b.grows * t)]
      moment += b.massG * x
      inertia += b.massG * (x * x + (l * l) / 12)
    }
    return inertia / moment
  }
  return (-DAY_S / 2) * ((lengthAt(0.5) - lengthAt(-0.5)) / lengthAt(0))
}

describe('warmth and what stands against it', () => {
  const [steel, zinc, brass] = [11.5e-6, 30e-6, 19e-6]

  test('a sleeve on the nut carries the bob up', () => {
    const sleeve: SheetPart = { ...blankPart('sleeve'), lengthMm: 300, massG: 200 }
    const bob: SheetPart = { ...BOB, shape: 'cylinder', lengthMm: 200, acrossMm: 0.001, holdsAt: 'bottom' }
    const parts = [ROD, bob, sleeve, { ...NUT, atMm: 1385 + 5 }]
    const told = temperatureSecondsPerDay(bodiesOf(parts), 11.5)
    const foot = (t: number) => 1385 * (1 + steel * t)
    const top = (t: number) => foot(t) - 300 * (1 + zinc * t)
    const byHand = warmedByHand([
      {
        massG: bodiesOf([ROD])[0]!.massG,
        lengthMm: 1010,
        atMm: (t) => 15 * (1 + steel * t) + 505 * (1 + steel * t),
        grows: steel,
      },
      { massG: 4200, lengthMm: 200, atMm: (t) => top(t) - 100 * (1 + brass * t), grows: brass },
      { massG: 200, lengthMm: 300, atMm: (t) => foot(t) - 150 * (1 + zinc * t), grows: zinc },
      { massG: 45, lengthMm: 0, atMm: (t) => 1390 * (1 + steel * t), grows: 0 },
    ])
    expect(told).toBeCloseTo(byHand, 5)
  })

  test('a gridiron of two pairs: steel down, brass up, and down again', () => {
    const grid: SheetPart = { ...blankPart('gridiron'), pairs: 2, lengthMm: 600, massG: 800 }
    const bob: SheetPart = { ...BOB, acrossMm: 0.001 }
    const told = temperatureSecondsPerDay(bodiesOf([ROD, bob, grid]), 11.5)
    const top = 15
    const down = (l: number, t: number) => l * (1 + steel * t)
    const up = (l: number, t: number) => l * (1 + brass * t)
    // Where each frame hangs: the first from the cock, the next from the top of the rising pair.
    const hangs = (k: number, t: number) => down(top, t) + k * (down(600, t) - up(600, t))
    const each = [0, 1].flatMap((k) => [
      { massG: 200, lengthMm: 600, atMm: (t: number) => hangs(k, t) + down(300, t), grows: steel },
      { massG: 200, lengthMm: 600, atMm: (t: number) => hangs(k, t) + down(600, t) - up(300, t), grows: brass },
    ])
    const byHand = warmedByHand([
      ...each,
      { massG: bodiesOf([ROD])[0]!.massG, lengthMm: 1010, atMm: (t) => hangs(2, t) + down(505, t), grows: steel },
      { massG: 4200, lengthMm: 0, atMm: (t) => hangs(2, t) + down(970, t), grows: 0 },
    ])
    expect(told).toBeCloseTo(byHand, 5)
  })

  test('the length that is right is right for the whole pendulum, and longer over-compensates', () => {
    const sheets: SheetPart[][] = [
      [...PLAIN, { ...blankPart('sleeve'), lengthMm: 200 }],
      [...PLAIN, { ...blankPart('gridiron'), pairs: 2, lengthMm: 500 }],
      [ROD, { ...blankPart('jar'), atMm: 1060, lengthMm: 150, acrossMm: 50 }],
    ]
    for (const parts of sheets) {
      const [way] = compensationsOf(parts)
      expect(way!.rightMm).not.toBeNull()
      const at = (lengthMm: number) => {
        const all = parts.map((p, i) => (i === way!.index ? { ...p, lengthMm } : p))
        return laboratoryOf(all).secondsPerDayPerC
      }
      expect(Math.abs(at(way!.rightMm!))).toBeLessThan(1e-9)
      expect(at(way!.rightMm! * 1.05)).toBeGreaterThan(0.001)
      expect(at(way!.rightMm! * 0.95)).toBeLessThan(-0.001)
      const [first, last] = [way!.curve[0]!, way!.curve.at(-1)!]
      expect(first.secondsPerDayPerC).toBeLessThan(0)
      expect(last.secondsPerDayPerC).toBeGreaterThan(0)
    }
  })

  test('a jar without mass needs the column that the closed reckoning of jar and rod gives', () => {
    const jar: SheetPart = { ...blankPart('jar'), atMm: 1060, lengthMm: 150, acrossMm: 50, massG: 1e7 }
    const [way] = compensationsOf([light({ ...ROD, atMm: 530, lengthMm: 1060 }), jar])
    const { columnMm } = mercuryColumn({ jarBottomMm: 1060, rodAlphaPerMillion: 11.5, jarRadiusMm: 25 })
    expect(way!.rightMm! / columnMm).toBeCloseTo(1, 3)
  })

  test('a plain steel pendulum is told the zinc sleeve it would take; shot loses what mercury does', () => {
    const [way] = compensationsOf(PLAIN)
    expect(way).toMatchObject({ index: null, what: 'sleeve', lengthMm: null })
    expect(way!.rightMm).toBeGreaterThan(400)
    expect(way!.rightMm).toBeLessThan(800)
    const jar: SheetPart = { ...blankPart('jar'), atMm: 1060, lengthMm: 190, acrossMm: 50 }
    const mercury = laboratoryOf([ROD, jar]).secondsPerDayPerC
    const shot = withShot([ROD, jar])!
    expect(shot.secondsPerDayPerC).toBeLessThan(mercury - 0.2)
    expect(withShot(PLAIN)).toBeNull()
  })

  test('wood follows damp; so much that a tenth of it tells', () => {
    const wood: SheetPart = { ...ROD, material: 'wood', acrossMm: 14 }
    expect(laboratoryOf([wood, BOB, NUT]).secondsPerDayPerDamp).toBeCloseTo(-3.93, 1)
    expect(laboratoryOf(PLAIN).secondsPerDayPerDamp).toBeNull()
  })
})

describe('needed against found', () => {
  test('lowered as told it beats as the train asks, whatever the pendulum', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3000, max: 9000 }),
        fc.double({ min: 0.9, max: 1.08, noNaN: true }),
        fc.option(fc.double({ min: 0.5, max: 5, noNaN: true })),
        (beats, off, semiArcDeg) => {
          const spring = { thicknessMm: 0.1, widthMm: 5, blades: 1, freeMm: 6 }
          const setting = { semiArcDeg, suspension: semiArcDeg === null ? null : spring, pitchMm: 0.7 }
          const parts = proposedPendulum(beats).map((p) =>
            p.kind === 'bob' || p.kind === 'nut' ? { ...p, atMm: p.atMm! * off } : p,
          )
          const { lowerMm, turns } = neededAgainst(parts, beats, setting)
          expect(turns).toBeCloseTo(-lowerMm! / 0.7, 9)
          const right = laboratoryOf(loweredBy(parts, lowerMm!), setting)
          expect(Math.abs(right.workingBeatsPerHour / beats - 1) * DAY_S).toBeLessThan(0.01)
        },
      ),
      { numRuns: 60 },
    )
  })

  test('the thread reaches or it does not; a bob that would do in its place does', () => {
    const low = loweredBy(PLAIN, 6)
    const beats = laboratoryOf(PLAIN).beatsPerHour
    const thread = (upMm: number) => neededAgainst(low, beats, {}, { upMm, downMm: 20 })
    expect(thread(5).reaches).toBe(false)
    expect(thread(7).reaches).toBe(true)
    expect(neededAgainst(low, beats).reaches).toBeNull()
    expect(thread(5).tooLongMm).toBeGreaterThan(5)
    const near = loweredBy(PLAIN, 0.3)
    const { bobG } = neededAgainst(near, beats)
    const withIt = laboratoryOf(near.map((p) => (p.kind === 'bob' ? { ...p, massG: bobG } : p)))
    expect(Math.abs(withIt.beatsPerHour / beats - 1) * DAY_S).toBeLessThan(1e-6)
  })

  test('a lost pendulum is proposed for any count, and beats it', () => {
    for (const beats of [3000, 3600, 4800, 7200, 10_800]) {
      const parts = proposedPendulum(beats)
      expect(Math.abs(laboratoryOf(parts).beatsPerHour / beats - 1) * DAY_S).toBeLessThan(5)
      expect(laboratoryOf(parts).cgMm).toBeLessThan(pendulumLengthMm(beats) * 1.02)
    }
  })
})

describe('below its spring', () => {
  const spring = { thicknessMm: 0.1, widthMm: 9, blades: 1, freeMm: 12 }
  const body = () => bodyOf(bodiesOf(PLAIN))

  test('a limp blade is a thread: the slower way of a body on a string', () => {
    const { massG, moment, inertia } = body()
    const limp = hungBody({ ...spring, thicknessMm: 0.0005, freeMm: 50 }, body())
    const [l, d] = [0.05, moment / massG / 1000]
    const h = d - l
    const k2 = (inertia * 1e-9) / (massG / 1000) - d * d
    const g = 9.80665
    // l·k²·λ² − g·(k² + h² + l·h)·λ + g²·h = 0 of a rigid body on a string, λ = ω².
    const b = g * (k2 + h * h + l * h)
    const lambda = (2 * g * g * h) / (b + Math.sqrt(b * b - 4 * l * k2 * g * g * h))
    expect(limp.periodS / ((2 * Math.PI) / Math.sqrt(lambda))).toBeCloseTo(1, 5)
  })

  test('a long blade bends its own length √(EI/W) below the cock', () => {
    const EI = (205e9 * 0.009 * 0.0001 ** 3) / 12
    const own = 1000 * Math.sqrt(EI / ((body().massG / 1000) * 9.80665))
    const hung = hungBody({ ...spring, freeMm: 30 }, body())
    expect(hung.bendsAtMm / own).toBeCloseTo(1, 1)
    expect(hung.secondsPerDay).toBeGreaterThan(0)
  })

  test('thicker is quicker', () => {
    const thick = (thicknessMm: number) => hungBody({ ...spring, thicknessMm }, body()).secondsPerDay
    expect(thick(0.15)).toBeGreaterThan(thick(0.1))
    expect(thick(0.1)).toBeGreaterThan(thick(0.06))
  })
})

test('the bob that a drive keeps is the one whose beat costs what it gets', () => {
  const massG = bobKeptG(120, 0.4, 3000, 994, 2)
  const tauS = (3000 * 2) / Math.sqrt(9.80665 / 0.994)
  const readings = [0, 600, 1200, 2400].map((atS) => ({ atS, semiArcDeg: 2 * Math.exp(-atS / tauS) }))
  const { lossPerBeatMicroJ } = pendulumDecay(readings, 994, massG, 994, 2)
  expect(lossPerBeatMicroJ / 48).toBeCloseTo(1, 3)
})

test('every material has a density and an expansion that a pendulum can be of', () => {
  for (const { density, alphaPerMillion } of Object.values(MATERIAL_FACTS)) {
    expect(density).toBeGreaterThan(0.3)
    expect(density).toBeLessThan(14)
    expect(alphaPerMillion).toBeGreaterThan(1)
    expect(alphaPerMillion).toBeLessThan(70)
  }
})
