import { describe, expect, test } from 'vitest'
import { evenTilt } from '../src/beat/evenTilt.ts'
import { rockedPoints } from '../src/beat/rocked.ts'
import { hearSwings } from '../src/listen/swings.ts'
import { PowerTrack } from '../src/sound/powerTrack.ts'
import { clockSound, normal, random, type ClockSound, type MadeSound } from './clockSound.ts'
import { heard } from './hearClock.ts'

function tracked({ samples, sampleRate }: Pick<MadeSound, 'samples' | 'sampleRate'>): [Float32Array, number] {
  const track = new PowerTrack(sampleRate)
  track.push(samples)
  return [track.bins, track.binS]
}

function swings(clock: ClockSound) {
  const heardSwings = hearSwings(...tracked(clockSound(clock)), { beatsPerHour: 7200 })
  if (!Array.isArray(heardSwings)) throw new Error(heardSwings.sentence)
  return heardSwings
}

/** Exact intervals of a pendulum whose escapement stands `deg` to the right of plumb: θ = A·sin ωt, releases at ±φ + δ. */
function outMs(deg: number, arc = 5, release = 2, beatMs = 500): number {
  const side = (x: number) => (Math.asin(x / arc) * beatMs) / Math.PI
  return side(release + deg) - side(release - deg)
}

function rocked(evenAt: number, seed: number, part: { range?: number; scatterMs?: number; swings?: number } = {}) {
  const { range = 0.8, scatterMs = 0.4, swings = 40 } = part
  const u = random(seed)
  const gauss = normal(u)
  return Array.from({ length: swings }, (_, i) => {
    const tilt = range * Math.sin(i / 6)
    const knock = u() < 0.05 ? 25 : 0
    return { tiltDeg: tilt + 0.02 * gauss(), outMs: outMs(tilt - evenAt) + scatterMs * gauss() + knock }
  })
}

describe('the even tilt of a case that is rocked while it is heard', () => {
  test('is found to a few hundredths of a degree, whichever side is first, knocks left out', () => {
    let held = 0
    const all = 80
    for (let seed = 1; seed <= all; seed++) {
      const evenAt = random(seed)() - 0.5
      const points = rocked(evenAt, seed)
      const told = evenTilt(points)
      expect(Math.abs(told.evenAtDeg - evenAt)).toBeLessThan(0.08)
      if (Math.abs(told.evenAtDeg - evenAt) < 2 * told.standardError + 0.004) held++
      const mirrored = evenTilt(points.map((p) => ({ ...p, outMs: -p.outMs })))
      expect(mirrored.evenAtDeg).toBeCloseTo(told.evenAtDeg, 9)
      expect(mirrored.msPerDeg).toBeCloseTo(-told.msPerDeg, 9)
    }
    expect(held).toBeGreaterThanOrEqual(70)
  })

  test('is less sure where the even point lies outside of what was rocked through', () => {
    expect(evenTilt(rocked(1.5, 3)).standardError).toBeGreaterThan(2 * evenTilt(rocked(0, 3)).standardError)
  })

  test('is refused of a case that stood still, of too few swings, and of a beat that does not follow', () => {
    expect(() => evenTilt(rocked(0, 1, { range: 0.05 }))).toThrow('rock the case')
    expect(() => evenTilt(rocked(0, 1, { swings: 8 }))).toThrow('at least 12')
    const gauss = normal(random(5))
    const noise = Array.from({ length: 40 }, (_, i) => ({ tiltDeg: Math.sin(i), outMs: 5 * gauss() }))
    expect(() => evenTilt(noise)).toThrow('did not follow')
  })
})

describe('beats and the tilt they were made at', () => {
  const still = (s: number) => Math.max(0, s - 9)
  const tiltAt = (s: number) => 0.8 * Math.sin((2 * Math.PI * still(s)) / 9)
  const tilts = Array.from({ length: 450 }, (_, i) => ({ atS: i / 10, tiltDeg: tiltAt(i / 10) }))
  const rockedClock = (evenAt: number, seed: number) => ({
    seconds: 45,
    beatsPerHour: 7200,
    sampleRate: 22_050,
    scatterMs: 0.2,
    seed,
    rock: (s: number) => 12 * (tiltAt(s) - evenAt),
  })

  test('by sound and a sensor of ten readings a second: even where the escapement is plumb', () => {
    for (const [seed, evenAt] of [
      [1, 0.3],
      [2, -0.4],
      [3, 0],
      [4, 0.9],
    ] as const) {
      const points = rockedPoints(swings(rockedClock(evenAt, seed)), tilts, false)
      expect(points.length).toBeGreaterThan(70)
      expect(Math.abs(evenTilt(points).evenAtDeg - evenAt)).toBeLessThan(0.08)
    }
  })

  test('a clock that stays as it is is followed beat for beat, as it is heard', () => {
    const clock = { seconds: 30, beatsPerHour: 7200, sampleRate: 22_050, unevenMs: 6 }
    const one = swings(clock)
    const beats = heard(clock, { beatsPerHour: 7200 }).beats
    expect(one.length).toBeGreaterThan(beats.length - 3)
    for (const { atS } of one) expect(Math.min(...beats.map((b) => Math.abs(b.atS - atS)))).toBeLessThan(5e-4)
  })

  test('nothing is told of noise, of too short a stillness, or of a clock that ticks once a period', () => {
    const gauss = normal(random(2))
    const noise = { samples: Float32Array.from({ length: 20 * 22_050 }, () => 0.02 * gauss()), sampleRate: 22_050 }
    expect(hearSwings(...tracked(noise))).toMatchObject({ heard: false, reason: 'no-clock' })
    expect(hearSwings(...tracked(clockSound({ seconds: 5 })))).toMatchObject({ heard: false, reason: 'too-short' })
    expect(hearSwings(...tracked(clockSound({ seconds: 12 })), { ticks: 'once a period' })).toMatchObject({
      sentence: expect.stringContaining('once a period') as string,
    })
  })

  test('a sensor that went silent tells nothing, a level that was typed stands', () => {
    const beats = [0, 1, 2, 3].map((index) => ({ index, atS: 10 + index }))
    expect(rockedPoints(beats, [{ atS: 2, tiltDeg: 1 }], false)).toEqual([])
    expect(rockedPoints(beats, [{ atS: 2, tiltDeg: 1 }], true)).toEqual([
      { tiltDeg: 1, outMs: 0 },
      { tiltDeg: 1, outMs: -0 },
    ])
    expect(rockedPoints(beats, [{ atS: 20, tiltDeg: 1 }], true)).toEqual([])
  })

  test('a beat with a neighbour missing is left out', () => {
    const beats = [0, 1, 3, 4, 5].map((index) => ({ index, atS: index }))
    expect(rockedPoints(beats, [{ atS: -1, tiltDeg: 0 }], true)).toHaveLength(1)
  })
})
