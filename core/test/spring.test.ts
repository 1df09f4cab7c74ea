import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { feltEnergy, springEnergy, weightEnergy, winderMay, type Mainspring } from '../src/index.ts'

const EIGHT_DAY: Mainspring = { widthMm: 19, thicknessMm: 0.4, lengthMm: 1708, barrelInsideMm: 44, arborMm: 14 }

/**
 * Coils counted by laying the strip down ring by ring, each ring one thickness beyond the last and its middle line half a
 * thickness in: outward from the arbor it is wound, inward from the wall it is run down.
 */
function coilsLaid({ lengthMm, thicknessMm, barrelInsideMm, arborMm }: Mainspring, from: 'arbor' | 'wall'): number {
  const ring = (n: number) =>
    from === 'arbor' ? arborMm / 2 + thicknessMm * (n + 0.5) : barrelInsideMm / 2 - thicknessMm * (n + 0.5)
  let left = lengthMm
  let turns = 0
  for (;;) {
    const round = 2 * Math.PI * ring(turns)
    if (round >= left) return turns + left / round
    left -= round
    turns += 1
  }
}

describe('turns of a mainspring', () => {
  test('the handbook’s spring has 9.1 turns at its best length of 1708 mm', () => {
    const { turnsAvailable, bestLengthMm } = springEnergy(EIGHT_DAY)
    expect(bestLengthMm).toBeCloseTo(Math.PI * ((22 ** 2 - 7 ** 2) / 0.8), 6)
    expect(bestLengthMm).toBeCloseTo(1708, 0)
    expect(turnsAvailable).toBeCloseTo(9.1, 1)
  })

  test.each<Mainspring>([
    EIGHT_DAY,
    { ...EIGHT_DAY, lengthMm: 1200 },
    { widthMm: 6, thicknessMm: 0.18, lengthMm: 700, barrelInsideMm: 19, arborMm: 6 },
    { widthMm: 45, thicknessMm: 0.55, lengthMm: 2500, barrelInsideMm: 62, arborMm: 17 },
  ])('coils laid one on another by brute force agree: %o', (spring) => {
    const counted = coilsLaid(spring, 'arbor') - coilsLaid(spring, 'wall')
    // The last, broken ring lies at its own middle, not at the broken part's: hundredths of a turn.
    expect(Math.abs(springEnergy(spring).turnsAvailable - counted)).toBeLessThan(0.03)
  })

  test('no other length in the same barrel gives more turns', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.3, max: 1.6, noNaN: true }), (share) => {
        const { bestLengthMm, turnsAtBest } = springEnergy(EIGHT_DAY)
        const other = springEnergy({ ...EIGHT_DAY, lengthMm: bestLengthMm * share })
        expect(other.turnsAvailable).toBeLessThanOrEqual(turnsAtBest + 1e-9)
      }),
    )
  })
})

describe('torque and energy', () => {
  test('torque is E·I·θ/l, by hand', () => {
    const { torqueNmm, energyJ, dropOf1kgMm } = springEnergy(EIGHT_DAY, 5)
    // I = 19 × 0.4³ / 12 = 0.101333 mm⁴; θ = 31.4159; E = 205 000 N/mm²
    expect(torqueNmm).toBeCloseTo((205_000 * 0.10133333 * 31.4159265) / 1708, 2)
    expect(energyJ).toBeCloseTo((0.5 * torqueNmm * 10 * Math.PI) / 1000, 9)
    expect(dropOf1kgMm).toBeCloseTo((energyJ / 9.80665) * 1000, 6)
  })

  test('the energy is the work done in winding, summed turn by turn', () => {
    const turns = 7
    const steps = 2000
    let work = 0
    for (let i = 0; i < steps; i++) {
      const middle = ((i + 0.5) / steps) * turns
      work += (springEnergy(EIGHT_DAY, middle).torqueNmm * ((2 * Math.PI * turns) / steps)) / 1000
    }
    expect(springEnergy(EIGHT_DAY, turns).energyJ).toBeCloseTo(work, 6)
  })

  test('torque goes as width, and as the cube of the thickness over the length', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 1.9, noNaN: true }), (k) => {
        const at = (s: Partial<Mainspring>) => springEnergy({ ...EIGHT_DAY, lengthMm: 900, ...s }, 0.5).torqueNmm
        expect(at({ widthMm: 19 * k }) / at({})).toBeCloseTo(k, 9)
        expect(at({ thicknessMm: 0.4 * k }) / at({})).toBeCloseTo(k ** 3, 9)
      }),
    )
  })

  test('an eight-day spring is felt: as kilograms falling the height of a table', () => {
    const { energyJ } = springEnergy(EIGHT_DAY)
    expect(energyJ).toBeGreaterThan(5)
    expect(feltEnergy(energyJ)).toMatch(/^a \d+ kg weight falling \d+ cm$/)
    expect(feltEnergy(2 * 9.80665 * 0.6)).toBe('a 2 kg weight falling 60 cm')
    expect(feltEnergy(0.04)).toBe('a 0.5 kg weight falling 0.8 cm')
    expect(weightEnergy(62, 9000)).toBeCloseTo(5472.1, 1)
    expect(feltEnergy(weightEnergy(62, 9000))).toBe('a 100 kg weight falling 558 cm')
  })

  test('a winder is rated above the spring, with a fifth to spare', () => {
    expect(winderMay(1200, 1000)).toBe(true)
    expect(winderMay(1190, 1000)).toBe(false)
  })
})

describe('a spring that can’t be', () => {
  test.each([
    [{ ...EIGHT_DAY, lengthMm: 3500 }, undefined, /lengthMm is 3500: .*only below 3416 mm/],
    [{ ...EIGHT_DAY, arborMm: 50 }, undefined, /arborMm is 50: it must be smaller than barrelInsideMm, 44/],
    [{ ...EIGHT_DAY, thicknessMm: 0 }, undefined, /thicknessMm/],
    [{ ...EIGHT_DAY, widthMm: Number.NaN }, undefined, /widthMm/],
    [EIGHT_DAY, 9.5, /turns is 9.5: it must be above 0 and at most the 9.1/],
    [EIGHT_DAY, 0, /turns is 0/],
  ])('%o wound by %s is refused', (spring, turns, message) => {
    expect(() => springEnergy(spring, turns)).toThrow(message)
  })
})
