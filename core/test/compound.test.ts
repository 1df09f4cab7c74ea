import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  addedMassSecondsPerDay,
  compoundPendulum,
  pendulumLengthMm,
  secondsPerDayPerTurn,
  temperatureSecondsPerDay,
  mercuryColumn,
  type PendulumPart,
} from '../src/index.ts'
import { random } from './clockSound.ts'

const G = 9.80665

/** The same part as a cloud of points, scattered at random through its shape: [across, along, mass]. */
function scattered(part: PendulumPart, count: number, u: () => number): [number, number, number][] {
  const { shape, massG, centreMm, lengthMm = 0, radiusMm = 0 } = part
  const m = massG / count
  const within = (test: (p: [number, number, number]) => boolean): [number, number, number] => {
    for (;;) {
      const p: [number, number, number] = [2 * u() - 1, 2 * u() - 1, 2 * u() - 1]
      if (test(p)) return p
    }
  }
  return Array.from({ length: count }, () => {
    if (shape === 'rod') return [0, centreMm + lengthMm * (u() - 0.5), m]
    if (shape === 'point') return [0, centreMm, m]
    if (shape === 'cylinder') {
      const [x, , z] = within(([x, , z]) => x * x + z * z <= 1)
      void z
      return [radiusMm * x, centreMm + lengthMm * (u() - 0.5), m]
    }
    if (shape === 'disc') {
      const [x, y] = within(([x, y]) => x * x + y * y <= 1)
      return [radiusMm * x, centreMm + radiusMm * y, m]
    }
    const [x, y] = within(([x, y, z]) => x * x + y * y + z * z <= 1)
    return [radiusMm * x, centreMm + radiusMm * y, m]
  })
}

/** Period of a cloud of points swinging as one, by integrating its motion (Runge and Kutta, fourth order), s. */
function swungPeriodS(points: [number, number, number][], startDeg: number): number {
  const inertia = points.reduce((sum, [x, y, m]) => sum + m * (x * x + y * y), 0) * 1e-9
  const moment = points.reduce((sum, [, y, m]) => sum + m * y, 0) * 1e-6
  const bend = (a: number) => (-moment * G * Math.sin(a)) / inertia
  let [a, w, t] = [(startDeg * Math.PI) / 180, 0, 0]
  const h = 1e-4
  for (;;) {
    const k1 = [w, bend(a)]
    const k2 = [w + (h / 2) * k1[1]!, bend(a + (h / 2) * k1[0]!)]
    const k3 = [w + (h / 2) * k2[1]!, bend(a + (h / 2) * k2[0]!)]
    const k4 = [w + h * k3[1]!, bend(a + h * k3[0]!)]
    const next = a + (h / 6) * (k1[0]! + 2 * k2[0]! + 2 * k3[0]! + k4[0]!)
    w += (h / 6) * (k1[1]! + 2 * k2[1]! + 2 * k3[1]! + k4[1]!)
    if (next <= 0) return 4 * (t + (h * a) / (a - next))
    a = next
    t += h
  }
}

const BODY: PendulumPart[] = [
  { shape: 'rod', massG: 180, centreMm: 510, lengthMm: 1020 },
  { shape: 'disc', massG: 4200, centreMm: 985, radiusMm: 85, moves: true },
  { shape: 'cylinder', massG: 60, centreMm: 1080, lengthMm: 20, radiusMm: 14, moves: true },
  { shape: 'ball', massG: 90, centreMm: 400, radiusMm: 12 },
]

describe('a pendulum of real parts', () => {
  test('swings as the same body scattered into points and let go', () => {
    const u = random(41)
    const points = BODY.flatMap((p) => scattered(p, 40_000, u))
    const { beatsPerHour, massG } = compoundPendulum(BODY)
    expect(Math.abs(7200 / swungPeriodS(points, 0.2) / beatsPerHour - 1)).toBeLessThan(2e-4)
    expect(massG).toBe(4530)
  })

  test.each<[PendulumPart, number]>([
    // Closed forms of the textbooks: a uniform rod 2l/3, a disc hung by its rim 3r/2, a ball l + 2r²/5l.
    [{ shape: 'rod', massG: 7, centreMm: 300, lengthMm: 600 }, 400],
    [{ shape: 'disc', massG: 7, centreMm: 100, radiusMm: 100 }, 150],
    [{ shape: 'ball', massG: 7, centreMm: 1000, radiusMm: 100 }, 1004],
    [{ shape: 'cylinder', massG: 7, centreMm: 500, lengthMm: 120, radiusMm: 40 }, 500 + (1200 + 400) / 500],
    [{ shape: 'point', massG: 7, centreMm: 994 }, 994],
  ])('%o: its centre of oscillation', (part, lengthMm) => {
    expect(compoundPendulum([part]).lengthMm).toBeCloseTo(lengthMm, 9)
  })

  test('a heavy bob on a light rod is the simple pendulum, and its nut the simple nut', () => {
    const lengthMm = pendulumLengthMm(3600)
    const got = compoundPendulum([{ shape: 'point', massG: 1, centreMm: lengthMm, moves: true }], undefined, 0.8)
    expect(got.beatsPerHour).toBeCloseTo(3600, 9)
    expect(got.secondsPerDayPerTurn).toBeCloseTo(secondsPerDayPerTurn(lengthMm, 0.8), 9)
  })

  test('raising what rides on the nut does what the body so changed does', () => {
    const share = fc.double({ min: 0.01, max: 0.99, noNaN: true })
    const raised = fc.double({ min: -3, max: 3, noNaN: true })
    const holds = fc.property(share, raised, (share, raise) => {
      const parts: PendulumPart[] = [
        { shape: 'rod', massG: 500 * share, centreMm: 500, lengthMm: 1000 },
        { shape: 'disc', massG: 3000, centreMm: 950, radiusMm: 90, moves: true },
      ]
      const moved = parts.map((p) => (p.moves ? { ...p, centreMm: p.centreMm - raise } : p))
      const [before, after] = [compoundPendulum(parts), compoundPendulum(moved)]
      const gained = 86_400 * (after.beatsPerHour / before.beatsPerHour - 1)
      // The second order of 3 mm in a metre.
      expect(Math.abs(gained - raise * before.secondsPerDayPerMm)).toBeLessThan(0.15 * raise * raise + 1e-9)
    })
    fc.assert(holds)
  })

  test.each<[PendulumPart[], RegExp]>([
    [[], /parts/],
    [[{ shape: 'rod', massG: 1, centreMm: 5 }], /parts\[0\]\.lengthMm/],
    [[{ shape: 'disc', massG: 1, centreMm: 5 }], /parts\[0\]\.radiusMm/],
    [[{ shape: 'point', massG: 0, centreMm: 5 }], /parts\[0\]\.massG/],
    [[{ shape: 'point', massG: 2, centreMm: -5 }], /must hang below/],
  ])('what can’t be is named: %o', (parts, message) => {
    expect(() => compoundPendulum(parts)).toThrow(message)
  })
})

describe('a small weight', () => {
  test('on the tray does what the body with it does', () => {
    for (const atMm of [-40, 0, 200, 497, 800, 1200]) {
      const { massG, cgMm, lengthMm, beatsPerHour } = compoundPendulum(BODY)
      const after = compoundPendulum([...BODY, { shape: 'point', massG: 3, centreMm: atMm }]).beatsPerHour
      expect(addedMassSecondsPerDay(3, atMm, massG, cgMm, lengthMm)).toBeCloseTo(86_400 * (after / beatsPerHour - 1), 7)
    }
  })

  test('gains above the centre of oscillation, most in the middle, and loses below', () => {
    const most = addedMassSecondsPerDay(1, 497, 5000, 994, 994)
    const holds = fc.property(fc.double({ min: 1, max: 993, noNaN: true }), (atMm) => {
      const above = addedMassSecondsPerDay(1, atMm, 5000, 994, 994)
      expect(above).toBeGreaterThan(0)
      expect(above).toBeLessThanOrEqual(most + 1e-3)
      expect(addedMassSecondsPerDay(1, 994 + atMm, 5000, 994, 994)).toBeLessThan(0)
    })
    fc.assert(holds)
  })

  test('the gram of the handbook: 2.16 s a day in the middle of 5 kg; nothing at either end', () => {
    expect(addedMassSecondsPerDay(1, 497, 5000, 994, 994)).toBeCloseTo(2.16, 2)
    expect(addedMassSecondsPerDay(1, 0, 5000, 994, 994)).toBeCloseTo(0, 12)
    expect(addedMassSecondsPerDay(1, 994, 5000, 994, 994)).toBeCloseTo(0, 12)
  })
})

/** The whole body a degree warmer, part by part, from what the words say; shares nothing with the reckoning. */
function warmed(parts: PendulumPart[], rodAlpha: number, degrees: number): PendulumPart[] {
  return parts.map((p) => {
    const rod = 1 + rodAlpha * 1e-6 * degrees
    const own = 1 + (p.alphaPerMillion ?? rodAlpha) * 1e-6 * degrees
    const half = p.shape === 'rod' || p.shape === 'cylinder' ? (p.lengthMm ?? 0) / 2 : (p.radiusMm ?? 0)
    const rests = p.centreMm + (p.holdsAt === 'bottom' ? half : p.holdsAt === 'top' ? -half : 0)
    return {
      ...p,
      centreMm: rests * rod + (p.centreMm - rests) * own,
      ...(p.lengthMm !== undefined && { lengthMm: p.lengthMm * own }),
      ...(p.radiusMm !== undefined && { radiusMm: p.radiusMm * own }),
    }
  })
}

describe('warmth', () => {
  test.each(['centre', 'bottom', 'top'] as const)(
    'is that of the whole body warmed, its bob held at the %s',
    (holdsAt) => {
      const parts: PendulumPart[] = [
        { shape: 'rod', massG: 300, centreMm: 505, lengthMm: 1010 },
        { shape: 'disc', massG: 5000, centreMm: 960, radiusMm: 100, alphaPerMillion: 29, holdsAt },
        { shape: 'cylinder', massG: 800, centreMm: 700, lengthMm: 400, radiusMm: 12, alphaPerMillion: 19, holdsAt },
      ]
      const [cold, warm] = [-5, 5].map((d) => compoundPendulum(warmed(parts, 11.5, d)).beatsPerHour)
      const gained = (86_400 * (warm! / cold! - 1)) / 10
      expect(Math.abs(temperatureSecondsPerDay(parts, 11.5) - gained)).toBeLessThan(2e-5)
    },
  )

  test('one material all through loses 43200·α', () => {
    expect(temperatureSecondsPerDay(BODY, 11.5)).toBeCloseTo(-43_200 * 11.5e-6, 12)
  })

  test('mercury: the whole body of the column, by halving, stands still; the centre of mass alone would not', () => {
    for (const [jarBottomMm, rodAlpha, r] of [
      [1050, 11.5, 25],
      [1020, 11.5, 40],
      [300, 11.5, 15],
      [1050, 19, 25],
    ] as const) {
      const { columnMm, massG } = mercuryColumn({ jarBottomMm, rodAlphaPerMillion: rodAlpha, jarRadiusMm: r })
      const lengthAt = (h: number, d: number) => {
        const bottom = jarBottomMm * (1 + rodAlpha * 1e-6 * d)
        const radius = r * (1 + 9e-6 * d)
        const volume = Math.PI * r * r * h * (1 + 181.8e-6 * d)
        const high = volume / (Math.PI * radius * radius)
        return compoundPendulum([
          { shape: 'cylinder', massG: 1, centreMm: bottom - high / 2, lengthMm: high, radiusMm: radius },
        ]).lengthMm
      }
      let [low, high] = [0.01 * jarBottomMm, 0.6 * jarBottomMm]
      for (let i = 0; i < 50; i++) {
        const middle = (low + high) / 2
        if (lengthAt(middle, 1) - lengthAt(middle, -1) > 0) low = middle
        else high = middle
      }
      expect(Math.abs(columnMm - low)).toBeLessThan(0.02)
      expect(massG).toBeCloseTo((13.546 * Math.PI * r * r * columnMm) / 1000, 6)
      const byMassAlone = (2 * jarBottomMm * rodAlpha) / (181.8 - 18)
      expect(columnMm / byMassAlone).toBeGreaterThan(1.02)
    }
  })

  test('a rod that grows too much for any column is refused by name', () => {
    expect(() => mercuryColumn({ jarBottomMm: 1000, rodAlphaPerMillion: 50, jarRadiusMm: 300 })).toThrow(/no column/)
  })
})
