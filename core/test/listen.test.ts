import { describe, expect, test } from 'vitest'
import {
  hear,
  hearWav,
  encodeWav,
  nearestUsualCount,
  PowerTrack,
  type Hearing,
  type ListenOptions,
  type NothingHeard,
} from '../src/index.ts'
import { clockSound, random, type ClockSound, type MadeSound } from './clockSound.ts'

function listen(sound: MadeSound, options: ListenOptions = {}): Hearing | NothingHeard {
  const track = new PowerTrack(sound.sampleRate)
  // In uneven blocks, as a microphone gives them.
  for (let at = 0, n = 0; at < sound.samples.length; n++) {
    const length = 700 + ((n * 577) % 4001)
    track.push(sound.samples.subarray(at, at + length))
    at += length
  }
  return hear(track.bins, track.binS, options)
}

function heard(clock: ClockSound, options: ListenOptions = {}): Hearing {
  const result = listen(clockSound(clock), options)
  if (!result.heard) throw new Error(result.sentence)
  return result
}

/** How far off a hearing is: beat in ms, rate in s/day against what the clock really did. */
function errors(clock: ClockSound, result: Hearing) {
  const beats = (clock.beatsPerHour ?? 7200) * (1 + (clock.rateSecondsPerDay ?? 0) / 86_400)
  return {
    beatMs: Math.abs(result.outOfBeatMs - Math.abs(clock.unevenMs ?? 0)),
    rate: Math.abs(86_400 * (result.beatsPerHour / beats - 1)),
  }
}

describe('a minute of clean sound', () => {
  // What the craft asks: beat within 0.3 ms, rate within 0.6 s a day, beats an hour within 3 in 100,000, unaided.
  test.each([2400, 3600, 4800, 5400, 7200, 9000, 10_800, 14_400, 18_000])(
    '%d beats an hour, a little off',
    (beatsPerHour) => {
      const clock = { beatsPerHour, rateSecondsPerDay: 37, unevenMs: 9, seed: beatsPerHour }
      const result = heard(clock)
      expect(errors(clock, result).beatMs).toBeLessThan(0.3)
      expect(errors(clock, result).rate).toBeLessThan(0.6)
      expect(result.nominalBeatsPerHour).toBe(beatsPerHour)
      expect(result.beatsHeard / result.beatsExpected).toBeGreaterThan(0.95)
      expect(result.scatterMs).toBeGreaterThan(0.1)
      expect(result.scatterMs).toBeLessThan(0.22)
    },
  )

  test.each([2400, 3600, 7200, 18_000])('a split of 70 to 30 at %d is neither halved nor doubled', (beatsPerHour) => {
    const clock = { beatsPerHour, unevenMs: (0.4 * 3.6e6) / beatsPerHour, seed: 5 }
    const result = heard(clock)
    expect(result.nominalBeatsPerHour).toBe(beatsPerHour)
    expect(result.splitPercent).toBeCloseTo(70, 1)
  })

  test.each([8000, 11_025, 22_050, 96_000, 192_000])('at %d samples a second', (sampleRate) => {
    const clock = { sampleRate, unevenMs: 5, seconds: 30, seed: 9 }
    expect(errors(clock, heard(clock)).beatMs).toBeLessThan(0.3)
  })
})

describe('rooms and recorders', () => {
  const cases: [string, ClockSound][] = [
    ['ticks 10 dB apart', { loudness: [0.3, 0.095] }],
    ['ticks 10 dB apart, the other way', { loudness: [0.095, 0.3] }],
    ['sides of different colour', { colourHz: [1300, 5200] }],
    ['a short ring and a long one', { ringMs: [5, 50] }],
    ['mains hum at 50 Hz', { hum: 0.3, humHz: 50 }],
    ['mains hum at 60 Hz', { hum: 0.3, humHz: 60 }],
    ['knocks and voices', { knocks: 40, voice: 60 }],
    ['its own strike', { strike: 8 }],
    ['a loud unlocking 8 ms before', { unlocking: 0.5, unlockingMs: 8 }],
    ['a loud unlocking 5 ms before', { unlocking: 0.4, unlockingMs: 5 }],
    ['direct current and clipping', { direct: 0.15, clipAt: 0.3 }],
    ['noise 14 dB below the ticks', { noise: 0.06 }],
    ['noise 8 dB below the ticks', { noise: 0.12 }],
  ]
  test.each(cases)('%s', (_name, room) => {
    const clock = { unevenMs: 20, rateSecondsPerDay: -11, seed: 4, ...room }
    const result = heard(clock)
    expect(result.nominalBeatsPerHour).toBe(7200)
    expect(errors(clock, result).beatMs).toBeLessThan(0.3)
    expect(errors(clock, result).rate).toBeLessThan(0.6)
  })

  test('slips of the recorder are bridged, counted, and kept out of beat and rate', () => {
    for (const beatsPerHour of [3600, 7200, 18_000]) {
      const clock = {
        beatsPerHour,
        unevenMs: 5,
        seed: 8,
        slips: [
          { atS: 13, ms: 10 },
          { atS: 31, ms: -20 },
          { atS: 46, ms: 10 },
        ],
      }
      const result = heard(clock)
      expect(result.slips).toBe(3)
      expect(result.slipsFound.map((s) => Math.round(s.stepMs))).toEqual([10, -20, 10])
      expect(errors(clock, result).beatMs).toBeLessThan(0.3)
      expect(errors(clock, result).rate).toBeLessThan(2 * result.rateStandardError + 0.3)
    }
  })

  test('a clean recording has no slips, also where the clock scatters by a millisecond', () => {
    expect(heard({ scatterMs: 1, seed: 2 }).slips).toBe(0)
  })
})

describe('bent teeth', () => {
  const clock = { unevenMs: 5, seed: 6, bent: { teeth: 30, late: { 4: 5, 5: -3, 17: 6 } } }

  test('split and rate are those of the healthy beats', () => {
    const result = heard(clock)
    expect(errors(clock, result).beatMs).toBeLessThan(0.3)
    expect(errors(clock, result).rate).toBeLessThan(0.6)
    expect(result.slips).toBe(0)
  })

  test('three in a row are no slip of the recorder', () => {
    expect(heard({ ...clock, bent: { teeth: 15, late: { 4: 5, 5: 7, 6: 6 } } }).slips).toBe(0)
  })

  test('are named, tooth by tooth, with how late they are', () => {
    const { teeth } = heard(clock, { teeth: 30 })
    const bent = teeth!.filter((t) => t.bent)
    expect(bent).toHaveLength(6)
    const first = bent.filter((t) => t.pallet === bent[0]!.pallet)
    expect(first.map((t) => Math.round(t.lateMs)).sort((a, b) => a - b)).toEqual([-3, 5, 6])
    // Tooth numbers begin with the first beat heard, so only their distances are the wheel's: 4, 5 and 17.
    const [a, b, c] = [5, -3, 6].map((late) => first.find((t) => Math.round(t.lateMs) === late)!.tooth)
    expect([(b! - a! + 30) % 30, (c! - a! + 30) % 30]).toEqual([1, 13])
  })
})

describe('stated errors', () => {
  test('the truth lies within two of them about 95 times in a hundred, over clocks of every kind', () => {
    const runs = 70
    let beat = 0
    let rate = 0
    for (let seed = 1; seed <= runs; seed++) {
      const u = random(seed * 31 + 5)
      const clock: ClockSound = {
        colourHz: [1500 + 3000 * u(), 1500 + 3000 * u()],
        ringMs: [5 + 12 * u(), 5 + 12 * u()],
        noise: 0.001 + 0.006 * u(),
        scatterMs: 0.05 + 0.3 * u(),
        unlocking: 0.1 + 0.2 * u(),
        beatsPerHour: [3600, 5400, 7200, 9000][Math.floor(4 * u())]!,
        unevenMs: 30 * (u() - 0.5),
        seconds: 20,
        sampleRate: 32_000,
        seed,
      }
      const result = heard(clock)
      const off = errors(clock, result)
      if (off.beatMs < 2 * result.outOfBeatStandardError) beat++
      if (off.rate < 2 * result.rateStandardError) rate++
    }
    // Binomial: 95 % of 70 is 66.5 ± 1.8; 61 is three standard deviations below.
    expect(beat).toBeGreaterThanOrEqual(61)
    expect(rate).toBeGreaterThanOrEqual(61)
  })

  test('the recorder’s own clock comes off by its calibration', () => {
    const clock = { rateSecondsPerDay: 0, seed: 3, seconds: 30 }
    const [plain, corrected] = [heard(clock), heard(clock, { ppm: 50 })]
    // A recorder 50 ppm fast makes a clock look 4.32 s a day slow.
    expect(corrected.rateSecondsPerDay - plain.rateSecondsPerDay).toBeCloseTo(4.32, 2)
  })
})

describe('the first verdict', () => {
  test.each([3600, 7200, 18_000])('comes within six seconds at %d', (beatsPerHour) => {
    const clock = { beatsPerHour, seconds: 6, unevenMs: 15, seed: 21 }
    const result = heard(clock)
    expect(result.nominalBeatsPerHour).toBe(beatsPerHour)
    expect(errors(clock, result).beatMs).toBeLessThan(Math.max(0.5, 3 * result.outOfBeatStandardError))
  })
})

describe('what is no clock', () => {
  const none = { loudness: [0, 0] as [number, number] }
  const cases: [string, ClockSound, NothingHeard['reason']][] = [
    ['noise', { ...none, noise: 0.1 }, 'no-clock'],
    ['silence', { ...none, noise: 0 }, 'silence'],
    ['hum alone', { ...none, noise: 0.0001, hum: 0.3 }, 'no-clock'],
    ['voices', { ...none, noise: 0.003, voice: 100 }, 'no-clock'],
    ['knocks', { ...none, noise: 0.003, knocks: 60 }, 'no-clock'],
    ['a few knocks', { ...none, noise: 0.003, knocks: 8, seconds: 6 }, 'no-clock'],
    ['two seconds of clock', { seconds: 2 }, 'too-short'],
  ]
  test.each(cases)('%s is refused in one sentence', (_name, clock, reason) => {
    for (const seed of [1, 2, 3]) {
      const result = listen(clockSound({ ...clock, seed }))
      expect(result).toMatchObject({ heard: false, reason })
      expect(result).toHaveProperty('sentence', expect.stringMatching(/^[^\n]+\.$/))
    }
  })
})

test('a file cut short is used as far as it goes, and says so', () => {
  const sound = clockSound({ seconds: 20, unevenMs: 5, seed: 12 })
  const whole = encodeWav(sound.samples, sound.sampleRate)
  const { result, remark } = hearWav(whole.slice(0, Math.round(whole.length * 0.7)))
  expect(result).toMatchObject({ heard: true, nominalBeatsPerHour: 7200 })
  expect(remark).toMatch(/cut short: 14\.0 s .* 6\.0 s are missing/)
})

test('the usual count is the nearest by ratio', () => {
  expect(nearestUsualCount(7196.5)).toBe(7200)
  expect(nearestUsualCount(3612)).toBe(3600)
  expect(nearestUsualCount(17_500)).toBe(18_000)
})
