import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  angleFrom,
  fitSwing,
  MarkFollower,
  suspensionAbove,
  suspensionByPath,
  suspensionByScale,
  swingInFilm,
} from '../src/index.ts'
import { normal, random } from './clockSound.ts'
import { madeFilm } from './madeFilm.ts'

const angles = (seconds: number, fps: number, deg: (t: number) => number) =>
  Array.from({ length: Math.round(seconds * fps) }, (_, i) => ({ atS: i / fps, deg: deg(i / fps) }))

describe('a swing through angles', () => {
  test('of any arc, period and middle is found exactly where nothing disturbs it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        fc.double({ min: 0.35, max: 2.2, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        (arc, period, middle, phase) => {
          const swing = fitSwing(angles(7, 29.97, (t) => middle + arc * Math.sin((2 * Math.PI * t) / period + phase)))
          expect(swing.semiArcDeg / arc).toBeCloseTo(1, 4)
          expect(swing.periodS / period).toBeCloseTo(1, 4)
          expect(swing.middleDeg).toBeCloseTo(middle, 2)
        },
      ),
      { numRuns: 25 },
    )
  })

  test('two stated errors hold arc and period about 95 times in a hundred', () => {
    let arcs = 0
    let periods = 0
    const all = 120
    for (let seed = 1; seed <= all; seed++) {
      const gauss = normal(random(seed))
      const swing = fitSwing(angles(6, 30, (t) => 3 * Math.sin((2 * Math.PI * t) / 0.93) + 0.15 * gauss()))
      if (Math.abs(swing.semiArcDeg - 3) < 2 * swing.standardError) arcs++
      if (Math.abs(swing.periodS - 0.93) < 2 * swing.periodStandardError) periods++
    }
    expect(arcs / all).toBeGreaterThan(0.89)
    expect(periods / all).toBeGreaterThan(0.89)
  })

  test('angles of something else are left out', () => {
    const swing = fitSwing(angles(6, 30, (t) => (Math.round(t * 30) % 29 === 0 ? 40 : 4 * Math.sin(2 * Math.PI * t))))
    expect(swing.semiArcDeg).toBeCloseTo(4, 2)
  })

  test('nothing that swings, or too little of it, is refused', () => {
    const gauss = normal(random(4))
    expect(() => fitSwing(angles(6, 30, () => gauss()))).toThrow('nothing in it swings')
    expect(() => fitSwing(angles(0.2, 30, () => 1))).toThrow('at least 12')
  })
})

describe('where the suspension is', () => {
  test('by the length above the mark, and by a printed scale', () => {
    expect(suspensionAbove({ x: 100, y: 300 }, 250, 0.5)).toEqual({ x: 100, y: -200 })
    // Strokes at ±5° on a circle of 400 px about (200, −150).
    const stroke = (deg: number) => ({
      x: 200 + 400 * Math.sin((deg * Math.PI) / 180),
      y: -150 + 400 * Math.cos((deg * Math.PI) / 180),
    })
    const found = suspensionByScale(stroke(-5), stroke(5), 10)
    expect(found.x).toBeCloseTo(200, 6)
    expect(found.y).toBeCloseTo(-150, 6)
    expect(angleFrom(found, stroke(3))).toBeCloseTo(3, 6)
    expect(() => suspensionByScale({ x: 0, y: 0 }, { x: 3, y: 0 }, 10)).toThrow('10 pixels')
  })

  test('by the arc that a mark moves on', () => {
    const path = Array.from({ length: 200 }, (_, i) => {
      const angle = 0.1 * Math.sin(i)
      return { x: 160 + 300 * Math.sin(angle), y: -40 + 300 * Math.cos(angle) }
    })
    const found = suspensionByPath(path)
    expect(found.radius).toBeCloseTo(300, 3)
    expect(found.suspension.x).toBeCloseTo(160, 3)
    expect(found.suspension.y).toBeCloseTo(-40, 3)
  })
})

describe('a film of a pendulum', () => {
  const small = {
    width: 200,
    height: 160,
    bobRadius: 17,
    seconds: 4,
    pivot: [100.3, -40] as [number, number],
    length: 160,
  }

  test.each([
    ['dark on light, with noise and blur', { semiArcDeg: 5, rod: 2, noise: 5, blur: 2 }],
    ['light on dark, out of plumb', { semiArcDeg: 3, rod: 2, dark: true, middleDeg: 0.8, shade: 30 }],
  ])('%s: the arc within a hundredth, the period within two errors', (_, part) => {
    const made = { ...small, ...part, periodS: 0.93 }
    const swing = swingInFilm(madeFilm(made))
    expect(swing.by).toBe('rod')
    expect(Math.abs(swing.semiArcDeg / made.semiArcDeg - 1)).toBeLessThan(0.01)
    expect(Math.abs(swing.semiArcDeg - made.semiArcDeg)).toBeLessThan(3 * swing.standardError)
    expect(Math.abs(swing.periodS - 0.93)).toBeLessThan(3 * swing.periodStandardError + 1e-4)
    expect(Math.abs(swing.middleDeg - ('middleDeg' in part ? part.middleDeg : 0))).toBeLessThan(0.3)
  })

  test('a bob alone: by where it hangs within a hundredth, by its path as far as it says', () => {
    const made = { ...small, semiArcDeg: 6 }
    const frames = madeFilm(made)
    const given = swingInFilm(frames, { suspension: { x: 100.3, y: -40 } })
    expect(given.by).toBe('suspension')
    expect(Math.abs(given.semiArcDeg / 6 - 1)).toBeLessThan(0.01)
    const path = swingInFilm(frames)
    expect(path.by).toBe('path')
    expect(Math.abs(path.semiArcDeg - 6)).toBeLessThan(2.5 * path.standardError)
  })

  test('a mark that a person points at is followed instead of what was found', () => {
    const frames = madeFilm({ ...small, semiArcDeg: 5 })
    const angle = (5 * Math.sin(2 * Math.PI * frames[40]!.atS + 0.7) * Math.PI) / 180
    const mark = {
      x: 100.3 + 160 * Math.sin(angle),
      y: -40 + 160 * Math.cos(angle),
      half: 22,
      atS: frames[40]!.atS + 0.01,
    }
    const swing = swingInFilm(frames, { mark, suspension: { x: 100.3, y: -40 } })
    expect(Math.abs(swing.semiArcDeg / 5 - 1)).toBeLessThan(0.01)
    expect(swing.framesFollowed).toBe(frames.length)
    expect(swing.path[40]!.x).toBeCloseTo(mark.x, -0.3)
  })

  test('a mark that is tapped is followed to a tenth of a pixel, and lost where it is gone', () => {
    const frames = madeFilm({ ...small, semiArcDeg: 4, noise: 2 })
    const at = (t: number) => {
      const angle = (4 * Math.sin(2 * Math.PI * t + 0.7) * Math.PI) / 180
      return { x: 100.3 + 160 * Math.sin(angle), y: -40 + 160 * Math.cos(angle) }
    }
    // A tap lies between pixels; the very place of it is followed.
    const follower = new MarkFollower(frames[0]!, at(0), 20)
    for (const frame of frames.slice(1, 60)) {
      const found = follower.next(frame)!
      const there = at(frame.atS)
      expect(Math.hypot(found.x - there.x, found.y - there.y)).toBeLessThan(0.15)
    }
    expect(follower.next({ ...frames[0]!, grey: new Uint8Array(200 * 160).fill(90), atS: 9 })).toBeNull()
  })

  test('a still picture, too few frames and frames of two sizes are refused', () => {
    const frames = madeFilm({ ...small, semiArcDeg: 0, noise: 2, seconds: 1 })
    expect(() => swingInFilm(frames)).toThrow(/swinging bob|swings/)
    expect(() => swingInFilm(frames.slice(0, 5))).toThrow('at least 12')
    expect(() => swingInFilm([...frames, { ...frames[0]!, width: 100 }])).toThrow('one size')
  })
})

describe('a slow computer that lets pictures fall', () => {
  const whole = madeFilm({ semiArcDeg: 4.4, rod: 2.5, seconds: 1.8, periodS: 0.9, fps: 30, noise: 2 })
  /** About nine pictures a second, told of late by up to some hundredths of a second. */
  const fallen = (seed: number, lateS: number) => {
    const u = random(seed)
    const gauss = normal(u)
    const frames: ReturnType<typeof madeFilm> = []
    for (let t = u(); t < 5; t += (0.4 + 1.2 * u()) / 9) {
      const at = Math.floor(30 * t)
      frames.push({ ...whole[at % whole.length]!, atS: at / 30 + lateS * Math.abs(gauss()) })
    }
    return frames.sort((a, b) => a.atS - b.atS)
  }

  test('has the same arc where they keep their times', () => {
    for (const seed of [1, 2, 3, 4]) {
      const { semiArcDeg, standardError } = swingInFilm(fallen(seed, 0))
      expect(Math.abs(semiArcDeg - 4.4)).toBeLessThan(3 * standardError)
      expect(Math.abs(semiArcDeg / 4.4 - 1)).toBeLessThan(0.02)
    }
  })

  test('is told no arc where their times are wrong, rather than a wrong one', () => {
    for (const seed of [1, 2, 3, 4, 5, 6]) expect(() => swingInFilm(fallen(seed, 0.15))).toThrow(/film/)
  })
})
