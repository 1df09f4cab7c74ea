import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  angleApartDeg,
  arborForces,
  bestPlay,
  fromLean,
  leanOfShake,
  playByWays,
  predictedWear,
  pushAtPlate,
  sureness,
  wearDirection,
  wearQuestioned,
  type MapArbor,
} from '../src/index.ts'
import { meanToothForce } from './gearPair.ts'

const clock = (v: { x: number; y: number }) => ((Math.atan2(v.x, v.y) * 180) / Math.PI + 360) % 360

describe('which way a hole wears', () => {
  test('driven from straight below, turning clockwise: along the tooth, to the left, and away by the pressure angle', () => {
    const found = wearDirection({
      at: { xMm: 0, yMm: 0 },
      turns: 'clockwise',
      drivenFrom: { xMm: 0, yMm: -30 },
      pinionRadiusMm: 4,
    })
    expect(found).toEqual({ clockAngleDeg: expect.closeTo(290), forceRatio: 0 })
  })

  test('turned the other way it is the mirror image', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 60, noNaN: true }),
        fc.double({ min: -60, max: -5, noNaN: true }),
        fc.double({ min: 0, max: 35, noNaN: true }),
        (x, y, pressureAngleDeg) => {
          const arbor = { at: { xMm: 0, yMm: 0 }, pinionRadiusMm: 3, wheelRadiusMm: 20, pressureAngleDeg }
          const one = wearDirection({
            ...arbor,
            turns: 'clockwise',
            drivenFrom: { xMm: x, yMm: y },
            drives: { xMm: -x, yMm: 20 },
          })
          const other = wearDirection({
            ...arbor,
            turns: 'anticlockwise',
            drivenFrom: { xMm: -x, yMm: y },
            drives: { xMm: x, yMm: 20 },
          })
          expect(angleApartDeg(one.clockAngleDeg, 360 - other.clockAngleDeg)).toBeLessThan(1e-6)
        },
      ),
    )
  })

  test('both pushes turn against each other: their torques about the arbor cancel', () => {
    const at = { xMm: 3, yMm: 8 }
    const drivenFrom = { xMm: 30, yMm: -14 }
    const drives = { xMm: -21, yMm: 22 }
    const [pinion, wheel] = [4, 21]
    const { driven, drives: back } = arborForces({
      at,
      turns: 'anticlockwise',
      drivenFrom,
      drives,
      pinionRadiusMm: pinion,
      wheelRadiusMm: wheel,
    })
    const torque = (toward: typeof at, r: number, f: { x: number; y: number }) => {
      const d = Math.hypot(toward.xMm - at.xMm, toward.yMm - at.yMm)
      return (r * ((toward.xMm - at.xMm) * f.y - (toward.yMm - at.yMm) * f.x)) / d
    }
    expect(torque(drivenFrom, pinion, driven)).toBeGreaterThan(0)
    expect(torque(drivenFrom, pinion, driven) + torque(drives, wheel, back)).toBeCloseTo(0, 9)
  })

  test.each([
    [true, { x: 31, y: -22 }, { x: -20, y: 24 }],
    [false, { x: -18, y: -30 }, { x: 9, y: 30 }],
    [true, { x: 0, y: 35 }, { x: 28, y: 4 }],
  ])('a pair of gears turned by numbers with friction pushes the same way (clockwise: %s)', (clockwise, from, to) => {
    const [pinion, wheel] = [Math.hypot(from.x, from.y) / 8, (7 * Math.hypot(to.x, to.y)) / 8]
    const here = { x: 0, y: 0 }
    const onPinion = meanToothForce(from, here, 7 * pinion, pinion, !clockwise, 0.12)
    const onNext = meanToothForce(here, to, wheel, wheel / 7, clockwise, 0.12)
    // The next one resists so much that this arbor's torques balance: what it bears is scaled to the pinion's torque.
    const onWheel = { x: (-onNext.x * (wheel / 7)) / wheel, y: (-onNext.y * (wheel / 7)) / wheel }
    const found = wearDirection({
      at: { xMm: 0, yMm: 0 },
      turns: clockwise ? 'clockwise' : 'anticlockwise',
      drivenFrom: { xMm: from.x, yMm: from.y },
      pinionRadiusMm: pinion,
      drives: { xMm: to.x, yMm: to.y },
      wheelRadiusMm: wheel,
    })
    const sum = { x: onPinion.x + onWheel.x, y: onPinion.y + onWheel.y }
    expect(angleApartDeg(found.clockAngleDeg, clock(sum))).toBeLessThan(5)
    expect(Math.hypot(onWheel.x, onWheel.y) / Math.hypot(onPinion.x, onPinion.y)).toBeCloseTo(found.forceRatio, 1)
  })

  test('a load nearer one plate is borne by that plate, and both together bear it all', () => {
    const forces = arborForces({
      at: { xMm: 0, yMm: 0 },
      turns: 'clockwise',
      drivenFrom: { xMm: 10, yMm: -30 },
      pinionRadiusMm: 4,
      drives: { xMm: -15, yMm: 20 },
      wheelRadiusMm: 22,
    })
    const front = pushAtPlate(forces, 'front', 0.2, 0.8)
    const back = pushAtPlate(forces, 'back', 0.2, 0.8)
    expect(front.x + back.x).toBeCloseTo(forces.driven.x + forces.drives.x)
    expect(front.y + back.y).toBeCloseTo(forces.driven.y + forces.drives.y)
    // Moments about the back plate: what the front bears times the whole distance is each load times its own.
    expect(front.x).toBeCloseTo(0.8 * forces.driven.x + 0.2 * forces.drives.x)
  })

  test('a wheel that drives nothing named, and an arbor on top of its driver, are refused', () => {
    const arbor = { at: { xMm: 0, yMm: 0 }, turns: 'clockwise' as const, pinionRadiusMm: 4 }
    expect(() => wearDirection({ ...arbor, drivenFrom: { xMm: 0, yMm: 0 } })).toThrow(/another place/)
    expect(() => wearDirection({ ...arbor, drivenFrom: { xMm: 1, yMm: 0 }, wheelRadiusMm: 5 })).toThrow(/drives/)
    expect(() => wearDirection({ ...arbor, drivenFrom: { xMm: 1, yMm: 0 }, drives: { xMm: 5, yMm: 0 } })).toThrow(
      /wheelRadiusMm/,
    )
  })

  test('along a train: each arbor by its own, the great one by what it drives, the pallets not told', () => {
    const arbor = (
      name: string,
      x: number,
      y: number,
      pinion: number | null,
      wheel: number | null,
      cw: boolean,
    ): MapArbor => ({
      name,
      at: { xMm: x, yMm: y },
      pinion,
      wheel,
      turn: cw ? 'clockwise' : 'anticlockwise',
      pinionAt: 0.3,
      wheelAt: 0.6,
    })
    const train = [
      arbor('Great', 0, 0, null, 84, false),
      arbor('Centre', 0, 40, 8, 64, true),
      arbor('Third', 24, 62, 8, 60, false),
      { ...arbor('Escape', 24, 92, 8, 30, true) },
      { ...arbor('Pallets', 24, 110, null, null, false) },
    ]
    const found = predictedWear(train, 'back')
    expect(found.map((d) => d !== null)).toEqual([true, true, true, true, false])
    // The great wheel turns anticlockwise and drives straight up: its tooth goes left there, so it is pushed to the right and down.
    expect(angleApartDeg(found[0]!, 90 + 20)).toBeLessThan(1e-6)
    expect(predictedWear([{ ...train[0]!, at: null }, train[1]!, train[2]!], 'back')[1]).toBeNull()
    expect(wearQuestioned(10, 101, 0.1)).toBe(true)
    expect(wearQuestioned(350, 79, 0.1)).toBe(false)
    // Less than the caliper can tell goes no way at all.
    expect(wearQuestioned(10, 190, 0.02)).toBe(false)
    expect(wearQuestioned(10, 190, 1.32 - 1.29)).toBe(true)
  })
})

describe('the lean test', () => {
  test('a cylinder tilted by numbers till it touches both rims', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        fc.double({ min: 0.4, max: 4, noNaN: true }),
        fc.double({ min: 0.8, max: 6, noNaN: true }),
        (lean, pivot, plate) => {
          // Points of the tilted cylinder's skin at both faces of the plate: the least hole that lets them all through.
          const tilt = (lean * Math.PI) / 180
          let widest = 0
          for (let k = 0; k < 2000; k++) {
            const a = (k / 2000) * 2 * Math.PI
            for (const z of [-plate / 2, plate / 2]) {
              const across = (pivot / 2) * Math.cos(a)
              const x = across / Math.cos(tilt) + z * Math.tan(tilt)
              widest = Math.max(widest, Math.hypot(x, (pivot / 2) * Math.sin(a)))
            }
          }
          expect(fromLean(lean, pivot, plate).holeMm).toBeCloseTo(2 * widest, 4)
        },
      ),
      { numRuns: 60 },
    )
  })

  test('upright there is no play; a shake read far off is a lean', () => {
    expect(fromLean(0, 1, 2)).toEqual({ holeMm: 1, playMm: 0 })
    expect(leanOfShake(4.37, 50)).toBeCloseTo(5, 1)
    expect(() => fromLean(40, 1, 2)).toThrow(/leanDeg/)
    expect(() => fromLean(3, 0, 2)).toThrow(/pivotMm/)
  })
})

describe('how sure', () => {
  const none = { longAxisMm: null, shortAxisMm: null, pivotMm: null, plateMm: null, shakeMm: null, leanDeg: null }

  test('the two axes go before the gauge, the gauge before the lean; the gauge is taken as it is', () => {
    const all = { longAxisMm: 1.2, shortAxisMm: 1.1, pivotMm: 1, plateMm: 2, shakeMm: 0.14, leanDeg: 4 }
    expect(playByWays(all).map((p) => p.way)).toEqual(['caliper', 'dial', 'lean'])
    expect(bestPlay(all)!.playMm).toBeCloseTo(0.15)
    expect(bestPlay({ ...none, shakeMm: 0.14 })).toMatchObject({ way: 'dial', playMm: 0.14 })
    expect(bestPlay({ ...none, leanDeg: 4 })).toBeNull()
    expect(bestPlay(none)).toBeNull()
  })

  test('stated sureness is the share of wrong readings, tried out by chance', () => {
    const measured = { way: 'lean' as const, playMm: 0.12, sigmaMm: 0.02 }
    const { sure, settleBy } = sureness(measured, 0.1)
    let right = 0
    let seed = 7
    const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647
    for (let i = 0; i < 40_000; i++) {
      const error = Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random())
      if (measured.playMm + measured.sigmaMm * error > 0.1) right++
    }
    expect(sure).toBeCloseTo(right / 40_000, 2)
    expect(settleBy).toBe('caliper')
  })

  test('far from the limit nothing more is asked; at it the toss is even', () => {
    expect(sureness({ way: 'lean', playMm: 0.3, sigmaMm: 0.02 }, 0.1)).toEqual({
      sure: expect.closeTo(1, 6),
      settleBy: null,
    })
    expect(sureness({ way: 'dial', playMm: 0.1, sigmaMm: 0.02 }, 0.1).sure).toBeCloseTo(0.5, 6)
    expect(sureness({ way: 'caliper', playMm: 0.1, sigmaMm: 0.02 }, 0.1).settleBy).toBeNull()
  })
})
