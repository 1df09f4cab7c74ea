import { describe, expect, test } from 'vitest'
import { encodeWav, hearWav, nearestUsualCount } from '../src/index.ts'
import { clockSound, random, type ClockSound } from './clockSound.ts'
import { errors, heard } from './hearClock.ts'

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
