import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { feltEnergy, SAFE_YIELD_MPA, springEnergy, weightEnergy, winderMay, type Mainspring } from '../src/index.ts'

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
  test('the handbook’s spring: about 1250 N·mm wound, 550 run down, 52 J, and 45 to 58 J over what steels do', () => {
    const spring = springEnergy(EIGHT_DAY)
    expect(Math.abs(spring.torqueWoundNmm - 1250)).toBeLessThan(25)
    expect(Math.abs(spring.torqueRunDownNmm - 550)).toBeLessThan(25)
    expect(spring.energyJ).toBeCloseTo(52, 0)
    expect(springEnergy(EIGHT_DAY, undefined, 205, 1600).energyJ).toBeCloseTo(45, 0)
    expect(springEnergy(EIGHT_DAY, undefined, 205, SAFE_YIELD_MPA).energyJ).toBeCloseTo(58, 0)
    expect(spring.torqueNmm).toBe(spring.torqueWoundNmm)
    expect(spring.dropOf1kgMm).toBeCloseTo((spring.energyJ / 9.80665) * 1000, 6)
  })

  /**
   * The moment of a strip bent to a curvature, layer by layer: each layer stretches with its distance from the middle,
   * up to the yield stress and no further.
   */
  function layered(curvature: number, yieldMpa: number): number {
    const layers = 20_000
    let moment = 0
    for (let i = 0; i < layers; i++) {
      const y = ((i + 0.5) / layers - 0.5) * EIGHT_DAY.thicknessMm
      const stress = Math.max(-yieldMpa, Math.min(yieldMpa, 205_000 * curvature * y))
      moment += stress * y * EIGHT_DAY.widthMm * (EIGHT_DAY.thicknessMm / layers)
    }
    return moment
  }

  test.each([1600, 1800, 4000])(
    'the moment wound is that of the strip summed layer by layer, at %d MPa',
    (yieldMpa) => {
      const { torqueWoundNmm } = springEnergy(EIGHT_DAY, undefined, 205, yieldMpa)
      const coils = coilsLaid(EIGHT_DAY, 'arbor')
      expect(torqueWoundNmm / layered((2 * Math.PI * coils) / EIGHT_DAY.lengthMm, yieldMpa)).toBeCloseTo(1, 2)
    },
  )

  test('the energy is the work given out in running down, summed turn by turn', () => {
    for (const [turns, yieldMpa] of [
      [9.1, 1800],
      [4, 1800],
      [9.1, 600],
    ] as const) {
      const steps = 2000
      let work = 0
      for (let i = 0; i < steps; i++) {
        const middle = ((i + 0.5) / steps) * turns
        work += (springEnergy(EIGHT_DAY, middle, 205, yieldMpa).torqueNmm * ((2 * Math.PI * turns) / steps)) / 1000
      }
      expect(springEnergy(EIGHT_DAY, turns, 205, yieldMpa).energyJ).toBeCloseTo(work, 3)
    }
  })

  test('torque goes as width, and turn for turn as the cube of the thickness over the length', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.6, max: 1.5, noNaN: true }), (k) => {
        const turn = (s: Partial<Mainspring>) => {
          const spring = { ...EIGHT_DAY, lengthMm: 900, ...s }
          return springEnergy(spring, 3).torqueNmm - springEnergy(spring, 2).torqueNmm
        }
        expect(turn({ widthMm: 19 * k }) / turn({})).toBeCloseTo(k, 6)
        expect(turn({ thicknessMm: 0.4 * k }) / turn({})).toBeCloseTo(k ** 3, 6)
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
