import { describe, expect, test } from 'vitest'
import type { NothingHeard } from '../src/index.ts'
import { clockSound, type ClockSound } from './clockSound.ts'
import { errors, heard, listen } from './hearClock.ts'

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
