import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  DEFAULT_TROUBLE_TABLE,
  dialMinutes,
  driveCompared,
  dryStanding,
  likelyStrike,
  observedElsewhere,
  openStop,
  stoppedAtS,
  stoppingWork,
  stopKey,
  stopsFound,
  stopsOf,
  stopsTell,
  strikesRight,
  strikeWanted,
  timeOnDial,
  trialDaysFor,
  trialOf,
  type RateEventKind,
  type TrialFacts,
} from '../src/index.ts'

const DAY = 86_400
const START = Date.parse('2026-03-01T09:00:00Z') / 1000
const at = (days: number) => new Date((START + days * DAY) * 1000).toISOString()
const RACK = { kind: 'rack' as const, halves: 'none' as const }
const heard = (days: number, but: Partial<Record<number, number>> = {}) =>
  strikesRight('rack', 'none').map((s) => ({ ...s, quarters: null, blows: but[s.hour] ?? s.blows, heardAt: at(days) }))

describe('a trial of a job', () => {
  const facts = (part: Partial<TrialFacts>): TrialFacts => ({
    events: [{ at: at(0), kind: 'trial' }],
    strikeCounts: [],
    strike: null,
    moon: false,
    days: 7,
    nowS: START + 3 * DAY,
    ...part,
  })
  const wanted = (part: Partial<TrialFacts>) => trialOf(facts(part))?.wanted

  test('is none before it is begun, and begins anew with a second beginning', () => {
    expect(trialOf(facts({ events: [] }))).toBeNull()
    expect(trialOf(facts({ events: [{ at: at(5), kind: 'trial' }] }))).toBeNull()
    const twice = [0, 2].map((d) => ({ at: at(d), kind: 'trial' as const }))
    expect(trialOf(facts({ events: twice }))).toMatchObject({ countsFromS: START + 2 * DAY, day: 2 })
  })

  test.each<[RateEventKind, boolean]>([
    ['nut', true],
    ['weight', true],
    ['arc', true],
    ['moved', true],
    ['beat', true],
    ['oiled', true],
    ['stopped', true],
    ['hands', false],
    ['winding', false],
    ['moon', false],
  ])('%s begins it anew: %s', (kind, anew) => {
    const events = [...facts({}).events, { at: at(2), kind }]
    expect(trialOf(facts({ events }))?.countsFromS).toBe(START + (anew ? 2 : 0) * DAY)
  })

  test('wants the hours struck round since it counts, and right', () => {
    expect(wanted({ strike: RACK })).toContain('struck round the dial: 0 of 12 heard')
    expect(wanted({ strike: RACK, strikeCounts: heard(-1) })).toContain('struck round the dial: 0 of 12 heard')
    expect(wanted({ strike: RACK, strikeCounts: heard(1).slice(0, 5) })).toContain(
      'struck round the dial: 5 of 12 heard',
    )
    expect(wanted({ strike: RACK, strikeCounts: heard(1, { 4: 5 }) })).toContain('its strike put right: 5 at 4 o’clock')
    expect(strikeWanted(RACK, heard(1))).toEqual([])
  })

  test('passes when nothing is wanted any more', () => {
    const events = [...facts({}).events, { at: at(1), kind: 'winding' as const }, { at: at(2), kind: 'moon' as const }]
    const all = { events, strike: RACK, strikeCounts: heard(1), moon: true, nowS: START + 7 * DAY }
    expect(trialOf(facts(all))).toMatchObject({ passed: true, wanted: [], needs: [] })
    expect(trialOf(facts({ ...all, events: facts({}).events, strikeCounts: [] }))?.needs).toEqual([
      'winding',
      'strike',
      'moon',
    ])
    expect(trialOf(facts({ ...all, nowS: START + 7 * DAY - 1 }))?.passed).toBe(false)
    expect(trialOf(facts({ ...all, events: events.slice(0, 2) }))?.wanted).toEqual(['its moon seen to move on'])
  })

  test('whatever is noted, it passes only when nothing is wanted', () => {
    const kinds = fc.constantFrom<RateEventKind>('nut', 'winding', 'stopped', 'moon', 'hands', 'trial')
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: -2, max: 20, noNaN: true }), kinds), { maxLength: 8 }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.boolean(),
        (noted, days, moon) => {
          const events = [...facts({}).events, ...noted.map(([d, kind]) => ({ at: at(d), kind }))]
          const told = trialOf(facts({ events, moon, nowS: START + days * DAY }))!
          expect(told.passed).toBe(told.wanted.length === 0)
          const since = noted.filter(([d, k]) => ['nut', 'stopped'].includes(k) && d <= days && d > days - 6.9)
          if (since.length > 0) expect(told.passed).toBe(false)
        },
      ),
    )
  })

  test('takes longer of a clock that chimes or is otherwise complicated', () => {
    const ways = { trialDays: 7, trialDaysLong: 14 }
    const days = (part: object, trains = ['going']) =>
      trialDaysFor(
        { trains: trains.map((train) => ({ train })), work: { moon: false, calendar: false, ...part } },
        ways,
      )
    expect(days({})).toBe(7)
    expect(days({ strike: { kind: 'rack' } }, ['going', 'strike'])).toBe(7)
    expect(days({ moon: true })).toBe(14)
    expect(days({ calendar: true })).toBe(14)
    expect(days({}, ['going', 'strike', 'chime'])).toBe(14)
    expect(days({ strike: { kind: 'ting-tang' } }, ['going', 'strike'])).toBe(14)
    expect(days({ strike: { kind: 'repeater' } }, ['going', 'strike'])).toBe(14)
  })
})

describe('a clock that stops', () => {
  test('its dial is read, and what is no time is none', () => {
    expect(dialMinutes('3:47')).toBe(227)
    expect(dialMinutes('12:05')).toBe(5)
    for (const wrong of ['', '13:00', '0:10', '3:60', '3.47', '03:47']) expect(dialMinutes(wrong)).toBeNull()
  })

  test('it stopped when its dial was last right', () => {
    // Found at ten past nine with 3:47 on its dial: 5 h 23 min ago.
    expect(stoppedAtS(1_000_000, 227, 9 * 60 + 10)).toBe(1_000_000 - 323 * 60)
    // Found at three with four on it: it went on for eleven hours.
    expect(stoppedAtS(1_000_000, 240, 180)).toBe(1_000_000 - 660 * 60)
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 719 }), fc.integer({ min: 0, max: 719 }), (showed, right) => {
        const ago = (1e9 - stoppedAtS(1e9, showed, right)) / 60
        expect(ago).toBeGreaterThanOrEqual(0)
        expect(ago).toBeLessThan(720)
        expect((showed + ago - right) % 720).toBe(0)
      }),
    )
  })

  test('a dial that is right shows the workshop’s time', () => {
    const noonUtc = Date.parse('2026-07-01T12:00:00Z') / 1000
    expect(timeOnDial(noonUtc, 'UTC')).toBe('12:00')
    expect(timeOnDial(noonUtc, 'Europe/Oslo')).toBe('2:00')
    expect(timeOnDial(noonUtc - 12 * 3600 + 300, 'UTC')).toBe('12:05')
  })

  const ARBORS = [
    { name: 'centre', periodS: 3600 },
    { name: 'great', periodS: 28_800 },
    { name: 'third', periodS: 450 },
  ]
  const QUIET = { arbors: ARBORS, strikes: false, halves: false, quarters: false, moon: false, calendar: false }

  test('at the same turn of an arbor each time, that arbor is named; one too quick to tell is not', () => {
    const told = stopsTell(
      [
        { showedMinutes: 20, ranS: null },
        { showedMinutes: 20, ranS: 5 * 28_800 + 20 },
      ],
      QUIET,
    )
    expect(told).toEqual([
      expect.stringMatching(/same turn of the centre/),
      expect.stringMatching(/same turn of the great/),
    ])
    expect(
      stopsTell(
        [
          { showedMinutes: 20, ranS: null },
          { showedMinutes: 20, ranS: 3 * 3600 },
        ],
        QUIET,
      ),
    ).toEqual([expect.stringMatching(/same turn of the centre/)])
    expect(
      stopsTell(
        [
          { showedMinutes: 1, ranS: null },
          { showedMinutes: 2, ranS: 4000 },
        ],
        QUIET,
      ),
    ).toEqual([expect.stringMatching(/no turn in common/)])
  })

  test('a stop before the hour of a striking clock is its strike; near twelve its calendar or moon', () => {
    const one = (showed: string, work: Partial<typeof QUIET>) =>
      stopsTell([{ showedMinutes: dialMinutes(showed), ranS: null }], { ...QUIET, ...work })
    expect(one('2:56', { strikes: true })[0]).toMatch(/warning/)
    expect(one('2:40', { strikes: true })[0]).toMatch(/names no wheel/)
    expect(one('2:27', { halves: true })[0]).toMatch(/warning/)
    expect(one('2:12', { quarters: true })[0]).toMatch(/warning/)
    expect(one('11:10', { moon: true })[0]).toMatch(/the moon at its change/)
    expect(one('12:40', { calendar: true })[0]).toMatch(/the calendar at its change/)
    expect(one('6:20', { calendar: true, moon: true })[0]).toMatch(/names no wheel/)
  })

  test('a stop is asked about while its trial runs, until somebody has said what it was', () => {
    const event = (id: string, kind: RateEventKind, days: number) => ({ id, kind, at: at(days) })
    const begun = event('t', 'trial', 1)
    expect(openStop([event('s', 'stopped', 2)], [])).toBeNull()
    expect(openStop([event('s', 'stopped', 0), begun], [])).toBeNull()
    const events = [event('a', 'stopped', 2), begun, event('b', 'stopped', 3)]
    expect(openStop(events, [])?.id).toBe('b')
    expect(openStop(events, [{ key: stopKey('a'), answer: 'found' }])?.id).toBe('b')
    expect(openStop(events, [{ key: stopKey('b'), answer: '' }])?.id).toBe('b')
    expect(openStop(events, [{ key: stopKey('b'), answer: 'not found' }])).toBeNull()
  })

  test('what its stops told the trouble finder need not be asked', () => {
    const stops = [
      { showedMinutes: 176, ranS: null },
      { showedMinutes: 176, ranS: 24 * 3600 },
    ]
    expect(stopsFound(stops, { ...QUIET, strikes: true })).toEqual({
      sameTurnOf: ['centre', 'great'],
      inWarning: true,
      atChange: null,
    })
    expect(stopsFound([], QUIET)).toEqual({ sameTurnOf: null, inWarning: null, atChange: null })
    const found = { movedLately: 'unknown' as const, yearsSinceOil: null, beat: null, driveMarginPercent: null }
    const flowed = observedElsewhere({
      ...{ ...found, holesToBush: 0, holesMeasured: 0, periodicWheel: null },
      stops: stopsFound(stops, { ...QUIET, strikes: true, moon: true }),
    })
    expect(flowed.map((f) => [f.check, f.answer])).toEqual([
      ['stopsSamePlace', 'yes'],
      ['stopsInWarning', 'yes'],
      ['stopsAtMoonChange', 'no'],
    ])
    for (const { check } of flowed) expect(DEFAULT_TROUBLE_TABLE.checks.map((c) => c.key)).toContain(check)
  })

  test('what may stop a clock is read from its sheets; counts that can’t be name no arbor', () => {
    const sheet = {
      train: 'going',
      arbors: [
        { name: 'Great', pinion: null, wheel: 96 },
        { name: 'Centre', pinion: 8, wheel: 64 },
      ],
      hourly: 1,
      escape: false,
      greatTurns: null,
    }
    const clock = {
      trains: [{ train: 'going' }, { train: 'strike' }],
      work: { moon: false, calendar: true, strike: { kind: 'ting-tang' as const, halves: 'none' as const } },
    }
    expect(stoppingWork(clock, [sheet])).toEqual({
      arbors: [
        { name: 'great', periodS: 12 * 3600 },
        { name: 'centre', periodS: 3600 },
      ],
      ...{ strikes: true, halves: false, quarters: true, moon: false, calendar: true },
    })
    expect(stoppingWork(clock, [{ ...sheet, hourly: 9 }]).arbors).toEqual([])
  })

  test('how long it ran between two stops is told by its dial', () => {
    // Started at nine on the first; found at nine on the second, its dial at 3:00: it had gone eighteen hours.
    const events = [
      { at: at(0), kind: 'stopped' as const, showed: '6:20' },
      { at: at(1), kind: 'stopped' as const, showed: '3:00' },
      { at: at(2), kind: 'stopped' as const, showed: '' },
    ]
    expect(stopsOf(events, 'UTC')).toEqual([
      { showedMinutes: 380, ranS: null },
      { showedMinutes: 180, ranS: 18 * 3600 },
      { showedMinutes: null, ranS: null },
    ])
  })
})

describe('what proves the work', () => {
  test('the drive test is compared only with its like', () => {
    const told = driveCompared({ answer: 'kg', second: 1.76 }, { answer: 'kg', second: 1.16 })
    expect(told).toMatchObject({ before: 1.76, now: 1.16, unit: 'kg' })
    expect(told?.changePercent).toBeCloseTo(-34.1, 1)
    expect(driveCompared({ answer: 'kg', second: 1.76 }, { answer: 'turns', second: 1 })).toBeNull()
    expect(driveCompared(undefined, { answer: 'kg', second: 1 })).toBeNull()
    expect(driveCompared({ answer: 'kg', second: null }, { answer: 'kg', second: 1 })).toBeNull()
  })

  test('trains that ran dry: all of them, and the last one’s time', () => {
    const run = (train: string, verdict: '' | 'free' | 'tight', days: number) => ({ train, verdict, ranAt: at(days) })
    expect(dryStanding(['going', 'strike'], [run('going', 'free', 1)])).toEqual({
      open: ['strike'],
      tight: [],
      freeAtS: null,
    })
    expect(dryStanding(['going', 'strike'], [run('going', 'free', 1), run('strike', 'free', 2)]).freeAtS).toBe(
      START + 2 * DAY,
    )
    expect(dryStanding(['going'], [run('going', 'tight', 1)])).toEqual({ open: [], tight: ['going'], freeAtS: null })
    expect(dryStanding([], []).freeAtS).toBeNull()
  })

  test('how a clock likely strikes, by what is known of its work', () => {
    const likely = (strikeWork: 'count-wheel' | 'rack' | null, ...trains: string[]) =>
      likelyStrike({ strikeWork, trains: trains.map((train) => ({ train })) })
    expect(likely('rack', 'going', 'strike')).toBe('rack')
    expect(likely('count-wheel', 'going', 'strike')).toBe('count-outside')
    expect(likely('rack', 'going', 'strike', 'chime')).toBe('chime')
    expect(likely(null, 'going')).toBeNull()
  })
})
