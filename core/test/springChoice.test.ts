import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  chooseMainspring,
  coilsLie,
  judgeSet,
  compareMainsprings,
  lengthFromCoils,
  springEnergy,
  torqueCurve,
  type StockedSpring,
} from '../src/index.ts'

const BARREL = { barrelInsideMm: 44, arborMm: 14 }
const OLD = { widthMm: 19, thicknessMm: 0.4, lengthMm: 1700 }

/** The moment of a strip wound round the arbor, layer by layer of its thickness, none above 1800 MPa: N·mm. */
function layeredWound({ widthMm, thicknessMm, lengthMm }: typeof OLD): number {
  // Coils laid down ring by ring, each one thickness further out.
  let left = lengthMm
  let coils = 0
  for (;;) {
    const round = 2 * Math.PI * (BARREL.arborMm / 2 + thicknessMm * (coils + 0.5))
    if (round >= left) break
    left -= round
    coils += 1
  }
  coils += left / (2 * Math.PI * (BARREL.arborMm / 2 + thicknessMm * (coils + 0.5)))
  const curvature = (2 * Math.PI * coils) / lengthMm
  const layers = 20_000
  let moment = 0
  for (let i = 0; i < layers; i++) {
    const y = ((i + 0.5) / layers - 0.5) * thicknessMm
    const stress = Math.max(-1800, Math.min(1800, 205_000 * curvature * y))
    moment += stress * y * widthMm * (thicknessMm / layers)
  }
  return moment
}

describe('a fitted spring against the old one', () => {
  test.each([
    { ...OLD, thicknessMm: 0.42 },
    { ...OLD, widthMm: 18, lengthMm: 1500 },
    { widthMm: 20, thicknessMm: 0.36, lengthMm: 1900 },
  ])('fully wound it pulls as much more as layers of the strip, summed, say: %o', (fitted) => {
    const { woundTorquePercent } = compareMainsprings(BARREL, OLD, fitted)
    const layered = 100 * (layeredWound(fitted) / layeredWound(OLD) - 1)
    // A broken last ring lies a little otherwise than the formula's: a tenth of a per cent of the moment.
    expect(Math.abs(woundTorquePercent! - layered)).toBeLessThan(0.1)
  })

  test('a twentieth thicker is a sixth stronger, and said loudly', () => {
    const { torquePercent, verdict, reasons } = compareMainsprings(BARREL, OLD, { ...OLD, thicknessMm: 0.42 })
    expect(torquePercent).toBeCloseTo(100 * (1.05 ** 3 - 1), 9)
    expect(verdict).toBe('too strong')
    expect(reasons[0]).toMatch(/16 % stronger: it would wear/)
  })

  test.each([
    [{ ...OLD }, 'alike'],
    [{ ...OLD, widthMm: 19 * 1.1 }, 'alike'],
    [{ ...OLD, widthMm: 19 * 1.1001 }, 'too strong'],
    [{ ...OLD, widthMm: 19 * 0.85 }, 'alike'],
    [{ ...OLD, widthMm: 19 * 0.8499 }, 'too weak'],
    [{ ...OLD, lengthMm: 3500 }, 'does not fit'],
  ])('%o is %s', (fitted, verdict) => {
    expect(compareMainsprings(BARREL, OLD, fitted).verdict).toBe(verdict)
  })

  test('half the free area is fifty per cent full', () => {
    const fill = compareMainsprings(BARREL, OLD, { ...OLD, lengthMm: (Math.PI * (22 ** 2 - 7 ** 2)) / 0.8 }).fillPercent
    expect(fill).toBeCloseTo(50, 9)
  })

  test('an old spring that can’t have been in it is refused by its name', () => {
    expect(() => compareMainsprings(BARREL, { ...OLD, lengthMm: 4000 }, OLD)).toThrow('old.lengthMm is 4000')
    expect(() => compareMainsprings({ ...BARREL, arborMm: 50 }, OLD, OLD)).toThrow('arborMm is 50')
    expect(() => compareMainsprings(BARREL, OLD, { ...OLD, widthMm: 0 })).toThrow('fitted.widthMm is 0')
  })
})

describe('choosing from the drawers', () => {
  const spring = fc.record({
    widthMm: fc.integer({ min: 16, max: 21 }),
    thicknessMm: fc.constantFrom(0.36, 0.38, 0.4, 0.42),
    lengthMm: fc.constantFrom(1000, 1400, 1600, 1700, 1900, 3400),
    count: fc.integer({ min: 0, max: 2 }),
  })

  test('what fits by exhaustive search is what is told, the nearest in strength first', () => {
    const strength = (s: typeof OLD) => (s.widthMm * s.thicknessMm ** 3) / s.lengthMm
    fc.assert(
      fc.property(fc.array(spring, { maxLength: 15 }), fc.option(fc.integer({ min: 15, max: 22 })), (all, height) => {
        const stock: StockedSpring[] = all.map((s, i) => ({ ...s, id: String(i) }))
        const { choice, fits, whyNot } = chooseMainspring({ ...BARREL, barrelHeightMm: height }, OLD, stock)
        const turnsOld = springEnergy({ ...OLD, ...BARREL }).turnsAvailable
        const good = stock.filter((s) => {
          if (s.count === 0 || s.widthMm > (height ?? 19)) return false
          const by = strength(s) / strength(OLD) - 1
          if (by > 0.1 || by < -0.15 || s.lengthMm * s.thicknessMm >= Math.PI * (22 ** 2 - 7 ** 2)) return false
          return springEnergy({ ...s, ...BARREL }).turnsAvailable >= 0.9 * turnsOld
        })
        expect([...fits].sort()).toEqual(good.map((s) => s.id).sort())
        expect(fits.length + whyNot.length).toBe(stock.length)
        expect(choice).toBe(fits[0] ?? null)
        const apart = (id: string) => Math.abs(strength(stock[Number(id)]!) / strength(OLD) - 1)
        fits.slice(1).forEach((id, i) => expect(apart(id)).toBeGreaterThanOrEqual(apart(fits[i]!) - 1e-12))
      }),
    )
  })

  test.each([
    [{ count: 0 }, 'None is left.'],
    [{ widthMm: 20 }, 'It is 20 mm wide; at most 19 mm goes in.'],
    [{ thicknessMm: 0.45 }, 'It is 42 % too strong.'],
    [{ thicknessMm: 0.35 }, 'It is 33 % too weak.'],
  ])('says why not: %o', (part, why) => {
    expect(chooseMainspring(BARREL, OLD, [{ ...OLD, count: 1, id: 'a', ...part }]).whyNot).toEqual([{ id: 'a', why }])
  })

  test('fewer turns than are needed are too few', () => {
    const { whyNot } = chooseMainspring(BARREL, OLD, [{ ...OLD, count: 1, id: 'a' }], 12)
    expect(whyNot[0]!.why).toMatch(/9\.1 turns; 12\.0 are needed/)
  })
})

test('a spring that stays coiled under twice its barrel is set, from three times on it is sound', () => {
  expect(judgeSet(70, 36).verdict).toBe('set')
  expect(judgeSet(72, 36)).toMatchObject({ times: 2, verdict: 'watch' })
  expect(judgeSet(108, 36).verdict).toBe('sound')
  expect(() => judgeSet(0, 36)).toThrow('looseMm')
})

describe('a spring in its barrel', () => {
  test('its length follows from the coils counted against the wall', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 18 }), (coils) => {
        const lengthMm = lengthFromCoils(coils, 0.4, 44)
        // Ring by ring: each a thickness further in.
        let laid = 0
        for (let i = 0; i < coils; i++) laid += 2 * Math.PI * (22 - 0.4 * (i + 0.5))
        expect(lengthMm).toBeCloseTo(laid, 6)
        expect(coilsLie({ lengthMm, thicknessMm: 0.4, widthMm: 19 }, BARREL).runDown.coils).toBeCloseTo(coils, 9)
      }),
    )
    expect(() => lengthFromCoils(60, 0.4, 44)).toThrow('coils')
  })

  test('torque only grows as it is wound, up to what it pulls fully wound', () => {
    const curve = torqueCurve(OLD, BARREL)
    curve.slice(1).forEach((p, i) => expect(p.torqueNmm).toBeGreaterThan(curve[i]!.torqueNmm))
    expect(curve.at(-1)!.torqueNmm).toBeCloseTo(springEnergy({ ...OLD, ...BARREL }).torqueWoundNmm, 6)
    expect(torqueCurve({ ...OLD, lengthMm: 5000 }, BARREL)).toEqual([])
  })
})
