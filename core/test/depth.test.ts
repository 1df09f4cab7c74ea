import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  backToDistance,
  centreDistanceOf,
  depthAfterWear,
  distanceMm,
  meshDepth,
  meshDepths,
  moduleFromWheel,
  moduleOf,
  pointAt,
  shiftOfWear,
  type MapArbor,
} from '../src/index.ts'

describe('depth after wear', () => {
  test('module from centre distance and counts, and back', () => {
    expect(moduleOf(64, 8, 36)).toBe(1)
    expect(centreDistanceOf(64, 8, 1)).toBe(36)
    expect(moduleFromWheel(66.7, 64)).toBeCloseTo(1)
    expect(() => moduleOf(64, 8, 0)).toThrow(/centreDistanceMm/)
  })

  test('straight away from the partner all of it counts, across it none', () => {
    expect(depthAfterWear(64, 8, 36, 0.2, 90, 90)).toEqual({
      moduleMm: 1,
      depthShiftMm: expect.closeTo(0.2),
      percentOfModule: expect.closeTo(20),
    })
    expect(depthAfterWear(64, 8, 36, 0.2, 180, 90).depthShiftMm).toBeCloseTo(0)
    expect(depthAfterWear(64, 8, 36, 0.2, 270, 90).percentOfModule).toBeCloseTo(-20)
  })

  test('a small shift changes the distance of two points by as much', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: 0, max: 0.3, noNaN: true }),
        (line, shift, mm) => {
          const partner = { xMm: 5, yMm: -7 }
          const hole = pointAt(partner, line, 40)
          const moved = pointAt(hole, shift, mm)
          const { depthShiftMm } = depthAfterWear(72, 8, 40, mm, shift, line)
          expect(distanceMm(partner, moved) - 40).toBeCloseTo(depthShiftMm, 2)
        },
      ),
    )
  })
})

describe('depth of a mesh from both holes of both arbors', () => {
  const at = (xMm: number, yMm: number) => ({ xMm, yMm })
  const arbor = (name: string, x: number, y: number) => ({ name, at: at(x, y), front: null, back: null })

  test('worn in one plate only, the mesh in the middle opens by half', () => {
    const driven = { ...arbor('third', 0, 36), back: { mm: 0.3, deg: 0 } }
    const mesh = { driver: arbor('centre', 0, 0), driven, wheelTeeth: 64, pinionLeaves: 8, place: 0.5 }
    expect(meshDepth(mesh)).toMatchObject({ depthShiftMm: expect.closeTo(0.15), percentOfModule: expect.closeTo(15) })
    expect(meshDepth({ ...mesh, place: 1 }).depthShiftMm).toBeCloseTo(0.3)
    expect(meshDepth({ ...mesh, place: 0 }).depthShiftMm).toBeCloseTo(0)
  })

  test('both arbors moved the same way keep their depth', () => {
    const shift = { front: { mm: 0.2, deg: 37 }, back: { mm: 0.2, deg: 37 } }
    const mesh = {
      driver: { ...arbor('centre', 0, 0), ...shift },
      driven: { ...arbor('third', 20, 30), ...shift },
      wheelTeeth: 64,
      pinionLeaves: 8,
      place: 0.4,
    }
    expect(meshDepth(mesh).depthShiftMm).toBeCloseTo(0)
  })

  test('before, bushed true, and bushed in the middle of the slot', () => {
    const one = (name: string, x: number, y: number, pinion: number | null, wheel: number | null): MapArbor => ({
      name,
      at: at(x, y),
      pinion,
      wheel,
      turn: 'clockwise',
      pinionAt: 0.5,
      wheelAt: 0.5,
    })
    const train = [one('Centre', 0, 0, null, 64), one('Third', 0, 36, 8, 60), one('Escape', 0, 70, 8, 30)]
    const worn = (plate: 'front' | 'back', bushed: boolean) => ({
      arbor: 'Third',
      plate,
      wearMm: 0.4,
      wearDeg: 0,
      bushed,
    })
    const all = [worn('front', true), worn('back', true)]
    expect(meshDepths(train, all, 'worn').map((m) => m.percentOfModule)).toEqual([
      expect.closeTo(40),
      expect.closeTo(-40, 0),
    ])
    expect(meshDepths(train, all, 'true').map((m) => m.depthShiftMm)).toEqual([0, 0])
    expect(meshDepths(train, all, 'middle')[0]!.depthShiftMm).toBeCloseTo(0.2)
    // One plate left as it is goes on pulling its end apart.
    expect(meshDepths(train, [worn('front', true), worn('back', false)], 'true')[0]!.depthShiftMm).toBeCloseTo(0.2)
    expect(meshDepths([{ ...train[0]!, at: null }, train[1]!], all, 'worn')).toEqual([])
    expect(shiftOfWear(0, 10, 'worn')).toBeNull()
  })

  test('bushed off its centre before: how far back, and which way', () => {
    expect(backToDistance(at(0, 0), at(36.4, 0), 36)).toEqual({
      computedMm: 36,
      foundMm: 36.4,
      moveMm: expect.closeTo(-0.4),
      clockAngleDeg: 270,
    })
    expect(backToDistance(at(0, 0), at(0, 35.8), 36)).toMatchObject({ moveMm: expect.closeTo(0.2), clockAngleDeg: 0 })
  })
})
