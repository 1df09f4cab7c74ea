import { describe, expect, test } from 'vitest'
import { hear, PowerTrack, whatWasGap, type Hearing } from '../src/index.ts'
import { clockSound, type ClockSound } from './clockSound.ts'
import { errors, heard, listen } from './hearClock.ts'
import { madeRoom } from './madeRooms.ts'

describe('rooms of every kind: several knocks of changing loudness, echoes, other clocks, voices', () => {
  const rooms = Array.from({ length: 72 }, (_, i) => madeRoom(3000 + i, 25))
  const results = rooms.map((room) => ({
    room,
    result: listen(clockSound(room.clock), { beatsPerHour: room.beatsPerHour }),
  }))
  const told = results.flatMap(({ room, result }) => (result.heard ? [{ room, result }] : []))

  test('with its count given, what is heard is within two in a hundred of it, and nearly every clock is heard', () => {
    for (const { room, result } of told)
      expect(Math.abs(result.beatsPerHour / room.beatsPerHour - 1)).toBeLessThan(0.02)
    expect(told.length).toBeGreaterThanOrEqual(68)
  })

  test('two stated errors hold the truth about 95 times in a hundred, and the median error stays small', () => {
    const off = told.map(({ room, result }) => ({ ...errors(room.clock, result), result }))
    const share = (within: (o: (typeof off)[number]) => boolean) => off.filter(within).length / off.length
    // Binomial over 72: one standard deviation is 0.026.
    expect(share((o) => o.beatMs < 2 * o.result.outOfBeatStandardError)).toBeGreaterThan(0.89)
    expect(share((o) => o.rate < 2 * o.result.rateStandardError)).toBeGreaterThan(0.87)
    const middle = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!
    expect(middle(off.map((o) => o.beatMs))).toBeLessThan(0.1)
    expect(middle(off.map((o) => o.result.outOfBeatStandardError))).toBeLessThan(0.15)
  })
})

describe('a count that is given', () => {
  test('is meant: another clock is named by its own count and not taken for it', () => {
    const result = listen(clockSound({ beatsPerHour: 8400, seconds: 20 }), { beatsPerHour: 7200 })
    expect(result).toMatchObject({
      heard: false,
      reason: 'another-rhythm',
      sentence: 'The clock of 7,200 beats an hour is not heard here; something beats 8,400 times an hour.',
    })
    expect(result.heard ? 0 : result.insteadBeatsPerHour).toBeCloseTo(8400, 0)
  })

  test('of every third beat of a faster clock is not that clock', () => {
    const result = listen(clockSound({ beatsPerHour: 10_800, seconds: 20, unevenMs: 4 }), { beatsPerHour: 3600 })
    expect(result).toMatchObject({ heard: false, reason: 'another-rhythm' })
  })

  const two: ClockSound = {
    beatsPerHour: 3600,
    rateSecondsPerDay: 20,
    seconds: 30,
    second: { beatsPerHour: 18_000, loudness: [0.1, 0.08], seed: 4 },
  }
  test('finds the fainter of two clocks; without it the louder wins over the faster', () => {
    expect(heard(two, { beatsPerHour: 18_000 }).beatsPerHour).toBeCloseTo(18_000, 0)
    expect(heard(two).beatsPerHour).toBeCloseTo(3600.83, 1)
  })
})

describe('what one may doubt', () => {
  test('a tap that drips evenly is not called a clock without a remark', () => {
    const drop: ClockSound = {
      unevenMs: 0,
      loudness: [0.3, 0.3],
      colourHz: [2000, 2000],
      ringMs: [10, 10],
      unlocking: 0,
      seconds: 40,
    }
    expect(heard({ ...drop, beatsPerHour: 5100, scatterMs: 1 }).doubts.join(' ')).toMatch(
      /no usual count.*tap that drips/,
    )
    expect(heard({ ...drop, beatsPerHour: 3600, scatterMs: 3 }).doubts.join(' ')).toMatch(/scatter by 3\.\d ms/)
  })

  test('an ordinary clock raises none', () => {
    expect(heard({ unevenMs: 6, seconds: 20 }).doubts).toEqual([])
  })
})

test('with a third of the beats missing no figure is shown', () => {
  const sound = clockSound({ seconds: 40, unevenMs: 5, knocks: 0 })
  // Four seconds in ten are silenced, as a busy computer would.
  for (let at = 0; at < 40; at += 10) sound.samples.fill(0, at * sound.sampleRate, (at + 4) * sound.sampleRate)
  expect(listen(sound, { beatsPerHour: 7200 })).toMatchObject({ heard: false, reason: 'too-few-beats' })
})

describe('a stretch that the stamps call lost', () => {
  const sound = clockSound({ seconds: 30, unevenMs: 6, beatsPerHour: 8400 })
  const track = new PowerTrack(sound.sampleRate)
  track.push(sound.samples)
  const { bins, binS } = track
  const gapS = 0.13
  const silence = new Float32Array(Math.round(gapS / binS))
  const at = Math.round(14 / binS)
  const joined = (...parts: Float32Array[]) => Float32Array.from(parts.flatMap((p) => [...p]))

  test('is lost where the beats go on in time after it', () => {
    const lost = joined(bins.subarray(0, at), silence, bins.subarray(at + silence.length))
    expect(whatWasGap(lost, binS, 14, gapS)).toBe('lost')
  })

  test('went on where the beats follow as if nothing had been lost', () => {
    const jumped = joined(bins.subarray(0, at), silence, bins.subarray(at))
    expect(whatWasGap(jumped, binS, 14, gapS)).toBe('went on')
    track.push(new Float32Array(0))
    const cut = new PowerTrack(sound.sampleRate)
    cut.push(sound.samples.subarray(0, 14 * sound.sampleRate))
    cut.push(new Float32Array(Math.round(gapS * sound.sampleRate)))
    cut.push(sound.samples.subarray(14 * sound.sampleRate))
    cut.cut(14, gapS)
    const whole = hear(cut.bins, cut.binS) as Hearing
    expect(whole).toMatchObject({ heard: true, slips: 0 })
    expect(whole.outOfBeatMs).toBeCloseTo(6, 0)
  })

  test('is not told where there is too little sound to tell', () => {
    expect(whatWasGap(bins.subarray(0, Math.round(2 / binS)), binS, 1, gapS)).toBe('not told')
  })
})
