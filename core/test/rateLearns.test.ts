import {
  aheadOf,
  arcChangeInWords,
  arcChangeOf,
  atHome,
  causesOf,
  circularLossSecondsPerDay,
  expectedAfter,
  gravityAt,
  homeInWords,
  nextMove,
  rateBook,
  rateBookInput,
  rateLimitFor,
  seasonAhead,
  seasonInWords,
  sharesOf,
  warmthLately,
  type RateBookInput,
  type RateEvent,
  type RateReading,
} from '@treadle/core'
import { describe, expect, test } from 'vitest'
import { normal, random } from './clockSound.ts'

const DAY_S = 86_400
const NUT = { pitchMm: 0.7, lengthMm: 994 }

interface Made {
  days?: number
  /** s/day at a moment, beside what is handed over */
  rate: (t: number) => number
  every?: number
  sigmaS?: number
  walk?: number
  seed: number
}

/** A clock's error summed up by the quarter hour and read about so often; its rate is whatever it is told to be. */
function readClock({ days = 60, rate, every = 0.5, sigmaS = 0.5, walk = 0.15, seed }: Made): RateReading[] {
  const u = random(seed * 911 + 7)
  const gauss = normal(u)
  const STEP = DAY_S / 96
  const readings: RateReading[] = []
  let [error, next] = [3 * gauss(), 0.2 * DAY_S]
  for (let t = 0; t <= days * DAY_S; t += STEP) {
    error += (rate(t) * STEP) / DAY_S + walk * Math.sqrt(STEP / DAY_S) * gauss()
    if (t < next) continue
    readings.push({ atS: t, errorS: error + sigmaS * gauss(), sigmaS })
    next += every * DAY_S * (0.7 + 0.6 * u())
  }
  return readings
}

describe('a rhythm of winding', () => {
  const windingsS = Array.from({ length: 9 }, (_, i) => (0.4 + 7 * i) * DAY_S)
  const gone = (t: number) => ((t / DAY_S - 0.4 + 7) % 7) / 7

  test('is learnt with its error, and the rate told is that of a whole run', () => {
    let [slope, rate] = [0, 0]
    for (let seed = 1; seed <= 60; seed++) {
      const fall = -6 + 12 * random(seed)()
      // The base is what it keeps in the middle of its run.
      const readings = readClock({ seed, rate: (t) => 4 + fall * (gone(t) - 0.5) })
      const book = rateBook({ readings, events: [], windingsS })
      if (Math.abs(book.windingSecondsPerDay! - fall) < 2 * book.windingStandardError!) slope++
      if (Math.abs(book.rateSecondsPerDay! - 4) < 2 * book.standardError!) rate++
    }
    expect(slope).toBeGreaterThanOrEqual(54)
    expect(rate).toBeGreaterThanOrEqual(54)
  })

  test('is not looked for where each run was read once, or nobody wrote the winding down', () => {
    const readings = readClock({ seed: 3, every: 7, rate: () => 2 })
    expect(rateBook({ readings, events: [], windingsS }).windingSecondsPerDay).toBeNull()
    expect(rateBook({ readings: readClock({ seed: 3, rate: () => 2 }), events: [] }).windingSecondsPerDay).toBeNull()
  })
})

describe('what is told beside the clock', () => {
  const warmth = (t: number) => 17 + 4 * Math.sin((2 * Math.PI * t) / (40 * DAY_S))

  test('a logger teaches what readings with a thermometer teach', () => {
    const plain = readClock({ seed: 5, rate: (t) => 1 - 0.5 * (warmth(t) - 17) })
    const withIt = plain.map((r) => ({ ...r, temperatureC: warmth(r.atS) }))
    const temperatures = plain.map((r) => ({ atS: r.atS, celsius: warmth(r.atS) }))
    const [by, logger] = [
      rateBook({ readings: withIt, events: [] }),
      rateBook({ readings: plain, events: [], temperatures }),
    ]
    expect(logger.secondsPerDayPerC).toBeCloseTo(by.secondsPerDayPerC!, 9)
    expect(Math.abs(logger.secondsPerDayPerC! + 0.5)).toBeLessThan(2.5 * logger.perCStandardError!)
    expect(warmthLately({ readings: plain, events: [], temperatures })).toBeCloseTo(
      temperatures.slice(-6).reduce((sum, t) => sum + t.celsius, 0) / 6,
      0,
    )
    expect(warmthLately({ readings: plain, events: [] })).toBeNull()
  })

  test('what its pendulum says stands in until the readings tell', () => {
    const few = readClock({ seed: 6, days: 4, every: 1, rate: () => 1 }).map((r, i) => ({
      ...r,
      temperatureC: 17 + 0.6 * i,
    }))
    const told = rateBook({ readings: few, events: [], warmth: { value: -0.08, standardError: 0.05 } })
    expect(Math.abs(told.secondsPerDayPerC! + 0.08)).toBeLessThan(0.05)
    expect(told.perCStandardError).toBeLessThan(0.051)
  })

  test('the weight of the air, with its error', () => {
    let known = 0
    for (let seed = 1; seed <= 40; seed++) {
      const perHpa = -0.02 * random(seed + 70)()
      const air = (t: number) => 1010 + 12 * Math.sin(t / (3.1 * DAY_S)) + 7 * Math.sin(t / (1.7 * DAY_S))
      const readings = readClock({ seed, rate: (t) => perHpa * (air(t) - 1010) }).map((r) => ({
        ...r,
        pressureHpa: air(r.atS),
      }))
      const book = rateBook({ readings, events: [] })
      if (Math.abs(book.secondsPerDayPerHpa! - perHpa) < 2 * book.perHpaStandardError!) known++
    }
    expect(known).toBeGreaterThanOrEqual(36)
  })
})

describe('a small weight of known effect', () => {
  const at = 30 * DAY_S
  const readings = readClock({ seed: 9, rate: (t) => (t < at ? -4 : -1.5) })
  const known: RateEvent[] = [{ atS: at, kind: 'known', secondsPerDay: 2.5 }]

  test('leaves the rate told by the readings before it too', () => {
    const cut = readings.filter((r) => r.atS < at + 1.5 * DAY_S)
    const with_ = rateBook({ readings: cut, events: known })
    const without = rateBook({ readings: cut, events: [{ atS: at, kind: 'change' }] })
    expect(Math.abs(with_.rateSecondsPerDay! + 1.5)).toBeLessThan(2.5 * with_.standardError!)
    expect(with_.standardError!).toBeLessThan(without.standardError! / 2)
  })

  test('whose pendulum was weighed a little wrong is not trusted to the letter', () => {
    let held = 0
    for (let seed = 1; seed <= 40; seed++) {
      const really = 8 * (1 + 0.07 * normal(random(seed + 900))())
      const log = readClock({ seed: seed + 40, days: 33, rate: (t) => (t < at ? -8 : -8 + really) })
      const book = rateBook({ readings: log, events: [{ atS: at, kind: 'known', secondsPerDay: 8 }] })
      if (Math.abs(book.rateSecondsPerDay! - (really - 8)) < 2 * book.standardError!) held++
    }
    expect(held).toBeGreaterThanOrEqual(36)
  })

  test('many of them, one after another, are all counted', () => {
    const times = [10, 25, 40].map((d) => d * DAY_S)
    const stepped = readClock({ seed: 10, rate: (t) => 6 - 2 * times.filter((s) => t >= s).length })
    const events = times.map((atS): RateEvent => ({ atS, kind: 'known', secondsPerDay: -2 }))
    const book = rateBook({ readings: stepped, events })
    expect(Math.abs(book.rateSecondsPerDay!)).toBeLessThan(2.5 * book.standardError!)
    expect(book.segments).toHaveLength(4)
  })
})

describe('what a change was expected to do', () => {
  const turnedAt = 30 * DAY_S
  const log = (seed: number, really: number): RateBookInput => ({
    ...NUT,
    readings: readClock({ seed, days: 40, rate: (t) => -12 + (t >= turnedAt ? really : 0) }),
    events: [{ atS: turnedAt, kind: 'nut', turns: 0.4 }],
  })
  const perTurn = (43_200 * 0.7) / 994

  test('holds nearly all that is read after it, as its two standard deviations say', () => {
    let [read, outside] = [0, 0]
    for (let seed = 1; seed <= 40; seed++) {
      // The real thread does a little more or less than its pitch says.
      const share = 1 + 0.2 * normal(random(seed + 300))()
      const expected = expectedAfter(log(seed, 0.4 * perTurn * share))!
      read += expected.readings
      outside += expected.outside
    }
    expect(read).toBeGreaterThan(500)
    expect(outside / read).toBeLessThan(0.08)
  })

  test('does not hold where the nut did nothing', () => {
    const expected = expectedAfter(log(4, 0))!
    expect(expected.rateSecondsPerDay).toBeCloseTo(-12 + 0.4 * perTurn, 0)
    expect(expected.outside).toBeGreaterThan(expected.readings / 2)
  })

  test('is not told after hands were set, or another change, or with too little before', () => {
    const input = log(5, 12)
    for (const kind of ['hands', 'change'] as const)
      expect(expectedAfter({ ...input, events: [...input.events, { atS: 33 * DAY_S, kind }] })).toBeNull()
    expect(expectedAfter({ ...input, readings: input.readings.filter((r) => r.atS > turnedAt) })).toBeNull()
  })
})

describe('what each way of reading gives', () => {
  test('comes to one, and the surer way gives more', () => {
    const rough = readClock({ seed: 11, sigmaS: 3, every: 1, rate: () => 2 }).map((r) => ({ ...r, by: 'eye' }))
    const fine = readClock({ seed: 11, sigmaS: 0.1, every: 1, rate: () => 2 }).map((r) => ({ ...r, by: 'listening' }))
    const shares = sharesOf({ readings: [...rough, ...fine], events: [] })
    expect(shares.reduce((sum, s) => sum + s.share, 0)).toBeCloseTo(1, 9)
    expect(shares[0]).toMatchObject({ by: 'listening', count: fine.length })
    expect(shares[0]!.share).toBeGreaterThan(0.8)
  })

  test('two watches of one device share its error and give less than two devices', () => {
    const run = (device: string, fromS: number) => ({
      fromS,
      toS: fromS + DAY_S,
      secondsPerDay: 2,
      standardError: 0.1,
      device,
      deviceError: 3,
    })
    const one = rateBook({ readings: [], events: [], runs: [run('a', 0), run('a', 2 * DAY_S)] })
    const two = rateBook({ readings: [], events: [], runs: [run('a', 0), run('b', 2 * DAY_S)] })
    expect(one.standardError!).toBeGreaterThan(1.3 * two.standardError!)
  })
})

describe('the next move', () => {
  const book = rateBook({
    ...NUT,
    readings: readClock({ seed: 12, rate: () => -7 }),
    events: [],
    toleranceSecondsPerDay: 5,
  })

  test('is a small weight where there is a tray and one is enough', () => {
    const move = nextMove(book, 2.5)
    expect(move).toMatchObject({ what: 'weight', grams: 2.8 })
    if (move.what === 'weight') expect(move.leavesSecondsPerDay).toBeCloseTo(book.rateSecondsPerDay! + 2.8 * 2.5, 9)
  })

  test('is the nut in eighths where there is none, or it would take too much', () => {
    for (const perGram of [null, 0.3]) {
      const move = nextMove(book, perGram)
      expect(move.what).toBe('nut')
      if (move.what === 'nut') {
        expect((move.turns * 8) % 1).toBe(0)
        expect(move.turns).toBeGreaterThan(0)
      }
    }
  })

  test('is none while the rate is not told from nought', () => {
    const still = rateBook({ readings: readClock({ seed: 13, days: 3, walk: 0.5, rate: () => 0 }), events: [] })
    expect(nextMove(still, 2.5)).toEqual({ what: 'nothing' })
  })
})

describe('an arc that changed as it was oiled', () => {
  const oiled = 20 * DAY_S
  const log = (more: number): RateBookInput => ({
    readings: readClock({
      seed: 14,
      days: 40,
      rate: (t) => -circularLossSecondsPerDay(t < oiled ? 1.8 : 2.2) + (t < oiled ? 0 : more),
    }).map((r) => ({ ...r, semiArcDeg: r.atS < oiled ? 1.8 : 2.2 })),
    events: [{ atS: oiled, kind: 'change' }],
  })

  test('is told from a change of length', () => {
    const [arc, both] = [log(0), log(8)].map((input) => arcChangeOf(rateBook(input), input)!)
    expect(arc).toMatchObject({ more: false })
    expect(arc!.byArc).toBeCloseTo(circularLossSecondsPerDay(1.8) - circularLossSecondsPerDay(2.2), 9)
    expect(arcChangeInWords(arc!)).toMatch(/its length stayed/)
    expect(both).toMatchObject({ more: true })
    expect(arcChangeInWords(both!)).toMatch(/something else changed/)
  })
})

describe('at its owner’s', () => {
  const here = { latitudeDeg: 45, altitudeM: 0 }

  test('gravity does what g says and warmth what a degree does', () => {
    const { gravitySecondsPerDay, warmthSecondsPerDay, total } = atHome(
      here,
      { latitudeDeg: 60, altitudeM: 0 },
      { value: -0.5, standardError: 0.05 },
      3,
    )
    expect(gravitySecondsPerDay).toBeCloseTo(DAY_S * (Math.sqrt(gravityAt(60) / gravityAt(45)) - 1), 9)
    expect(warmthSecondsPerDay).toBeCloseTo(-1.5, 9)
    expect(total.value).toBeCloseTo(gravitySecondsPerDay! - 1.5, 9)
    expect(total.standardError).toBeGreaterThan(0.15)
    // A street away gravity is the same, rocks and all.
    expect(atHome(here, here, null, null).total).toEqual({ value: 0, standardError: 0 })
  })

  test('the year strays by the sum of its rates from turn to turn', () => {
    const perC = { value: -0.5, standardError: 0.02 }
    const { months, straysS, leaveAtSecondsPerDay } = seasonAhead(perC, { winterC: 14, summerC: 24 }, 50, 10)
    const gains = months.reduce((sum, m) => sum + Math.max(0, m.secondsPerDay) * 30.44, 0)
    expect(straysS / gains).toBeCloseTo(1, 1)
    expect(months.map((m) => m.month)).toEqual([10, 11, 12, 1, 2, 3, 4, 5, 6, 7, 8, 9])
    expect(months.reduce((a, b) => (b.celsius < a.celsius ? b : a)).month).toBe(1)
    expect(leaveAtSecondsPerDay).toBe(months[0]!.secondsPerDay)
    const south = seasonAhead(perC, { winterC: 14, summerC: 24 }, -35, 10)
    expect(south.months.reduce((a, b) => (b.celsius < a.celsius ? b : a)).month).toBe(7)
  })

  test('in words: what to leave it at, and nothing where nothing is known', () => {
    const known = { latitudeDeg: 60, altitudeM: 0, winterC: 14, summerC: 24 }
    const perC = { value: -0.5, standardError: 0.02 }
    const ahead = aheadOf(here, 16, known, perC, 10)!
    expect(ahead.leaveAt!.value).toBeCloseTo(-ahead.home.total.value, 9)
    expect(homeInWords(ahead)).toMatch(/gain 57\.\d s a day by gravity and lose 1\.5 s a day .*leave it .* slow here/)
    expect(seasonInWords(ahead.season!)).toMatch(/gains up to 2\.\d s a day in January and loses as much in July/)
    const nothing = { latitudeDeg: null, altitudeM: null, winterC: null, summerC: null }
    expect(aheadOf(here, 16, nothing, perC, 10)).toBeNull()
    expect(
      seasonInWords(seasonAhead({ value: -0.01, standardError: 0.01 }, { winterC: 18, summerC: 20 }, 50, 1)),
    ).toBeNull()
  })
})

test('causes say what is followed, by how much, and against what its pendulum says', () => {
  const warmth = (t: number) => 17 + 4 * Math.sin((2 * Math.PI * t) / (40 * DAY_S))
  const readings = readClock({ seed: 5, rate: (t) => 1 - 0.6 * (warmth(t) - 17) }).map((r) => ({
    ...r,
    temperatureC: warmth(r.atS),
  }))
  const [cause] = causesOf(rateBook({ readings, events: [] }), { value: -0.5, standardError: 0.1 })
  expect(cause).toMatchObject({ what: 'warmth', told: true })
  expect(cause!.words).toMatch(
    /^It loses 0\.\d+ ± 0\.0\d+ s a day for each degree warmer; its pendulum says a loss of 0\.5/,
  )
  expect(causesOf(rateBook({ readings: readings.map(({ temperatureC: _, ...r }) => r), events: [] }), null)).toEqual([])
})

test('what may be asked of a rate goes by the length of its pendulum', () => {
  expect(rateLimitFor(994)?.secondsPerDay).toBe(5)
  expect(rateLimitFor(250)?.secondsPerDay).toBe(60)
  expect(rateLimitFor(110)?.secondsPerDay).toBe(120)
  expect(rateLimitFor(null)).toBeNull()
})

describe('long listenings in the same fit', () => {
  const at = (day: number) => new Date(Date.UTC(2026, 0, 1) + day * DAY_S * 1000).toISOString()
  const readings = [0, 1, 2, 3].map((d) => ({ at: at(d), errorSeconds: -4 * d, sigmaSeconds: 2, way: 'eye' as const }))
  const heard = (day: number, more: object = {}) => ({
    at: at(day),
    pickup: 'microphone',
    fileName: '',
    rateSecondsPerDay: -4,
    rateStandardError: 0.3,
    secondsAnalysed: 7200,
    ...more,
  })
  const AIMS = {
    pendulum: { pitchMm: null, lengthMm: null },
    settings: { rateToleranceSecondsPerDay: 10, rateGoalSecondsPerDay: 1 },
  }
  const runs = (listenings: object[]) =>
    rateBookInput({ readings, events: [], listenings: listenings as never }, AIMS).runs ?? []

  test('join what was read, one sound card for all of the microphone’s, each file its own', () => {
    const found = runs([heard(1), heard(2), heard(2.5, { pickup: 'file', fileName: 'owner.wav' })])
    expect(found.map((r) => r.device)).toEqual([
      'listening by microphone',
      'listening by microphone',
      'a file, owner.wav',
    ])
    expect(found[0]!.toS - found[0]!.fromS).toBe(7200)
    const shares = sharesOf(rateBookInput({ readings, events: [], listenings: [heard(1), heard(2)] }, AIMS))
    expect(shares.map((s) => s.by).sort()).toEqual(['eye', 'listening by microphone'])
  })

  test('short ones and the practice clock’s do not, nor does one alone begin a book', () => {
    expect(runs([heard(1, { secondsAnalysed: 60 }), heard(2, { pickup: 'practice' })])).toEqual([])
    expect(rateBookInput({ readings: [], events: [], listenings: [heard(1)] }, AIMS).runs).toEqual([])
  })
})
