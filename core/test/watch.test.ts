import { describe, expect, test } from 'vitest'
import {
  rateTrend,
  Watch,
  watchBlocks,
  watchTells,
  type StrikeGroup,
  type WatchedMinute,
  type WatchMinute,
} from '../src/index.ts'
import { normal, random } from './clockSound.ts'
import { watchSound, type WatchSound } from './watchSound.ts'

const FS = 12_000

function watched(made: WatchSound) {
  const minutes: WatchMinute[] = []
  const strikes: StrikeGroup[] = []
  const watch = new Watch(
    FS,
    { beatsPerHour: made.beatsPerHour ?? 7200 },
    { minute: (m) => minutes.push(m), strike: (s) => strikes.push(s) },
  )
  watchSound({ ...made, sampleRate: FS }, (block) => watch.push(block))
  return { minutes, strikes, end: watch.end() }
}

describe('a watch', () => {
  const night = watched({
    seconds: 20 * 60,
    rateSecondsPerDay: 12,
    driftPerHour: -30,
    unevenMs: 4,
    scatterMs: 0.2,
    strikes: [{ atS: 130, blows: 5 }],
    silent: [[500, 560]],
    unheard: [[745, 770]],
    stopsAtS: 1100,
    seed: 5,
  })

  test('tells each minute’s rate, beat and scatter within three of its errors', () => {
    expect(night.minutes.map((m) => m.fromS)).toEqual(Array.from({ length: 20 }, (_, i) => 60 * i))
    const whole = night.minutes.filter((m) => m.beatsHeard > 115)
    expect(whole.length).toBeGreaterThanOrEqual(14)
    for (const m of whole) {
      const rate = 12 - (30 * (m.fromS + 30)) / 3600
      expect(Math.abs(m.rateSecondsPerDay! - rate)).toBeLessThan(3.5 * m.rateStandardError! + 0.1)
      expect(Math.abs(m.outOfBeatMs! - 4)).toBeLessThan(0.3)
      expect(m.scatterMs!).toBeGreaterThan(0.1)
      expect(m.scatterMs!).toBeLessThan(0.4)
      expect(m.loudnessDb![0]).toBeGreaterThan(m.loudnessDb![1])
    }
  })

  test('numbers its beats on over gaps: what it got ahead is known to a fraction of a beat', () => {
    // ∫(12 − 30 t/3600) dt/86400 from 0.3 s on.
    const ahead = (s: number) => (12 * s - (15 * s * s) / 3600) / 86_400
    for (const m of night.minutes) {
      if (m.aheadS === null || m.beatsHeard < 115) continue
      expect(Math.abs(m.aheadS - ahead(m.fromS + 30))).toBeLessThan(0.002)
    }
  })

  test('tells the stop to a beat, the gaps and why, and the strike', () => {
    expect(Math.abs(night.end.stoppedAtS! - 1100), JSON.stringify(night.end)).toBeLessThan(1.1)
    expect(night.end.gaps.map((g) => g.why)).toEqual(['no sound', 'not heard'])
    const [silent, unheard] = night.end.gaps
    expect(Math.abs(silent!.fromS - 500)).toBeLessThan(1.1)
    expect(Math.abs(silent!.toS - 560)).toBeLessThan(1.1)
    expect(Math.abs(unheard!.fromS - 745)).toBeLessThan(1.1)
    expect(Math.abs(unheard!.toS - 770)).toBeLessThan(1.1)
    expect(night.strikes).toMatchObject([{ blows: 5 }])
    expect(Math.abs(night.strikes[0]!.atS - 130)).toBeLessThan(0.1)
  })

  test('the trend is the drift', () => {
    const trend = rateTrend(night.minutes)!
    expect(Math.abs(trend.perHour + 30)).toBeLessThan(4 * trend.standardError)
    expect(trend.standardError).toBeLessThan(1.5)
    expect(rateTrend(night.minutes.slice(0, 2))).toBeNull()
  })

  test('a recorder that stops giving sound is no clock that stops; nor does a short end count', () => {
    const { end, minutes } = watched({ seconds: 150, silent: [[100, 150]] })
    expect(end.stoppedAtS).toBeNull()
    expect(end.gaps).toMatchObject([{ why: 'no sound' }])
    expect(minutes.at(-1)).toMatchObject({ fromS: 120, seconds: 30, beatsHeard: 0, beatsExpected: 60 })
  })

  test('where nothing ticks nothing is told, and nothing has stopped', () => {
    const { end, minutes } = watched({ seconds: 65, stopsAtS: 0 })
    expect(end).toEqual({ stoppedAtS: null, gaps: [] })
    expect(minutes[0]).toMatchObject({ beatsHeard: 0, rateSecondsPerDay: null, aheadS: null })
  })
})

describe('what a watch tells', () => {
  interface Night {
    hours: number
    start?: number
    perHour?: number
    settles?: number
    wheel?: { periodS: number; ms: number }
    windings?: number[]
    walk?: number
    seed?: number
  }
  function night({
    hours,
    start = 5,
    perHour = 0,
    settles = 0,
    wheel,
    windings = [],
    walk = 0.1,
    seed = 1,
  }: Night): WatchedMinute[] {
    const gauss = normal(random(seed * 31 + 7))
    let aheadS = 0
    let wander = 0
    return Array.from({ length: hours * 60 }, (_, i) => {
      wander += (walk * gauss()) / Math.sqrt(60)
      const since = (i * 60 - Math.max(0, ...windings.filter((w) => w <= i * 60))) / 3600
      const rate = start + perHour * since + settles * Math.exp(-i / 10) + wander
      aheadS += (60 * rate) / 86_400
      const wobble = wheel ? (wheel.ms / 1000) * Math.sin((2 * Math.PI * 60 * i) / wheel.periodS) : 0
      return {
        fromS: 60 * i,
        seconds: 60,
        rateSecondsPerDay: rate + 0.15 * gauss(),
        rateStandardError: 0.15,
        aheadS: aheadS + wobble + 0.00003 * gauss(),
        sinceS: 0,
      }
    })
  }
  const train = { wheels: [64, 60], pinions: [8, 8], escapeTeeth: 30 }

  test('a rate that falls as the spring runs down, over two windings, with its slope', () => {
    const windings = [-3600, 12 * 3600]
    const tells = watchTells(night({ hours: 24, perHour: -0.5, windings }), windings, train)
    expect(Math.abs(tells.sinceWinding!.perHour + 0.5)).toBeLessThan(0.12)
    expect(tells.settled).toBeNull()
    expect(tells.wheels.arbors).toEqual([])
  })
  test('a slow wheel, and no other, in hours that also wander', () => {
    const tells = watchTells(night({ hours: 8, wheel: { periodS: 450, ms: 1.5 } }), [], train)
    expect(tells.wheels.arbors).toMatchObject([{ arbor: 1, periodS: 450 }])
    expect(Math.abs(tells.wheels.arbors[0]!.amplitudeMs - 1.5)).toBeLessThan(0.3)
  })
  test('the settling after it was hung up', () => {
    const tells = watchTells(night({ hours: 8, settles: 12 }), [], train)
    expect(tells.settled!.secondsPerDay).toBeGreaterThan(2)
  })
  test('nothing of a clock that keeps, but its rate', () => {
    let told = 0
    for (let seed = 1; seed <= 12; seed++) {
      const tells = watchTells(night({ hours: 10, seed }), [], train)
      if (tells.sinceWinding || tells.settled || tells.wheels.arbors.length + tells.wheels.meshes.length > 0) told++
      expect(Math.abs(tells.rate!.secondsPerDay - 5)).toBeLessThan(1.2)
    }
    expect(told).toBeLessThanOrEqual(1)
  })
  test('nothing of minutes that are too few', () => {
    expect(watchTells(night({ hours: 1 }).slice(0, 20), [], train)).toEqual({
      rate: null,
      sinceWinding: null,
      perDegree: null,
      settled: null,
      wheels: { arbors: [], meshes: [] },
    })
  })

  const warmth = (hours: number) =>
    Array.from({ length: hours * 2 + 1 }, (_, i) => ({
      atS: i * 1800,
      celsius: 18 + 2 * Math.sin((2 * Math.PI * i) / 48),
    }))
  test('what a degree does, told apart from the hours since winding', () => {
    const hours = 72
    const warm = warmth(hours)
    const windings = [-3600, 24 * 3600, 48 * 3600]
    const minutes = night({ hours, perHour: -0.3, windings }).map((m) => ({
      ...m,
      rateSecondsPerDay: m.rateSecondsPerDay! - 0.8 * (2 * Math.sin((2 * Math.PI * m.fromS) / 86_400)),
    }))
    const tells = watchTells(minutes, windings, train, warm)
    expect(Math.abs(tells.perDegree!.perC + 0.8)).toBeLessThan(0.25)
    expect(Math.abs(tells.sinceWinding!.perHour + 0.3)).toBeLessThan(0.06)
    // Not known for long enough, or as good as the same all the time: nothing is said of it.
    expect(watchTells(minutes, windings, train, warm.slice(0, 10)).perDegree).toBeNull()
    const even = warm.map((t) => ({ ...t, celsius: 18 + (t.celsius - 18) / 10 }))
    expect(watchTells(minutes, windings, train, even).perDegree).toBeNull()
  })
  test('no degree is blamed where the clock only wanders', () => {
    let blamed = 0
    for (let seed = 1; seed <= 30; seed++)
      if (watchTells(night({ hours: 48, seed }), [], train, warmth(48)).perDegree) blamed++
    expect(blamed).toBeLessThanOrEqual(2)
  })
  test('half hours know how warm it was as far as somebody does', () => {
    const blocks = watchBlocks(
      night({ hours: 20 }),
      [],
      [
        { atS: 0, celsius: 16 },
        { atS: 4 * 3600, celsius: 20 },
      ],
    )
    expect(blocks[2]!.celsius).toBeCloseTo(16 + (4 * blocks[2]!.atS) / (4 * 3600), 6)
    expect(blocks.find((b) => b.atS > 5 * 3600)!.celsius).toBe(20)
    expect(blocks.at(-1)!.celsius).toBeNull()
  })
})
