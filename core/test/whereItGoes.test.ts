import {
  efficiencyGained,
  givenPerBeat,
  runDownFrom,
  runDownMarks,
  whereItGoes,
  type ArcReading,
  type Drive,
} from '@treadle/core'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { normal, random } from './clockSound.ts'

const G = 9.80665
const PENDULUM = { lengthMm: 994, massG: 5000, cgMm: 960 }
const WEIGHT: Drive = { by: 'weight', weightKg: 3.2, fallMm: 850, hours: 168 }

/** Arcs of a pendulum of a quality, read with so much error. */
function dying(quality: number, errorDeg = 0, seed = 1): ArcReading[] {
  const tauS = (2 * quality) / Math.sqrt(G / 0.994)
  const gauss = normal(random(seed))
  return Array.from({ length: 8 }, (_, i) => ({
    atS: i * 240,
    semiArcDeg: 2.5 * Math.exp((-i * 240) / tauS) + errorDeg * gauss(),
  }))
}

describe('where the power goes', () => {
  test('a beat’s share is its energy over Q and over what the weight gives', () => {
    const { decay, givenMicroJ, trainMicroJ, efficiencyPercent } = whereItGoes(dying(5000), PENDULUM, 2, 3600, WEIGHT)
    const energy = 5 * G * 0.96 * (1 - Math.cos((2 * Math.PI) / 180))
    const perBeat = ((energy * Math.PI) / 5000) * 1e6
    const given = (3.2 * G * 0.85 * 1e6) / (168 * 3600)
    expect(decay.lossPerBeatMicroJ / perBeat).toBeCloseTo(1, 4)
    expect(givenMicroJ! / given).toBeCloseTo(1, 9)
    expect(efficiencyPercent! / ((100 * perBeat) / given)).toBeCloseTo(1, 4)
    expect(trainMicroJ).toBeCloseTo(given - perBeat, 2)
    expect(decay.arcAt(960)).toBeCloseTo(dying(5000)[4]!.semiArcDeg, 6)
  })

  test('its error holds the truth in nineteen of twenty', () => {
    const truth = whereItGoes(dying(5000), PENDULUM, 2, 3600, WEIGHT).efficiencyPercent!
    let held = 0
    for (let seed = 1; seed <= 200; seed++) {
      const told = whereItGoes(dying(5000, 0.02, seed), PENDULUM, 2, 3600, WEIGHT)
      // Judged by six degrees of freedom: Student's 2.45 and not 1.96.
      if (Math.abs(told.efficiencyPercent! - truth) < 2.45 * told.efficiencyStandardError!) held++
    }
    expect(held).toBeGreaterThanOrEqual(184)
  })

  test('a spring gives its torque over its turns', () => {
    const drive: Drive = { by: 'spring', torqueNmm: 800, turns: 4, hours: 192 }
    expect(givenPerBeat(drive, 7200)).toBeCloseTo((0.8 * 2 * Math.PI * 4 * 1e6) / (192 * 7200), 9)
  })

  test('without a drive only the pendulum’s part is told', () => {
    expect(whereItGoes(dying(3000), PENDULUM, 2, 3600, null)).toMatchObject({
      givenMicroJ: null,
      efficiencyPercent: null,
    })
  })

  test('a repair is told from the error of two run-downs', () => {
    const at = (arc: number) => whereItGoes(dying(5000, 0.01, 7), PENDULUM, arc, 3600, WEIGHT)
    const gained = efficiencyGained(at(1.6), at(2))!
    expect(gained.percentPoints).toBeGreaterThan(8)
    expect(gained.isTold).toBe(true)
    expect(efficiencyGained(at(2), at(2))).toMatchObject({ percentPoints: 0, isTold: false })
  })
})

test('marks fall in even steps that a scale has, to about half', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.4, max: 20, noNaN: true }), fc.integer({ min: 3, max: 12 }), (from, count) => {
      const marks = runDownMarks(from, count)
      expect(marks.length).toBeGreaterThanOrEqual(3)
      const step = marks[0]! - marks[1]!
      marks.slice(1).forEach((m, i) => expect(marks[i]! - m).toBeCloseTo(step, 3))
      expect(Math.abs(marks[0]! - from)).toBeLessThan(step)
      expect(marks.at(-1)!).toBeLessThan(0.8 * from)
      expect(marks.at(-1)!).toBeGreaterThan(0)
    }),
  )
})

test('arcs of a camera become a run-down once they have fallen', () => {
  const arcs = Array.from({ length: 200 }, (_, i) => ({ atS: 1000 + i, deg: 3 * Math.exp(-i / 1000) }))
  const { beganS, readings: kept } = runDownFrom(arcs)!
  expect(kept.length).toBeLessThanOrEqual(24)
  kept.forEach((k, i) => {
    expect(k.semiArcDeg).toBeCloseTo(3 * Math.exp(-(beganS - 1000 + k.atS) / 1000), 2)
    if (i > 0) expect(k.atS).toBeGreaterThan(kept[i - 1]!.atS)
  })
  expect(runDownFrom(arcs.slice(0, 20))).toBeNull()
  expect(runDownFrom([])).toBeNull()
})

test('what it swung under power before, or until it was pushed on, is left out of its run-down', () => {
  const gauss = normal(random(4))
  const fall = (fromS: number) =>
    Array.from({ length: 120 }, (_, i) => ({ atS: fromS + i, deg: 2.5 * Math.exp(-i / 300) + 0.004 * gauss() }))
  const driven = Array.from({ length: 300 }, (_, i) => ({ atS: i, deg: 2.5 + 0.004 * gauss() }))
  for (const arcs of [fall(0), [...driven, ...fall(300)], [...fall(0), ...fall(120)]]) {
    const { beganS, readings } = runDownFrom(arcs)!
    expect(Math.abs(beganS - (arcs.at(-1)!.atS - 119))).toBeLessThanOrEqual(4)
    const [first, last] = [readings[0]!, readings.at(-1)!]
    const tauS = (last.atS - first.atS) / Math.log(first.semiArcDeg / last.semiArcDeg)
    expect(Math.abs(tauS / 300 - 1)).toBeLessThan(0.03)
  }
  expect(runDownFrom(driven)).toBeNull()
})
