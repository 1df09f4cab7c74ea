import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { bestFit } from '../src/listen/bestFit.ts'
import type { BeatFit } from '../src/listen/fit.ts'
import { AFTER_S, amplitudeTrack, BEFORE_S, shapeAt, soundAlike } from '../src/listen/shape.ts'
import { soundOfSides } from '../src/listen/sideSound.ts'
import { seededRandom } from '../src/practice/random.ts'
import { beatsOnCourse } from '../src/watch/presence.ts'

const BIN_S = 2e-4

/** The loudness of one knock, that rises in half a millisecond and dies away in `decayMs`; t in s from its beginning. */
function knock(t: number, decayMs = 4): number {
  return t < 0 ? 0 : (1 - Math.exp(-t / 2e-4)) * Math.exp(-t / (decayMs / 1000))
}

/** Knocks at these moments, s, over a low noise; each so loud. */
function knocks(
  seconds: number,
  at: { s: number; loud?: number; decayMs?: number }[],
  { noise = 0, seed = 1 } = {},
): Float32Array {
  const random = seededRandom(seed)
  return Float32Array.from({ length: Math.round(seconds / BIN_S) }, (_, i) => {
    const t = i * BIN_S
    const heard = at.reduce((sum, k) => {
      const since = t - k.s
      return since < 0 || since > 0.08 ? sum : sum + (k.loud ?? 1) * knock(since, k.decayMs)
    }, 0)
    return heard + noise * Math.abs(random.normal())
  })
}

describe('loudness over time', () => {
  test('is the root of the mean power over its window, at every bin', () => {
    fc.assert(
      fc.property(fc.array(fc.float({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 60 }), (values) => {
        const power = Float32Array.from(values)
        const half = Math.max(1, Math.round(2e-4 / BIN_S))
        const track = amplitudeTrack(power, BIN_S)
        expect(track.length).toBe(power.length)
        track.forEach((found, i) => {
          let sum = 0
          for (let k = i - half; k <= i + half; k++) sum += power[k] ?? 0
          // A running sum in single figures keeps about seven digits of the greatest that went through it.
          expect(found ** 2).toBeCloseTo(sum / (2 * half + 1), 5)
        })
      }),
    )
  })
})

describe('the shape of a side', () => {
  const at = Array.from({ length: 41 }, (_, i) => 0.1 + 0.25 * i)
  const marks = at.map((s) => s / BIN_S)

  test('has no mean, and the length of one', () => {
    const { template } = shapeAt(
      knocks(
        11,
        at.map((s) => ({ s })),
      ),
      BIN_S,
      marks,
    )
    expect(template.length).toBe(Math.round(BEFORE_S / BIN_S) + Math.round(AFTER_S / BIN_S))
    expect(template.reduce((a, b) => a + b, 0)).toBeCloseTo(0, 9)
    expect(Math.hypot(...template)).toBeCloseTo(1, 9)
  })

  test('a knock in the room in fewer than half of the beats leaves no trace', () => {
    const clean = knocks(
      11,
      at.map((s) => ({ s })),
    )
    const spoilt = knocks(11, [
      ...at.map((s) => ({ s })),
      ...at.filter((_, i) => i % 5 < 2).map((s) => ({ s: s + 0.007, loud: 30 })),
    ])
    const [a, b] = [clean, spoilt].map((sound) => shapeAt(sound, BIN_S, marks))
    const likeness = a!.template.reduce((sum, v, i) => sum + v * b!.template[i]!, 0)
    expect(likeness).toBeGreaterThan(0.999)
    expect(b!.amplitude).toBeCloseTo(a!.amplitude, 6)
  })

  test('its reference stands on the rise, wherever the marks were set', () => {
    const sound = knocks(
      11,
      at.map((s) => ({ s })),
    )
    const [early, on, late] = [-4, 0, 3].map((off) =>
      shapeAt(
        sound,
        BIN_S,
        marks.map((m) => m + off),
      ),
    )
    expect(early!.referenceS - 4 * BIN_S).toBeCloseTo(on!.referenceS, 5)
    expect(late!.referenceS + 3 * BIN_S).toBeCloseTo(on!.referenceS, 5)
    expect(on!.referenceS).toBeGreaterThan(-5e-4)
    expect(on!.referenceS).toBeLessThan(5e-4)
  })

  test('is alike whatever of the room is in it, and another where it dies away otherwise or is 3 dB louder', () => {
    const shape = (loud: number, decayMs: number, seed: number) =>
      shapeAt(
        knocks(
          11,
          at.map((s) => ({ s, loud, decayMs })),
          { noise: 0.01, seed },
        ),
        BIN_S,
        marks,
      )
    const one = shape(1, 4, 1)
    expect(soundAlike(one, shape(1, 4, 2))).toBe(true)
    expect(soundAlike(one, shape(1.1, 4, 3))).toBe(true)
    expect(soundAlike(one, shape(1.41, 4, 4))).toBe(false)
    expect(soundAlike(one, shape(1, 12, 5))).toBe(false)
  })
})

describe('where a sound is most like the shape', () => {
  const learnt = Array.from({ length: 21 }, (_, i) => 0.1 + 0.25 * i)
  const shape = shapeAt(
    knocks(
      6,
      learnt.map((s) => ({ s })),
    ),
    BIN_S,
    learnt.map((s) => s / BIN_S),
  )

  test('to a tenth of a bin, anywhere within reach, under noise', () => {
    fc.assert(
      fc.property(fc.double({ min: -60, max: 60, noNaN: true }), fc.integer({ min: 1, max: 1000 }), (off, seed) => {
        const middle = 500
        const sound = knocks(0.2, [{ s: (middle + off) * BIN_S }], { noise: 0.003, seed })
        const found = bestFit(sound, shape, middle, 80, BIN_S)
        expect(Math.abs(found.mark - (middle + off))).toBeLessThan(0.25)
        expect(found.likeness).toBeGreaterThan(0.97)
      }),
      { numRuns: 60 },
    )
  })

  test('a soft unlocking before it does not win by its shape', () => {
    const sound = knocks(0.2, [{ s: 0.094, loud: 0.15 }, { s: 0.1 }])
    expect(bestFit(sound, shape, 485, 40, BIN_S).mark).toBeCloseTo(500, 0)
  })

  test('silence is like nothing', () => {
    const found = bestFit(new Float32Array(1000), shape, 500, 40, BIN_S)
    expect(found.likeness).toBeLessThanOrEqual(0)
    expect(found.amplitude).toBe(0)
  })
})

describe('how both sides sound', () => {
  const BEAT_S = 0.5
  const beats = Array.from({ length: 60 }, (_, i) => ({ index: i, atS: 0.3 + i * BEAT_S, likeness: 1 }))
  const fit: BeatFit = {
    ...{ beatS: BEAT_S, beatStandardErrorS: 0, unevenS: 0, unevenStandardErrorS: 0, scatterS: 0 },
    ...{ lateS: beats.map(() => 0), healthy: beats.map(() => true) },
  }
  const sound = (loudSecond: number, extra: { s: number; loud?: number }[] = []) =>
    knocks(
      31,
      [...beats.map(({ index, atS }) => ({ s: atS, loud: index % 2 === 0 ? 0.4 : 0.4 * loudSecond })), ...extra],
      { noise: 1e-4 },
    )

  test.each([1, 0.5, 0.25])('the second side at %f of the first is so many dB under it', (share) => {
    const [first, second] = soundOfSides(sound(share), BIN_S, beats, fit)
    expect(first.loudnessDb - second.loudnessDb).toBeCloseTo(-20 * Math.log10(share), 1)
    expect(Math.max(...first.shape)).toBe(1)
  })

  test('an unlocking and a crutch that knocks are told by their distance from the drop, on their own side', () => {
    const extra = beats.flatMap(({ index, atS }) =>
      index % 2 === 0
        ? [
            { s: atS - 0.008, loud: 0.1 },
            { s: atS + 0.01, loud: 0.2 },
          ]
        : [],
    )
    const [first, second] = soundOfSides(sound(1, extra), BIN_S, beats, fit)
    expect(first.knocks.map((k) => Math.round(k.ms))).toEqual([-8, 0, 10])
    expect(second.knocks.map((k) => Math.round(k.ms))).toEqual([0])
  })

  test('what is louder only in a few beats is no part of it', () => {
    const few = beats.filter((b) => b.index % 10 === 0).map(({ atS }) => ({ s: atS + 0.006, loud: 2 }))
    const [plain] = soundOfSides(sound(1), BIN_S, beats, fit)
    const [spoilt] = soundOfSides(sound(1, few), BIN_S, beats, fit)
    expect(spoilt.loudnessDb).toBeCloseTo(plain.loudnessDb, 1)
    expect(spoilt.knocks.length).toBe(plain.knocks.length)
  })
})

describe('whether a clock kept its course', () => {
  const course = { atS: 0.25, beatS: 0.5, unevenS: 0.03 }
  const due = (n: number) => course.atS + n * course.beatS + (Math.abs(n % 2) === 1 ? course.unevenS : 0)
  const bins = (at: number[], seconds: number) => {
    const sound = knocks(
      seconds,
      at.map((s) => ({ s })),
      { noise: 0.003, seed: 5 },
    )
    return sound.map((a) => a * a)
  }

  test('each beat that was struck, however long after it was last heard well', () => {
    const at = Array.from({ length: 40 }, (_, n) => due(n + 7200))
    const heard = beatsOnCourse(
      bins(
        at.map((s) => s - 3600),
        20,
      ),
      BIN_S,
      3600,
      course,
    )
    // The first is too near the beginning to have a background to stand out of.
    expect(heard.length).toBeGreaterThanOrEqual(38)
    for (const s of heard) expect(at.some((a) => Math.abs(a - s) < 1e-6)).toBe(true)
  })

  test('none after it stopped', () => {
    const at = Array.from({ length: 20 }, (_, n) => due(n))
    const heard = beatsOnCourse(bins(at, 30), BIN_S, 0, course)
    expect(heard.length).toBeGreaterThanOrEqual(18)
    expect(Math.max(...heard)).toBeLessThanOrEqual(due(19) + 1e-6)
  })

  test('single knocks in time are chance, and knocks at another beat are another clock', () => {
    expect(beatsOnCourse(bins([due(6), due(19), due(33)], 20), BIN_S, 0, course)).toEqual([])
    const other = Array.from({ length: 45 }, (_, n) => 0.1 + 0.433 * n)
    expect(beatsOnCourse(bins(other, 20), BIN_S, 0, course).length).toBeLessThan(4)
  })
})
