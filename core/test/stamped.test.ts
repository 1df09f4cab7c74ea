import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { hear, PowerTrack, StampedSound } from '../src/index.ts'
import { clockSound } from './clockSound.ts'

const RATE = 44_100
const FRAMES = 441
const BLOCK_S = FRAMES / RATE

/** Numbered samples, so that each can be told from all others. */
const sent = (blocks: number) => Float32Array.from({ length: blocks * FRAMES }, (_, i) => i + 1)

/** What comes out of blocks that were caught at their time, stamped so much late, some fallen. */
function received(sound: Float32Array, lateMs: (block: number) => number, fell: (block: number) => boolean) {
  const out: number[] = []
  const lost: { atS: number; seconds: number }[] = []
  const stamped = new StampedSound(RATE, {
    sound: (samples) => samples.forEach((v) => out.push(v)),
    lost: (seconds) => {
      lost.push({ atS: out.length / RATE, seconds })
      for (let i = Math.round(seconds * RATE); i > 0; i--) out.push(0)
    },
  })
  for (let n = 0; n * FRAMES < sound.length; n++)
    if (!fell(n)) stamped.push(sound.slice(n * FRAMES, (n + 1) * FRAMES), 1000 + n * BLOCK_S + lateMs(n) / 1000)
  return { out, lost }
}

describe('blocks by their stamps', () => {
  test('late stamps alone put nothing in and lose nothing', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 40 }), { minLength: 30, maxLength: 120 }), (late) => {
        const sound = sent(late.length)
        // Every tenth block is punctual: a computer catches up within a tenth of a second.
        const { out, lost } = received(
          sound,
          (n) => (n % 10 === 0 ? 0 : (late[n] ?? 0)),
          () => false,
        )
        expect(lost).toEqual([])
        expect(out.every((v, i) => v === sound[i])).toBe(true)
        // The last may still wait for what follows.
        expect(out.length).toBeGreaterThanOrEqual(sound.length - 11 * FRAMES)
      }),
    )
  })

  test('after blocks that fell, later sound stands where it stood, to within the jitter', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 9 }), { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 1, max: 30 }),
        fc.array(fc.double({ min: 0, max: 4, noNaN: true }), { minLength: 700, maxLength: 700 }),
        (places, length, late) => {
          const fell = (n: number) => places.some((p) => n >= 50 + 60 * p && n < 50 + 60 * p + length)
          const sound = sent(700)
          const { out, lost } = received(sound, (n) => late[n]!, fell)
          expect(lost).toHaveLength(places.length)
          for (const { seconds } of lost) expect(Math.abs(seconds - length * BLOCK_S)).toBeLessThan(0.0041)
          for (let i = 0; i < out.length; i += 97)
            if (out[i] !== 0) expect(Math.abs(out[i]! - 1 - i)).toBeLessThan(places.length * 0.0041 * RATE)
        },
      ),
      { numRuns: 40 },
    )
  })

  test('two clocks that drift apart by a tenth of a second lose nothing', () => {
    const { lost } = received(
      sent(6000),
      (n) => n * BLOCK_S * 1000 * 0.0017,
      () => false,
    )
    expect(lost).toEqual([])
  })

  test('a night asleep counts as a minute at most', () => {
    const { lost } = received(
      sent(400),
      (n) => (n < 100 ? 0 : 8 * 3_600_000),
      () => false,
    )
    expect(lost.map((l) => l.seconds)).toEqual([60])
  })
})

describe('what is lost', () => {
  const clock = clockSound({ sampleRate: RATE, seconds: 40, beatsPerHour: 7200, unevenMs: 21, seed: 4 })
  const fellAt = (n: number) => n % 500 < 12
  const listened = () => {
    const track = new PowerTrack(RATE)
    let lostS = 0
    const stamped = new StampedSound(RATE, {
      sound: (samples) => track.push(samples),
      lost: (seconds) => {
        lostS += seconds
        track.push(new Float32Array(Math.round(seconds * RATE)))
      },
    })
    for (let n = 0; n < 4000; n++)
      if (!fellAt(n)) stamped.push(clock.samples.slice(n * FRAMES, (n + 1) * FRAMES), n * BLOCK_S + (n % 3) * 0.004)
    return { track, lostS }
  }

  test('does not move the beat or the rate', () => {
    const { track, lostS } = listened()
    expect(lostS).toBeCloseTo(7 * 12 * BLOCK_S, 1)
    const result = hear(track.bins, track.binS, { lostS })
    if (!result.heard) throw new Error(result.sentence)
    expect(Math.abs(result.outOfBeatMs - 21)).toBeLessThan(0.3)
    expect(Math.abs(result.rateSecondsPerDay)).toBeLessThan(3 * result.rateStandardError + 0.6)
  })

  test('is said instead of a verdict when it is much', () => {
    const { track } = listened()
    const result = hear(track.bins, track.binS, { lostS: 9.2 })
    expect(result).toMatchObject({ heard: false, reason: 'lost' })
    expect(!result.heard && result.sentence).toMatch(/9\.2 of \d+ s were lost/)
  })
})
