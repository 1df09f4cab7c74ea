import { describe, expect, test } from 'vitest'
import { errorByStrike, strikings, timeOfStrike, type HeardBlow } from '../src/index.ts'
import { groupsIn, hearStrikes, madeStrike, STRIKE_RATE as FS } from './madeStrikes.ts'
import { strikeSound } from './strikeSound.ts'

describe('strikes over the ticking', () => {
  test('bells, gongs and rods, 1 to 12, in rooms that echo and knock: nearly all counted right', () => {
    let right = 0
    const wrong: string[] = []
    const all = 48
    for (let seed = 401; seed < 401 + all; seed++) {
      const { sound, on, blows, firstS } = madeStrike(seed)
      const groups = hearStrikes(sound)
      if (groups.length === 1 && groups[0]!.blows === blows) {
        right++
        expect(Math.abs(groups[0]!.atS - firstS)).toBeLessThan(0.12)
      } else wrong.push(`${seed} ${on} ${blows}: ${groups.map((g) => g.blows).join(' ')}`)
    }
    expect(wrong.length, wrong.join('; ')).toBeLessThanOrEqual(2)
    expect(right).toBeGreaterThanOrEqual(all - 2)
  })

  test('the intervals are those between the blows', () => {
    const [group] = hearStrikes({ on: 'bell', blowsS: [4, 5.5, 7.1, 8.5], clock: { sampleRate: FS, seconds: 14 } })
    expect(group!.intervalsS.map((s) => Number(s.toFixed(1)))).toEqual([1.5, 1.6, 1.4])
  })

  test('a recording that ends in a tick, or in the middle of a ringing, has no more blows than were struck', () => {
    for (const seconds of [8.02, 8.1, 8.5, 9.03, 9.5]) {
      const made = {
        on: 'gong' as const,
        blowsS: [3, 4.6, 6.2],
        clock: { sampleRate: FS, seconds, beatsPerHour: 7200 },
      }
      expect(hearStrikes(made).map((g) => g.blows)).toEqual([3])
    }
  })

  test('the hour and its half are two strikings', () => {
    const groups = hearStrikes({
      on: 'gong',
      blowsS: [3, 4.6, 6.2, 20],
      clock: { sampleRate: FS, seconds: 27, beatsPerHour: 4800 },
    })
    expect(groups.map((g) => g.blows)).toEqual([3, 1])
    expect(groups[1]!.atS).toBeCloseTo(20, 1)
  })

  test('a quarter’s notes are one sequence, the hour after it another', () => {
    const quarter = [3, 3.7, 4.4, 5.1]
    const hour = [8.6, 10.2, 11.8]
    const groups = hearStrikes({
      on: 'rods',
      blowsS: [...quarter, ...hour],
      notes: [1, 0.89, 0.79, 0.6, 0.45, 0.45, 0.45],
      clock: { sampleRate: FS, seconds: 17 },
    })
    expect(groups.map((g) => g.blows)).toEqual([4, 3])
  })

  test('no strike, no group: a clock alone, with knocks and a voice, and after a recorder that gave nothing', () => {
    for (const seed of [1, 2, 3]) {
      const { samples } = strikeSound({
        on: 'bell',
        blowsS: [],
        clock: { sampleRate: FS, seconds: 20, seed, knocks: 8, echo: { fallS: 0.25, wet: 0.4 } },
      })
      samples.fill(0, 6 * FS, 9 * FS)
      expect(groupsIn(samples, FS)).toEqual([])
    }
  })
})

describe('blows put together', () => {
  const blow = (atS: number, part: Partial<HeardBlow> = {}): HeardBlow => ({
    atS,
    riseDb: 15,
    sumDb: 250,
    levelDb: 30,
    fallDb: 3,
    pitchHz: 900,
    bands: 20,
    ...part,
  })

  test('a weak rise counts where a blow is due, and nowhere else', () => {
    const weak = { riseDb: 2, sumDb: 25 }
    expect(strikings([blow(1), blow(2.5), blow(4, weak), blow(5.5), blow(6.2, weak)])).toMatchObject([{ blows: 4 }])
  })
  test('one of a slow striking that was drowned is counted where it was due', () => {
    expect(strikings([0, 2.2, 4.4, 8.8, 11, 13.2].map((s) => blow(1 + s)))).toMatchObject([{ blows: 7 }])
  })
  test('the last may bring less where it comes just in time, and not beside it', () => {
    const last = { riseDb: 3, sumDb: 60 }
    const row = [1, 2.3, 3.6, 4.9].map((s) => blow(s))
    expect(strikings([...row, blow(6.2, last)])).toMatchObject([{ blows: 5 }])
    expect(strikings([...row, blow(6.05, last)])).toMatchObject([{ blows: 4 }])
  })
  test('weak blows at each place of the rhythm are no pause between two strikings', () => {
    const weak = { riseDb: 3, sumDb: 40 }
    const row = [blow(1), blow(2.3), blow(3.6), blow(4.9, weak), blow(6.2, weak), blow(7.5), blow(8.8)]
    expect(strikings(row)).toMatchObject([{ blows: 7 }])
  })
  test('what is gone in a quarter of a second was a knock', () => {
    expect(strikings([blow(1, { fallDb: 30 })])).toEqual([])
  })
  test('falling notes of a pipe in pairs are a bird’s calls, each pair one', () => {
    const pipe = (atS: number, pitchHz: number) => blow(atS, { pitchHz, bands: 3 })
    const calls = [1, 2.2, 3.4].flatMap((s) => [pipe(s, 700), pipe(s + 0.4, 570)])
    expect(strikings(calls)).toMatchObject([{ blows: 3, bird: true }])
  })
})

describe('the time of a strike', () => {
  const strike = { kind: 'rack', halves: 'one' } as const
  test.each([
    ['03:01', 3, { hour: 3, quarter: 0 }],
    ['14:57', 3, { hour: 3, quarter: 0 }],
    ['23:58', 12, { hour: 12, quarter: 0 }],
    ['03:28', 1, { hour: 3, quarter: 2 }],
  ])('at %s is that of its dial', (clock, blows, time) => {
    expect(timeOfStrike(clock, blows, strike)).toMatchObject(time)
  })
  test('is not told between the hours, nor by a chime’s notes', () => {
    expect(timeOfStrike('03:15', 3, strike)).toBeNull()
    expect(timeOfStrike('03:00', 16, strike)).toBeNull()
    expect(timeOfStrike('03:30', 1, { kind: 'rack', halves: 'none' })).toBeNull()
  })
})

test.each([
  [3600 * 3 + 9, { hour: 3, quarter: 0 }, -9],
  [3600 * 14 + 1790, { hour: 2, quarter: 2 }, 10],
  [43_200 - 30, { hour: 12, quarter: 0 }, 30],
  [86_400 - 1, { hour: 12, quarter: 0 }, 1],
  [20, { hour: 12, quarter: 0 }, -20],
])('a strike at %d s of the day puts the clock off by its own time', (s, time, error) => {
  expect(errorByStrike(s, time)).toBeCloseTo(error, 9)
})
