import { describe, expect, test } from 'vitest'
import {
  DEFAULT_BEAT_TOLERANCE,
  DEFAULT_BUSHING_RULES,
  isHeld,
  mayClose,
  standingOf,
  type GateName,
  type JobFacts,
  type StandingWays,
} from '../src/index.ts'
import { unmeasured } from './facts.ts'

const day = (n: number, hour = 12) => new Date(Date.UTC(2026, 2, 1 + n, hour))
const NOW = day(30)
const nowS = NOW.getTime() / 1000

const WAYS: StandingWays = {
  beat: DEFAULT_BEAT_TOLERANCE,
  rateToleranceSecondsPerDay: 10,
  rateGoalSecondsPerDay: 2,
  trialDays: 7,
  trialDaysLong: 14,
  timeZone: 'UTC',
}
const RULES = { bushing: DEFAULT_BUSHING_RULES, cuttersMm: [1.6, 1.8, 2, 2.3, 2.7, 3] }

const event = (n: number, kind: JobFacts['events'][number]['kind']) => ({
  ...{ id: `${kind} ${n}`, at: day(n), kind, turns: null, showed: '' },
})
const reading = (n: number, errorSeconds: number) => ({ at: day(n), errorSeconds, sigmaSeconds: 0.5 })
const place = (plate: 'front' | 'back') => ({ train: 'going', arbor: 'Third arbor', plate, role: 'other' as const })
const left = (plate: 'front' | 'back') => ({
  ...unmeasured(place(plate)),
  ...{ id: plate, waived: 'New, and tight.' },
})
const step = (part: string, back: boolean) => ({
  ...{ id: part, position: 1, part, count: 1, back, notBack: '' },
})

/** A weight clock that was taken apart, mended, oiled, heard, read and tried: nothing keeps it. */
const READY: JobFacts = {
  job: {
    ...{ bay: 'return', partedAt: day(1), promisedOn: null, scope: 'whole', scopeTrain: '', scopeReason: '' },
    ...{ waitsFor: '', waitsNote: '', waitsUntil: null },
    cameWith: [{ name: 'Pendulum', state: 'good', returned: true }],
  },
  clock: {
    trains: [{ train: 'going', power: 'weight' }],
    work: { strikeWork: null, moon: false, calendar: false },
    pendulum: { beatsPerHour: 3600, lengthMm: 994, pitchMm: 1, windsEveryDays: null },
  },
  powerOffs: [{ train: 'going' }],
  overrides: [],
  plateMap: null,
  trainSheets: [],
  holes: [left('front'), left('back')],
  pivots: [
    { train: 'going', arbor: 'Third arbor', plate: 'front', finishedMm: 1 },
    { train: 'going', arbor: 'Third arbor', plate: 'back', finishedMm: 1 },
  ],
  bushings: [],
  listenings: [{ at: day(12), firstToSecondMs: 1001, secondToFirstMs: 999 }],
  readings: [13, 15, 17, 19, 21].map((n) => reading(n, 2 * (n - 13))),
  events: [event(10, 'oiled'), event(13, 'trial'), event(20, 'winding')],
  estimates: [],
  arborTests: [],
  observations: [],
  stripMarks: [{ key: 'clicks' }, { key: 'nut' }],
  stripSteps: [step('Minute hand', true)],
  dryRuns: [{ train: 'going', verdict: 'free', ranAt: day(9) }],
  oilSheets: [],
  strikeCounts: [],
  cleanParts: [{ done: true }],
  timers: [],
  nowMarks: [],
  wheels: [],
}

type Part = Partial<Omit<JobFacts, 'job' | 'clock'>> & {
  job?: Partial<JobFacts['job']>
  clock?: Partial<JobFacts['clock']>
}

function standing({ job, clock, ...part }: Part = {}, ways: Partial<StandingWays> = {}) {
  const rows = { ...READY, ...part, job: { ...READY.job, ...job }, clock: { ...READY.clock, ...clock } }
  return standingOf(rows, { ...WAYS, ...ways }, RULES, nowS)
}
const held = (part: Part = {}, ways: Partial<StandingWays> = {}) =>
  standing(part, ways)
    .gates.filter(isHeld)
    .map((g) => g.name)
const titles = (part: Part) => standing(part).owed.map((o) => o.title)

describe('a clock that is ready', () => {
  test('is kept by nothing, and owes its card alone', () => {
    expect(held()).toEqual([])
    expect(mayClose(standing().gates)).toBe(true)
    expect(titles({})).toEqual(['Print the owner’s card'])
  })

  const line = {
    title: 'Service',
    kind: 'fixed' as const,
    quantity: 1,
    unitPrice: '95.00',
    upToPrice: null,
    taxed: true,
  }
  const estimate = (state: JobFacts['estimates'][number]['state'], unitPrice = '95.00', revision = 1) => ({
    ...{ state, revision, sentAt: day(2), taxPercent: '20', currency: '€' },
    lines: [{ ...line, id: 'l', unitPrice, order: false }],
  })

  test.each<[what: string, gates: GateName[], part: Part]>([
    ['a train that nobody confirmed off', ['power'], { powerOffs: [] }],
    ['a pivot that waits', ['pivots'], { pivots: [{ ...READY.pivots[0]!, finishedMm: null }, READY.pivots[1]!] }],
    ['a pivot nobody looked at', ['pivots'], { pivots: [READY.pivots[0]!] }],
    ['a hole that is not judged', ['holes'], { holes: [left('front'), { ...left('back'), waived: '' }] }],
    ['an arbor that only its sheet has', ['pivots', 'holes'], { trainSheets: [sheetWith('Centre arbor')] }],
    ['no dry run', ['dry'], { dryRuns: [] }],
    ['a tight train', ['dry'], { dryRuns: [{ train: 'going', verdict: 'tight', ranAt: day(9) }] }],
    ['oil before it ran dry', ['dry'], { dryRuns: [{ train: 'going', verdict: 'free', ranAt: day(11) }] }],
    ['no oil', ['oil'], { events: READY.events.slice(1) }],
    ['no listening', ['beat'], { listenings: [] }],
    ['a limp', ['beat'], { listenings: [{ at: day(12), firstToSecondMs: 1040, secondToFirstMs: 960 }] }],
    ['a move since it was heard', ['beat'], { events: [...READY.events, event(12, 'moved')], listenings: heardOn(11) }],
    ['no readings', ['rate'], { readings: [] }],
    ['a rate beyond its limit', ['rate'], { readings: [13, 15, 17, 19, 21].map((n) => reading(n, 15 * (n - 13))) }],
    ['no trial', ['trial'], { events: [event(10, 'oiled'), event(20, 'winding')] }],
    ['no winding in its trial', ['trial'], { events: READY.events.slice(0, 2) }],
    ['an estimate sent and not answered', ['estimate'], { estimates: [estimate('sent')] }],
    ['an estimate declined', ['estimate'], { estimates: [estimate('declined')] }],
    [
      'a dearer one after one that was agreed to',
      ['estimate'],
      { estimates: [estimate('accepted'), estimate('sent', '120.00', 2)] },
    ],
    ['a part that did not go back', ['parts'], { stripSteps: [step('Minute hand', false)] }],
    ['a thing that it came with', ['parts'], { job: { cameWith: [{ name: 'Key', state: 'good', returned: false }] } }],
    [
      'a loss that its owner was not told of',
      ['parts'],
      { observations: [{ key: 'loss:1', answer: '', note: 'The small washer' }] },
    ],
  ])('but for %s', (_, gates, part) => {
    expect(held(part)).toEqual(gates)
  })

  test.each<[what: string, part: Part]>([
    ['an end tried between the plates', { pivots: READY.pivots, holes: [left('front')], arborTests: [tried()] }],
    [
      'a thing that was missing from the start',
      { job: { cameWith: [{ name: 'Key', state: 'missing', returned: false }] } },
    ],
    ['an estimate that was accepted', { estimates: [estimate('accepted')] }],
    ['one that is no dearer', { estimates: [estimate('accepted'), estimate('sent', '95.00', 2)] }],
    ['a loss that was told', { observations: [{ key: 'loss:1', answer: 'told', note: 'The small washer' }] }],
    ['a trial in which only its hands were set', { events: [...READY.events, event(25, 'hands')] }],
  ])('and not for %s', (_, part) => {
    expect(held(part)).toEqual([])
  })

  test('a gate that is overridden keeps it no more, and says why', () => {
    const { gates } = standing({ listenings: [], overrides: [{ gate: 'beat', reason: 'It ticks too softly.' }] })
    expect(mayClose(gates)).toBe(true)
    const beat = gates.find((g) => g.name === 'beat')
    expect([beat?.passed, beat?.overriddenBecause]).toEqual([false, 'It ticks too softly.'])
  })

  test('one that only ticks once a period is asked of the eye', () => {
    const clock = { pendulum: { ...READY.clock.pendulum, ticks: 'once a period' as const } }
    expect(held({ clock })).toEqual(['beat'])
    const seen = { key: 'beat-by-eye', answer: 'even', note: '', at: day(12) }
    expect(held({ clock, observations: [seen] })).toEqual([])
    expect(held({ clock, observations: [seen], events: [...READY.events, event(12, 'beat')] })).toEqual([])
    expect(
      held({ clock, observations: [{ ...seen, at: day(11) }], events: [...READY.events, event(12, 'beat')] }),
    ).toEqual(['beat'])
  })
})

describe('what a clock is here for', () => {
  test('in place, its plates together: no pivot, hole or dry run is asked for', () => {
    const part: Part = { job: { scope: 'in-place', scopeReason: 'Oil only.', partedAt: null } }
    const bare = { holes: [], pivots: [], dryRuns: [], stripSteps: [], powerOffs: [] }
    expect(held({ ...part, ...bare })).toEqual([])
  })

  test('untouched, nothing is asked for; parted after all, everything is', () => {
    const bare = { holes: [], pivots: [], dryRuns: [], listenings: [], readings: [], events: [] }
    const scope = { scope: 'untouched', scopeReason: 'Its owner changed her mind.' } as const
    expect(held({ ...bare, job: { ...scope, partedAt: null } })).toEqual([])
    expect(titles({ ...bare, job: { ...scope, bay: 'arrive', partedAt: null } })).toEqual(['Hand it back as it came'])
    expect(held({ ...bare, job: scope })).toEqual(['pivots', 'holes', 'dry', 'oil', 'beat', 'rate', 'trial'])
  })

  test('one train only: the other is not asked to run dry, nor its arbors', () => {
    const clock = { trains: [...READY.clock.trains, { train: 'strike', power: 'weight' }] }
    const off = { powerOffs: [{ train: 'going' }, { train: 'strike' }] }
    expect(held({ clock, ...off })).toEqual(['pivots', 'holes', 'dry'])
    expect(
      held({ clock, ...off, job: { scope: 'one-train', scopeTrain: 'going', scopeReason: 'So agreed.' } }),
    ).toEqual([])
  })
})

describe('what it is owed, and when', () => {
  test('a clock that waits asks for nothing else, until its day begins at the bench', () => {
    const waits = { bay: 'mend', waitsFor: 'parts', waitsNote: 'A mainspring.', waitsUntil: '2026-03-31' } as const
    const dues = (until: string, timeZone: string) =>
      standing({ job: { ...waits, waitsUntil: until } }, { timeZone }).owed.map((o) => [o.title, o.dueS, o.weight])
    const nine = Date.UTC(2026, 2, 31, 9) / 1000
    expect(dues('2026-03-31', 'UTC')).toEqual([['Ask after the parts', nine, 'watch']])
    // Nine in Tokyo is midnight here; in Honolulu it is still to come.
    expect(dues('2026-03-31', 'Asia/Tokyo')[0]?.[1]).toBe(nine - 9 * 3600)
    expect(dues('2026-03-31', 'Pacific/Honolulu')).toEqual([['Waits for parts', nine + 10 * 3600, 'sound']])
  })

  test('a clock that is promised for a day is owed at five of it, by the workshop’s clock', () => {
    const due = (timeZone: string) =>
      standing({ job: { promisedOn: '2026-04-01' } }, { timeZone }).owed.find((o) => o.kind === 'promise')?.dueS
    expect(due('UTC')).toBe(Date.UTC(2026, 3, 1, 17) / 1000)
    // Summer time has begun.
    expect(due('Europe/Vienna')).toBe(Date.UTC(2026, 3, 1, 15) / 1000)
  })

  test('a bath that is over comes before everything, and what was marked done is gone', () => {
    const timers = [{ id: 't', title: 'Rinse', endsAt: day(29), stopped: false }]
    const { owed } = standing({ timers })
    expect(owed.map((o) => o.title)).toEqual(['Take it out: Rinse', 'Print the owner’s card'])
    expect(titles({ timers: [{ ...timers[0]!, stopped: true }] })).toEqual(['Print the owner’s card'])
    const nowMarks = [{ kind: 'card', subject: '', state: 'not-needed' as const, dueS: null, untilS: null }]
    expect(titles({ nowMarks })).toEqual([])
  })

  test.each<[bay: JobFacts['job']['bay'], part: Part, title: RegExp]>([
    ['arrive', { listenings: [] }, /^Hear it before touching it/],
    ['arrive', {}, /^Send it on to the strip/],
    ['strip', { powerOffs: [], job: { partedAt: null } }, /^Let down the going train/],
    ['strip', { stripMarks: [], job: { partedAt: null } }, /^Mark 2 places before parting/],
    ['strip', { job: { partedAt: null } }, /^Part the plates/],
    ['strip', { stripSteps: [] }, /^Take it apart/],
    ['strip', { cleanParts: [{ done: false }, { done: true }] }, /^Clean 1 part$/],
    ['mend', { holes: [], trainSheets: [sheetWith('Centre arbor')] }, /^List its holes/],
    ['mend', { holes: [left('front'), { ...left('back'), waived: '' }] }, /^Judge 1 more hole/],
    ['mend', { pivots: [READY.pivots[0]!, { ...READY.pivots[1]!, finishedMm: null }] }, /^Finish 1 pivot$/],
    ['mend', {}, /^Assemble it/],
    ['set', { stripSteps: [step('Minute hand', false)] }, /^Put back 1 part$/],
    ['set', { dryRuns: [] }, /^Run it dry/],
    ['set', { events: READY.events.slice(1) }, /^Oil it/],
    ['set', { listenings: [] }, /^Set it in beat/],
    ['set', { events: [...READY.events, event(29, 'stopped')] }, /^It stopped: find out why/],
  ])('in %s, first of all: %#', (bay, { job, ...part }, title) => {
    expect(titles({ ...part, job: { ...job, bay } })[0]).toMatch(title)
  })
})

function sheetWith(name: string): JobFacts['trainSheets'][number] {
  const arbor = { name, wheelTeeth: 64, pinionLeaves: 8 }
  return { train: 'going', arbors: [arbor as never], hourly: null, escape: false, greatTurns: null }
}

function heardOn(n: number): JobFacts['listenings'] {
  return [{ at: day(n), firstToSecondMs: 1001, secondToFirstMs: 999 }]
}

function tried(): JobFacts['arborTests'][number] {
  return { train: 'going', arbor: 'Third arbor', tried: true }
}
