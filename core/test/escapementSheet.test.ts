import { describe, expect, test } from 'vitest'
import {
  acrossEdgesMm,
  actionOfLowTooth,
  actionOfSheet,
  cureInWords,
  drawnEscapement,
  escapementAction,
  FieldError,
  findCure,
  hear,
  heardTeeth,
  judgeEscapement,
  missingMeasures,
  movedBy,
  openedTo,
  palletsFromPhoto,
  PowerTrack,
  releaseOfSheet,
  releaseToKeep,
  splitTold,
  suspendedPeriodS,
  suspensionRate,
  wheelStands,
  type EscapementFacts,
  type EscapementGeometry,
  type Suspension,
} from '../src/index.ts'
import { clockSound } from './clockSound.ts'
import { sweptEscapement } from './sweptEscapement.ts'

const SHEET: EscapementFacts = {
  kind: 'dead-beat',
  teeth: 30,
  tipRadiusMm: 18,
  centreDistanceMm: 25.4558,
  spannedSpaces: 7.5,
  palletMm: 1.5,
  acrossMm: null,
  liftDeg: 2,
  lockDeg: 0.8,
  swingDeg: 3,
  palletEntry: [],
  palletExit: [],
  nearerMm: 0,
  openedDeg: 0,
}
const drawn = (part: Partial<EscapementFacts> = {}) => drawnEscapement({ ...SHEET, ...part }) as EscapementGeometry

describe('a sheet of the escapement', () => {
  test('says which measures are missing, and draws nothing before', () => {
    expect(missingMeasures({ ...SHEET, palletMm: null, lockDeg: null })).toEqual(['palletMm', 'lockDeg'])
    expect(missingMeasures({ ...SHEET, kind: 'recoil', lockDeg: null })).toEqual([])
    expect(drawnEscapement({ ...SHEET, palletMm: null })).toBeNull()
    expect(actionOfSheet({ ...SHEET, kind: 'verge' })).toBeNull()
    expect(drawnEscapement({ ...SHEET, palletMm: 60 })).toBeInstanceOf(FieldError)
  })

  test('what lets go is told to the beat, unless a person typed another figure', () => {
    expect(releaseOfSheet(SHEET)).toBeCloseTo(1.4, 9)
    expect(releaseOfSheet({ ...SHEET, nearerMm: 0.4 })).toBeNull()
    expect(releaseToKeep(null, null, 1.4)).toBe(1.4)
    expect(releaseToKeep(1.4, 1.4, 1.2)).toBe(1.2)
    expect(releaseToKeep(2, 1.4, 1.2)).toBe(2)
    expect(releaseToKeep(2, 1.4, null)).toBe(2)
  })

  test('pallets are opened to what the caliper shows across their edges', () => {
    const g = drawn()
    const across = acrossEdgesMm(g)
    for (const by of [-0.4, 0.25]) {
      const to = { ...g, ...openedTo(g, across + by) }
      expect(acrossEdgesMm(to)).toBeCloseTo(across + by, 6)
    }
    expect(() => openedTo(g, 90)).toThrow('acrossMm')
  })

  test('a low tooth lets go and drops as a sweep with a wheel as small as that tooth finds', () => {
    const low = actionOfLowTooth(SHEET, 0.09)!
    const swept = sweptEscapement({ ...drawn(), tipRadiusMm: 17.91 }, 3, 0.008)
    for (const pallet of ['entry', 'exit'] as const) {
      expect(Math.abs(low[pallet].releaseDeg! - swept[pallet]!.releaseDeg)).toBeLessThan(0.03)
      expect(Math.abs(low[pallet].dropDeg! - swept[pallet]!.dropDeg)).toBeLessThan(0.06)
    }
    expect(actionOfLowTooth({ ...SHEET, palletMm: null }, 0.09)).toBeNull()
  })

  test('the wheel is drawn where it stands: it goes on by half a space at each release', () => {
    const g = drawn()
    const before = wheelStands(g, 3, 1.3)!
    const after = wheelStands(g, 3, 1.5)!
    const drop = escapementAction(g, 3).entry.dropDeg!
    expect(after - before).toBeGreaterThan(drop)
    expect(after - before).toBeLessThan(6)
  })
})

describe('what is wrong with it, and its cure', () => {
  test.each([
    ['brought too near', { nearerMm: 0.12, openedDeg: 0 }],
    ['set too far', { nearerMm: -0.15, openedDeg: 0 }],
    ['closed', { nearerMm: 0, openedDeg: -1.5 }],
    ['opened', { nearerMm: 0, openedDeg: 0.6 }],
  ])('pallets %s are found wrong, and the cure makes them right', (_name, moved) => {
    const wrong = movedBy(drawn(), moved)
    expect(judgeEscapement(escapementAction(wrong, 3), true).finding).not.toBe('fine')
    const cure = findCure(wrong, 3, true)
    expect(cure).not.toBeNull()
    const after = escapementAction(movedBy(wrong, cure!), 3)
    expect(judgeEscapement(after, true).finding).toBe('fine')
    expect(cureInWords(cure!, wrong)).toMatch(/mm/)
  })

  test('says which way and by how much', () => {
    const from = (xMm: number) => [
      { xMm: 1.2 * xMm, yMm: -8 },
      { xMm, yMm: -10 },
    ]
    const g = { teeth: 30, tipRadiusMm: 10, centreDistanceMm: 20, palletEntry: from(-10), palletExit: from(10) }
    expect(cureInWords({ nearerMm: -0.08, openedDeg: 0 }, g)).toBe('Bring the pallets’ arbor 0.08 mm farther.')
    // Arms of √200 mm, 90° apart, closed by 1°: 2·√200·(sin 45° − sin 44.5°) = 0.175 mm.
    expect(cureInWords({ nearerMm: 0, openedDeg: -1 }, g)).toBe('Close the pallets by 0.18 mm across their edges.')
    expect(cureInWords({ nearerMm: 0, openedDeg: 0 }, g)).toBe('Nothing is to be moved.')
  })

  test('what jams is too deep, what runs through too shallow', () => {
    const judged = (nearerMm: number) =>
      judgeEscapement(escapementAction(movedBy(drawn(), { nearerMm, openedDeg: 0 }), 2), true).finding
    expect(judged(0.4)).toBe('too deep')
    expect(judged(-1.5)).toBe('too shallow')
  })
})

test('pallets tapped on a photo are those of the drawing, however the photo is turned', () => {
  const g = drawn()
  // Ten pixels to the millimetre, turned by 20° and moved: the drawing as a camera would see it.
  const a = (20 * Math.PI) / 180
  const seen = (p: { xMm: number; yMm: number }) => ({
    x: 500 + 10 * (p.xMm * Math.cos(a) - p.yMm * Math.sin(a)),
    y: 300 - 10 * (p.xMm * Math.sin(a) + p.yMm * Math.cos(a)),
  })
  const tapped = palletsFromPhoto(
    [0.1, 0, 0, 0, -0.1, 0, 0, 0, 1],
    [seen({ xMm: 0, yMm: 0 }), seen({ xMm: 0, yMm: -g.centreDistanceMm })],
    g.palletEntry.map(seen),
    g.palletExit.map(seen),
  )
  expect(tapped.centreDistanceMm).toBeCloseTo(g.centreDistanceMm, 9)
  tapped.palletEntry.forEach((p, i) => {
    expect(p.xMm).toBeCloseTo(g.palletEntry[i]!.xMm, 9)
    expect(p.yMm).toBeCloseTo(g.palletEntry[i]!.yMm, 9)
  })
  const one = { x: 1, y: 1 }
  expect(() => palletsFromPhoto([0.1, 0, 0, 0, -0.1, 0, 0, 0, 1], [one, one], [], [])).toThrow('arbors')
})

test('the teeth of a listening: late ones by as much as they were made late', () => {
  const beatS = 0.5
  const late: Record<number, number> = { 3: 4, 9: -2.5 }
  let noise = 1
  const jitter = () => {
    noise = (noise * 16_807) % 2_147_483_647
    return (noise / 2_147_483_647 - 0.5) * 2e-4
  }
  const times = Array.from({ length: 15 * 2 * 5 }, (_, i) => {
    const tooth = Math.floor(i / 2) % 15
    return i * beatS * 1.00002 + (i % 2) * 0.012 + (late[tooth] ?? 0) / 1000 + jitter()
  })
  const heard = heardTeeth(times, 7200, 15)
  heard.forEach((t, tooth) => {
    expect(Math.abs(t.firstMs! - (late[tooth] ?? 0))).toBeLessThan(0.2)
    expect(Math.abs(t.secondMs! - (late[tooth] ?? 0))).toBeLessThan(0.2)
  })
  expect(heardTeeth([], 7200, 15)[0]).toEqual({ firstMs: null, secondMs: null })
})

describe('a clock that ticks once a period', () => {
  // The return is silent: of the sound that is made, every second tick is as good as away.
  const { samples, sampleRate } = clockSound({
    seconds: 60,
    beatsPerHour: 3600,
    rateSecondsPerDay: 12,
    loudness: [0.5, 0.0004],
    noise: 0.001,
    seed: 5,
  })
  const track = new PowerTrack(sampleRate)
  track.push(samples)
  const heard = hear(track.bins, track.binS, { beatsPerHour: 3600, ticks: 'once a period' })

  test('its rate holds, and nothing is told of its beat', () => {
    if (!heard.heard) throw new Error(heard.sentence)
    expect(Math.abs(heard.rateSecondsPerDay - 12)).toBeLessThan(3 * heard.rateStandardError + 0.6)
    expect(Math.abs(heard.beatsPerHour - 3600.5)).toBeLessThan(0.1)
    expect(heard.ticks).toBe('once a period')
    const [firstToSecondMs, secondToFirstMs] = heard.intervalsMs
    expect(splitTold({ firstToSecondMs, secondToFirstMs, outOfBeatStandardError: heard.outOfBeatStandardError })).toBe(
      false,
    )
    expect(heard.doubts).toEqual([])
  })
})

describe('a pendulum on its suspension spring', () => {
  const STEEL: Suspension = { thicknessMm: 0.1, widthMm: 6, blades: 2, freeMm: 20 }

  /**
   * The same pendulum as a chain: the blade in many short stiff links with bending springs between them, the rod as the
   * last link. For a pull sideways at the bob the links settle where energy is least; the pull needed is the stiffness.
   */
  function chainPeriodS({ thicknessMm, widthMm, blades, freeMm }: Suspension, massKg: number, rodMm: number): number {
    const n = 400
    const step = freeMm / 1000 / n
    const EI = (205e9 * blades * (widthMm / 1000) * (thicknessMm / 1000) ** 3) / 12
    const W = massKg * 9.80665
    const k = EI / step
    // Unknown slopes of the links and of the rod; each link hangs the whole weight. Tridiagonal, solved for a unit pull.
    const size = n + 1
    const diagonal = Array.from({ length: size }, (_, i) => {
      const length = i < n ? step : rodMm / 1000
      const springs = i < n ? (i === 0 ? 2 * k : k) + k : k
      return springs + W * length
    })
    const load = Array.from({ length: size }, (_, i) => (i < n ? step : rodMm / 1000))
    const upper = Array.from({ length: size - 1 }, () => -k)
    const d = [...diagonal]
    const b = [...load]
    for (let i = 1; i < size; i++) {
      const share = upper[i - 1]! / d[i - 1]!
      d[i]! -= share * upper[i - 1]!
      b[i]! -= share * b[i - 1]!
    }
    const slope = Array.from({ length: size }, () => 0)
    for (let i = size - 1; i >= 0; i--) slope[i] = (b[i]! - (i < size - 1 ? upper[i]! * slope[i + 1]! : 0)) / d[i]!
    const moved = slope.reduce((sum, s, i) => sum + s * load[i]!, 0)
    return 2 * Math.PI * Math.sqrt(massKg * moved)
  }

  test.each([
    [STEEL, 1.5, 974],
    [{ ...STEEL, thicknessMm: 0.2 }, 1.5, 974],
    [{ ...STEEL, thicknessMm: 0.08, blades: 1, widthMm: 4, freeMm: 10 }, 0.12, 150],
  ])('swings as a chain of many links does: %o', (spring, massKg, rodMm) => {
    // 400 links: their last half link makes a few parts in a hundred thousand of the period.
    expect(suspendedPeriodS(spring, massKg, rodMm) / chainPeriodS(spring, massKg, rodMm)).toBeCloseTo(1, 4)
  })

  test('a limp one is a thread as long as blade and rod', () => {
    const limp = suspendedPeriodS({ ...STEEL, thicknessMm: 0.002 }, 1.5, 974)
    expect(limp).toBeCloseTo(2 * Math.PI * Math.sqrt(0.994 / 9.80665), 4)
  })

  test('a thicker one makes it gain, a thinner one lose', () => {
    expect(suspensionRate(STEEL, { ...STEEL, thicknessMm: 0.12 }, 1.5, 974)).toBeGreaterThan(10)
    expect(suspensionRate(STEEL, { ...STEEL, thicknessMm: 0.08 }, 1.5, 974)).toBeLessThan(-10)
    expect(suspensionRate(STEEL, STEEL, 1.5, 974)).toBe(0)
    expect(() => suspendedPeriodS({ ...STEEL, blades: 0 }, 1.5, 974)).toThrow('blades')
  })
})
