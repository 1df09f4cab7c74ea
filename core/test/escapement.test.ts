import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  escapementAction,
  escapeTopping,
  leaveLow,
  opened,
  palletOutlines,
  type EscapementGeometry,
  type PalletMeasures,
} from '../src/index.ts'
import { sweptEscapement } from './sweptEscapement.ts'

const TANGENT_MM = 18 / Math.cos((Math.PI * 7.5) / 30)
const DEAD_BEAT: PalletMeasures = {
  kind: 'dead-beat',
  teeth: 30,
  tipRadiusMm: 18,
  centreDistanceMm: TANGENT_MM,
  spannedSpaces: 7.5,
  palletMm: 1.6,
  liftDeg: 2,
  lockDeg: 0.8,
}
const RECOIL: PalletMeasures = { ...DEAD_BEAT, kind: 'recoil', liftDeg: 5, palletMm: 1.5 }
const PINS: PalletMeasures = { ...DEAD_BEAT, kind: 'pin-pallet', liftDeg: 4, palletMm: 3 }
const drawn = (m: PalletMeasures, nearerMm = 0, openedDeg = 0): EscapementGeometry => ({
  ...m,
  ...opened(palletOutlines(m), openedDeg),
  centreDistanceMm: m.centreDistanceMm - nearerMm,
})

/** Escapements of all sizes, set a little wrong: always the same ones. */
function randomEscapements(n: number): [string, EscapementGeometry, number][] {
  let seed = 7
  const random = () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647
  return Array.from({ length: n }, (_, i) => {
    const kind = random() < 0.5 ? 'dead-beat' : 'recoil'
    const teeth = [20, 30, 36, 42][Math.floor(random() * 4)]!
    const tipRadiusMm = 10 + random() * 15
    const spannedSpaces = Math.floor(teeth / 4 + (random() - 0.5) * 4) + 0.5
    const tangent = tipRadiusMm / Math.cos((Math.PI * spannedSpaces) / teeth)
    const m: PalletMeasures = {
      kind,
      teeth,
      tipRadiusMm,
      spannedSpaces,
      centreDistanceMm: tangent * (1 + (random() - 0.5) * 0.02),
      palletMm: ((Math.PI * tipRadiusMm) / teeth) * (0.6 + random() * 0.25),
      liftDeg: kind === 'recoil' ? 3 + random() * 4 : 1 + random() * 2,
      lockDeg: 0.3 + random(),
    }
    const geometry = drawn(m, (random() - 0.5) * 0.2, random() - 0.5)
    return [`${i + 1}, ${kind} of ${teeth}`, geometry, m.liftDeg / 2 + m.lockDeg + 1]
  })
}

describe('an escapement drawn', () => {
  // Closed forms of the dead-beat: lift and lock as it was drawn for, and a drop that is half a space less the pallet.
  test('a dead-beat does what it was drawn for', () => {
    const { entry, exit, ...all } = escapementAction(drawn(DEAD_BEAT), 4)
    expect(all.verdict).toBe('works')
    expect(all.releaseHalfDeg).toBeCloseTo(1.4, 2)
    expect(all.middleDeg).toBeCloseTo(0, 2)
    expect(entry.lockDeg).toBeCloseTo(0.8, 1)
    expect(exit.lockDeg).toBeCloseTo(0.8, 1)
    expect(entry.recoilDeg).toBe(0)
    expect(exit.recoilDeg).toBe(0)
    // The pallet spans 2·asin(half its thickness / tip radius), nearly: its middle is where the tangent meets the circle.
    const palletDeg = (2 * Math.asin(0.8 / 18) * 180) / Math.PI
    expect(entry.dropDeg).toBeCloseTo(6 - palletDeg, 1)
    expect(exit.dropDeg).toBeCloseTo(6 - palletDeg, 1)
  })

  // The sweep takes steps of 0.006°, and a wheel that is let go is seen one step late: 0.03° covers both.
  test.each([
    ['dead-beat', drawn(DEAD_BEAT), 2.5],
    ['dead-beat opened', drawn(DEAD_BEAT, 0, 0.8), 2.5],
    ['dead-beat farther', drawn(DEAD_BEAT, -0.1, 0.3), 2.5],
    ['recoil', drawn(RECOIL), 4],
    ['recoil opened and farther', drawn(RECOIL, -0.2, 0.8), 4],
  ])('agrees with a slow sweep that knows no geometry but crossing lines: %s', (_name, geometry, swing) => {
    const reckoned = escapementAction(geometry, swing)
    const swept = sweptEscapement(geometry, swing, 0.006)
    expect(reckoned.verdict).toBe('works')
    for (const pallet of ['entry', 'exit'] as const) {
      const [a, b] = [reckoned[pallet], swept[pallet]]
      expect(b, pallet).not.toBeNull()
      expect(Math.abs(a.releaseDeg! - b!.releaseDeg), `${pallet} release`).toBeLessThan(0.03)
      expect(Math.abs(a.dropDeg! - b!.dropDeg), `${pallet} drop`).toBeLessThan(0.05)
      expect(Math.abs(a.lockDeg! - b!.lockDeg), `${pallet} lock`).toBeLessThan(0.03)
      expect(Math.abs(a.recoilDeg! - b!.recoilDeg), `${pallet} recoil`).toBeLessThan(0.03)
    }
  })

  // Steps of 0.012°; the sweep calls the wheel moved after 0.03° of it, which is up to 0.08° of the pallets' turning.
  test.each(randomEscapements(8))('agrees with the sweep at random: %s', (_name, geometry, swing) => {
    const reckoned = escapementAction(geometry, swing)
    const swept = sweptEscapement(geometry, swing, 0.012)
    expect(reckoned.verdict === 'works').toBe(swept.entry !== null && swept.exit !== null && !swept.free)
    if (reckoned.verdict !== 'works') return
    for (const pallet of ['entry', 'exit'] as const) {
      const [a, b] = [reckoned[pallet], swept[pallet]!]
      expect(Math.abs(a.releaseDeg! - b.releaseDeg), `${pallet} release`).toBeLessThan(0.03)
      expect(Math.abs(a.dropDeg! - b.dropDeg), `${pallet} drop`).toBeLessThan(0.06)
      expect(Math.abs(a.lockDeg! - b.lockDeg), `${pallet} lock`).toBeLessThan(0.1)
      expect(Math.abs(a.recoilDeg! - b.recoilDeg), `${pallet} recoil`).toBeLessThan(0.03)
    }
  })

  test('pin pallets let go at half their lift, and push back a little', () => {
    const { entry, exit, verdict } = escapementAction(drawn(PINS), 5)
    expect(verdict).toBe('works')
    expect(Math.abs(entry.releaseDeg! - 2)).toBeLessThan(0.02)
    expect(Math.abs(exit.releaseDeg! + 2)).toBeLessThan(0.02)
    expect(entry.recoilDeg!).toBeLessThan(1)
  })

  test('too near: it does not let go', () => {
    const { verdict, reasons } = escapementAction(drawn(DEAD_BEAT, 0.3), 2)
    expect(verdict).toBe('jams')
    expect(reasons.join(' ')).toMatch(/Within 2° the entry pallet does not let go/)
  })

  test('too far: the wheel runs through', () => {
    const { verdict, reasons } = escapementAction(drawn(DEAD_BEAT, -1.5), 2)
    expect(verdict).toBe('runs through')
    expect(reasons[0]).toMatch(/neither pallet holds/)
  })

  test('opened pallets let go earlier by half of it, and lock by all of it less', () => {
    const before = escapementAction(drawn(DEAD_BEAT), 3)
    const after = escapementAction(drawn(DEAD_BEAT, 0, 0.5), 3)
    expect(after.releaseHalfDeg!).toBeCloseTo(before.releaseHalfDeg! - 0.25, 2)
    expect(after.entry.lockDeg!).toBeCloseTo(before.entry.lockDeg! - 0.5, 1)
  })

  test('mirrored pallets turn the other way round: the middle moves, the half angle stays', () => {
    fc.assert(
      fc.property(fc.double({ min: -0.6, max: 0.6, noNaN: true }), (turnDeg) => {
        const a = (turnDeg * Math.PI) / 180
        const turn = (p: { xMm: number; yMm: number }) => ({
          xMm: p.xMm * Math.cos(a) + p.yMm * Math.sin(a),
          yMm: -p.xMm * Math.sin(a) + p.yMm * Math.cos(a),
        })
        const g = drawn(DEAD_BEAT)
        const turned = { ...g, palletEntry: g.palletEntry.map(turn), palletExit: g.palletExit.map(turn) }
        const at = escapementAction(turned, 4)
        expect(at.releaseHalfDeg!).toBeCloseTo(1.4, 2)
        expect(at.middleDeg!).toBeCloseTo(-turnDeg, 2)
      }),
      { numRuns: 20 },
    )
  })

  test.each([
    ['teeth', { teeth: 2 }],
    ['tipRadiusMm', { tipRadiusMm: 0 }],
    ['palletEntry', { palletEntry: [{ xMm: 0, yMm: 0 }] }],
    [
      'palletExit[1].xMm',
      {
        palletExit: [
          { xMm: 0, yMm: 0 },
          { xMm: Number.NaN, yMm: 0 },
        ],
      },
    ],
  ])('refuses %s that can’t be', (field, part) => {
    expect(() => escapementAction({ ...drawn(DEAD_BEAT), ...part }, 3)).toThrow(field)
  })

  test('pallets that do not reach the teeth can’t be drawn', () => {
    expect(() => palletOutlines({ ...DEAD_BEAT, centreDistanceMm: 60 })).not.toThrow()
    expect(() => palletOutlines({ ...DEAD_BEAT, palletMm: 60 })).toThrow(/palletMm/)
    expect(() => palletOutlines({ ...DEAD_BEAT, spannedSpaces: 20 })).toThrow(/spannedSpaces/)
  })
})

describe('topping an escape wheel', () => {
  const radii = fc.array(fc.double({ min: 17.5, max: 18, noNaN: true }), { minLength: 6, maxLength: 40 })

  test('takes from each just what makes it as long as the shortest', () => {
    fc.assert(
      fc.property(radii, (tips) => {
        const { toRadiusMm, takeOffMm, mostMm } = escapeTopping(tips)
        // By brute force: no radius that all teeth reach is larger.
        const reached = tips.filter((mm) => mm - 1e-12 <= toRadiusMm)
        expect(reached.length).toBeGreaterThan(0)
        tips.forEach((mm, i) => expect(mm - takeOffMm[i]!).toBeCloseTo(toRadiusMm, 9))
        expect(takeOffMm.every((mm) => mm >= 0 && mm <= mostMm)).toBe(true)
      }),
    )
  })

  test('the pallets, set tangent, come nearer by as much as the tangents’ meeting does', () => {
    // The tangents of a circle at ±a from the top meet r / cos a above its centre.
    const meets = (r: number) => r / Math.cos((7.5 / 30) * Math.PI)
    const tips = Array.from({ length: 30 }, (_, i) => (i === 9 ? 17.91 : 18))
    expect(escapeTopping(tips, 7.5).palletsNearerMm).toBeCloseTo(meets(18) - meets(17.91), 9)
    expect(escapeTopping(tips).palletsNearerMm).toBeNull()
  })

  test('a tip or two that stand out are left low, and the rest taken down to the next', () => {
    const tips = Array.from({ length: 30 }, (_, i) => (i === 15 ? 17.91 : 18 - (i % 3) * 0.005))
    expect(leaveLow(tips)).toMatchObject({ left: [16], toRadiusMm: 17.99 })
    expect(leaveLow(tips)!.mostMm).toBeCloseTo(0.01, 9)
    expect(leaveLow(tips)!.lowerMm).toBeCloseTo(0.08, 9)
    expect(leaveLow(Array.from({ length: 12 }, (_, i) => 18 - i * 0.01))).toBeNull()
  })

  test.each([
    ['tipRadiiMm', () => escapeTopping([18, 18])],
    ['tipRadiiMm[1]', () => escapeTopping([18, 0, 18])],
    ['spannedSpaces', () => escapeTopping([18, 18, 18, 18, 18, 18], 3)],
  ])('refuses %s', (field, ask) => expect(ask).toThrow(field))
})
