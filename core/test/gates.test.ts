import { describe, expect, test } from 'vitest'
import {
  gatesOf,
  mayClose,
  oilDue,
  owedTo,
  type Gate,
  type GateFacts,
  type GateName,
  type OwedFacts,
} from '../src/index.ts'

const DAY = 86_400
const NOW = 1_790_000_000

const NOT_DRY = { open: ['going'], tight: [], freeAtS: null }

/** A trial of seven days that has run so many, and has shown all it has to once they are up. */
const trialAt = (days: number): NonNullable<GateFacts['trial']> => ({
  countsFromS: NOW - days * DAY,
  endsAtS: NOW + (7 - days) * DAY,
  over: days >= 7,
  wound: days >= 7,
  needs: days >= 7 ? [] : ['winding'],
  wanted: days >= 7 ? [] : ['a week'],
  day: Math.floor(days) + 1,
  days: 7,
  passed: days >= 7,
})

/** A job with nothing against it: every gate passes. */
const READY: GateFacts = {
  trains: [
    { train: 'going', powerOff: true },
    { train: 'strike', powerOff: true },
  ],
  parted: true,
  holes: [
    { verdict: 'bush', bushed: true },
    { verdict: 'leave', bushed: false },
  ],
  scope: { kind: 'whole', reason: '' },
  holesNotLooked: [],
  pivots: { unfinished: [], sizedBefore: [], notLooked: [] },
  unknownTrains: [],
  dry: { open: [], tight: [], freeAtS: NOW - 20 * DAY },
  oiledAtS: NOW - 19 * DAY,
  oilOpen: [],
  notAgreed: null,
  untold: [],
  beat: { splitGrade: 'sound', atS: NOW - 2 * DAY },
  lastBeatChangeS: NOW - 3 * DAY,
  rate: { secondsPerDay: -4, standardError: 0.5, toleranceSecondsPerDay: 10 },
  trial: trialAt(8),
  cameWith: [
    { name: 'key', state: 'present', returned: true },
    { name: 'bell', state: 'missing', returned: false },
  ],
  leftOver: [],
  nowS: NOW,
  overridden: {},
}

function gate(name: GateName, change: Partial<GateFacts>): Gate {
  return gatesOf({ ...READY, ...change }).find((g) => g.name === name)!
}

test('a job with everything done passes every gate and may be closed', () => {
  const gates = gatesOf(READY)
  expect(gates.filter((g) => !g.passed)).toEqual([])
  expect(mayClose(gates)).toBe(true)
})

describe('each gate holds for its own reason', () => {
  const cases: [GateName, string, Partial<GateFacts>, RegExp][] = [
    [
      'power',
      'a train still wound',
      {
        trains: [
          { train: 'going', powerOff: true },
          { train: 'chime', powerOff: false },
        ],
      },
      /Not confirmed off: chime/,
    ],
    ['power', 'parted with no train named', { trains: [] }, /No train is named/],
    ['holes', 'a hole not measured', { holes: [{ verdict: null, bushed: false }] }, /1 of 1 holes is not measured/],
    [
      'holes',
      'two bushes not in',
      {
        holes: [
          { verdict: 'bush', bushed: false },
          { verdict: 'bush', bushed: false },
        ],
      },
      /2 of 2 holes wait for a bush/,
    ],
    [
      'holes',
      'most never looked at',
      { holesNotLooked: ['Third, back', 'Third, front', 'Escape, back', 'Fly, back'] },
      /looked at 4 holes: Third, back; .* and 1 more/,
    ],
    [
      'pivots',
      'one never looked at',
      { pivots: { ...READY.pivots, notLooked: ['Third, back'] } },
      /looked at 1 pivot: Third, back/,
    ],
    [
      'pivots',
      'one that waits',
      { pivots: { ...READY.pivots, unfinished: ['Fly, back'] } },
      /1 pivot waits: Fly, back/,
    ],
    ['dry', 'never run dry', { dry: NOT_DRY }, /Not run dry and judged yet: the going train/],
    ['dry', 'tight', { dry: { ...NOT_DRY, tight: ['strike'] } }, /Tight when it was run dry: the strike train/],
    ['dry', 'oiled first', { oiledAtS: NOW - 21 * DAY }, /oiled before it ran dry/],
    ['oil', 'a point not ticked off', { oilOpen: ['Third, going'] }, /Not ticked off on its oil map: Third, going/],
    ['oil', 'not oiled', { oiledAtS: null }, /Nothing says that it was oiled/],
    [
      'estimate',
      'a dearer one not answered',
      { notAgreed: 'Estimate 2, 340.00 €, is with the owner and not answered.' },
      /not answered/,
    ],
    ['parts', 'a part broken and not told', { untold: ['glass of the hood'] }, /owner not told: glass of the hood/],
    ['beat', 'never heard', { beat: null }, /not been listened to/],
    ['beat', 'too uneven', { beat: { splitGrade: 'must', atS: NOW } }, /out of beat by more/],
    ['beat', 'changed since it was heard', { lastBeatChangeS: NOW - DAY }, /changed since/],
    ['rate', 'no rate yet', { rate: { ...READY.rate, secondsPerDay: null } }, /Too few readings/],
    [
      'rate',
      'gains too much',
      { rate: { ...READY.rate, secondsPerDay: 14 } },
      /gains 14\.0 ± 0\.5 s a day; 10 is the most/,
    ],
    ['rate', 'not known well enough', { rate: { ...READY.rate, standardError: 12 } }, /not known well enough/],
    ['trial', 'not begun', { trial: null }, /not begun/],
    ['trial', 'day three', { trial: trialAt(2.5) }, /Day 3 of 7. Still wanted: a week/],
    [
      'trial',
      'not wound',
      { trial: { ...trialAt(9), passed: false, wanted: ['a winding'] } },
      /days are up. Still wanted: a winding/,
    ],
    ['parts', 'a washer left over', { leftOver: ['washer under the rack'] }, /Left over .*washer under the rack/],
    [
      'parts',
      'the key not ticked off',
      { cameWith: [{ name: 'key', state: 'present', returned: false }] },
      /Not ticked off yet: key/,
    ],
  ]
  test.each(cases)('%s: %s', (name, _why, change, reason) => {
    const held = gate(name, change)
    expect(held.passed).toBe(false)
    expect(held.reason).toMatch(reason)
    expect(mayClose(gatesOf({ ...READY, ...change }))).toBe(false)
    // In writing it may go on all the same, and the reason stands on the gate.
    const overridden = gatesOf({ ...READY, ...change, overridden: { [name]: 'Owner insists.' } })
    expect(overridden.find((g) => g.name === name)?.overriddenBecause).toBe('Owner insists.')
    expect(mayClose(overridden)).toBe(true)
  })
})

test('a train left wound is no matter while the plates were never parted', () => {
  expect(gate('power', { parted: false, trains: [{ train: 'going', powerOff: false }] }).passed).toBe(true)
})

test('a train of which nothing is written down keeps holes and pivots from being called done', () => {
  const unknown = { unknownTrains: ['strike'] }
  expect(gate('holes', unknown).reason).toMatch(/No arbor of the strike train is written down/)
  expect(gate('pivots', unknown).passed).toBe(false)
  expect(gate('holes', { ...unknown, parted: false }).passed).toBe(true)
})

describe('what a visit has no need of', () => {
  const together: Partial<GateFacts> = {
    parted: false,
    holes: [],
    dry: NOT_DRY,
    oiledAtS: null,
    beat: null,
    rate: { ...READY.rate, secondsPerDay: null },
    trial: null,
    notAgreed: 'Estimate 1, 90.00 €, was declined: it goes back as it came, or a new one is agreed to.',
  }
  const back = { ...together, scope: { kind: 'untouched' as const, reason: 'the owner declined' } }

  test('returned as it came: one reason for all of them, and what came with it is still ticked off', () => {
    expect(mayClose(gatesOf({ ...READY, ...together }))).toBe(false)
    expect(mayClose(gatesOf({ ...READY, ...back }))).toBe(true)
    expect(gate('trial', back)).toMatchObject({ passed: false, notNeeded: 'Goes back as it came: the owner declined' })
    const key = { cameWith: [{ name: 'key', state: 'present', returned: false }] }
    expect(mayClose(gatesOf({ ...READY, ...back, ...key }))).toBe(false)
  })

  test('nothing is left out once the plates were parted, whatever was said', () => {
    expect(mayClose(gatesOf({ ...READY, ...back, parted: true }))).toBe(false)
  })

  test('in place: the beat, the rate and the trial are asked for all the same', () => {
    const inPlace = {
      ...together,
      notAgreed: null,
      scope: { kind: 'in-place' as const, reason: 'tower, cannot be moved' },
    }
    const held = gatesOf({ ...READY, ...inPlace }).filter((g) => !g.passed && g.notNeeded === null)
    expect(held.map((g) => g.name)).toEqual(['beat', 'rate', 'trial'])
  })
})

test('what was missing when it came need not be given back', () => {
  expect(gate('parts', { cameWith: [{ name: 'bell', state: 'missing', returned: false }] }).passed).toBe(true)
})

test('an override of a gate that passes by now no longer shows', () => {
  expect(gate('beat', { overridden: { beat: 'Noise in the street.' } }).overriddenBecause).toBeNull()
})

const passed = gatesOf(READY)
const OWED: OwedFacts = {
  bay: 'set',
  scope: 'whole',
  waits: null,
  untold: [],
  unknownTrains: [],
  holesNotLooked: 0,
  pivotsNotLooked: 0,
  dry: passed.find((g) => g.name === 'dry')!,
  oil: passed.find((g) => g.name === 'oil')!,
  listenings: 2,
  answerAwaitedSinceS: null,
  toOrder: [],
  timers: [],
  marksOpen: 0,
  stripSteps: 3,
  partsToClean: 0,
  woundTrains: [],
  parted: true,
  powerOverridden: false,
  pivotsOpen: 0,
  holesOpen: 0,
  holesTotal: 0,
  holesToBush: 0,
  holesWithoutCutter: 0,
  clicks: { open: [], bad: [] },
  beat: passed.find((g) => g.name === 'beat')!,
  rateAdvice: 'within-tolerance',
  turnSentence: null,
  nextReadingAtS: NOW + DAY,
  lastWoundS: NOW - 2 * DAY,
  windsEveryDays: 7,
  trial: passed.find((g) => g.name === 'trial')!,
  trialAt: null,
  partsToGoBack: 0,
  strikeWanted: [],
  stopUnanswered: null,
  promisedS: null,
  nowS: NOW,
}

describe('what is owed to a clock', () => {
  const first = (change: Partial<OwedFacts>) => owedTo({ ...OWED, ...change })[0]

  test.each<[string, Partial<OwedFacts>, string, string]>([
    ['just come in', { bay: 'arrive', listenings: 0 }, 'Hear it before touching it', 'observe'],
    ['heard', { bay: 'arrive', listenings: 1 }, 'Send it on to the strip', 'send-on'],
    [
      'wound',
      { bay: 'strip', parted: false, woundTrains: ['going', 'strike'] },
      'Let down the going and strike train',
      'make-safe',
    ],
    ['let down', { bay: 'strip', parted: false }, 'Part the plates', 'make-safe'],
    ['let down, two marks open', { bay: 'strip', parted: false, marksOpen: 2 }, 'Mark 2 places before parting', 'mark'],
    ['parted, nothing logged', { bay: 'strip', stripSteps: 0 }, 'Take it apart, step by step', 'take-apart'],
    ['in pieces', { bay: 'strip', partsToClean: 14 }, 'Clean 14 parts', 'clean'],
    ['a bath is over', { timers: [{ id: 't', title: 'Bath', endsS: NOW - 5 }] }, 'Take it out: Bath', 'bath'],
    ['parted and clean', { bay: 'strip' }, 'Measure its holes', 'measure'],
    ['no list', { bay: 'mend', holesNotLooked: 16 }, 'List its holes', 'measure'],
    ['a train unknown', { bay: 'mend', unknownTrains: ['strike'] }, 'Write down the strike train', 'counts'],
    ['half measured', { bay: 'mend', holesTotal: 12, holesOpen: 6 }, 'Judge 6 more holes', 'measure'],
    ['four listed of twenty', { bay: 'mend', holesTotal: 4, holesNotLooked: 16 }, 'Judge 16 more holes', 'measure'],
    ['pivots never looked at', { bay: 'mend', holesTotal: 4, pivotsNotLooked: 3 }, 'Look at 3 pivots', 'pivots'],
    ['back together', { dry: gate('dry', { dry: NOT_DRY }) }, 'Run it dry on little power', 'dry'],
    ['ran dry', { oil: gate('oil', { oiledAtS: null }) }, 'Oil it', 'oil'],
    [
      'waits for a spring',
      { bay: 'mend', waits: { for: 'parts', note: 'Mainspring.', untilS: NOW + DAY } },
      'Waits for parts',
      'waits',
    ],
    [
      'waited long enough',
      { bay: 'mend', waits: { for: 'owner', note: '', untilS: NOW - DAY } },
      'Ask after the owner’s answer',
      'waits',
    ],
    ['a part broken', { untold: [{ key: 'loss:1', what: 'glass' }] }, 'Tell the owner: glass', 'tell-owner'],
    ['goes back as it came', { bay: 'mend', parted: false, scope: 'untouched' }, 'Hand it back as it came', 'card'],
    ['measured', { bay: 'mend', holesTotal: 12, holesToBush: 1 }, 'Bush 1 hole', 'bush'],
    ['mended', { bay: 'mend', holesTotal: 12 }, 'Assemble it', 'assemble'],
    ['parts still out', { partsToGoBack: 3, dry: gate('dry', { dry: NOT_DRY }) }, 'Put back 3 parts', 'assemble'],
    ['stopped', { stopUnanswered: { showed: '3:47' } }, 'It stopped at 3:47: find out why', 'stop'],
    [
      'its days are up and it was not wound',
      {
        trial: gate('trial', { trial: { ...trialAt(9), passed: false } }),
        trialAt: { ...trialAt(9), over: false, wanted: ['a full winding'] },
      },
      'Its trial still wants: a full winding',
      'trial',
    ],
    ['out of beat', { beat: gate('beat', { beat: null }) }, 'Set it in beat', 'beat'],
    [
      'a turn supported',
      { rateAdvice: 'turn', turnSentence: 'Raise the nut by ¼ turn' },
      'Raise the nut by ¼ turn',
      'turn',
    ],
    ['a reading due', { nextReadingAtS: NOW - 60 }, 'Take a reading', 'reading'],
    ['never read', { nextReadingAtS: null }, 'Take its first reading', 'reading'],
    ['ready', { bay: 'return' }, 'Print the owner’s card', 'card'],
  ])('%s', (_name, change, title, kind) => {
    expect(first(change)).toMatchObject({ title, kind })
  })

  test('a clock that can’t go on comes before one that is due, and that before what is to come', () => {
    const list = owedTo({ ...OWED, lastWoundS: NOW - 8 * DAY, nextReadingAtS: NOW - 60, promisedS: NOW + DAY })
    expect(list.map((o) => o.weight)).toEqual(
      [...list.map((o) => o.weight)].sort(
        (a, b) => ['must', 'watch', 'sound'].indexOf(a) - ['must', 'watch', 'sound'].indexOf(b),
      ),
    )
    expect(list[0]?.title).toBe('Wind it, all trains')
  })

  test('winding is owed a day ahead, and not before', () => {
    const winds = (days: number) => owedTo({ ...OWED, lastWoundS: NOW - days * DAY }).some((o) => o.kind === 'wind')
    expect([winds(3), winds(6.5)]).toEqual([false, true])
  })

  test('a promise within three days stands on the list, one that is past is a must', () => {
    expect(owedTo({ ...OWED, promisedS: NOW + 4 * DAY }).some((o) => o.kind === 'promise')).toBe(false)
    expect(owedTo({ ...OWED, promisedS: NOW - DAY }).find((o) => o.kind === 'promise')).toMatchObject({
      weight: 'must',
      title: 'Ring the owner: it is late',
    })
  })

  test('an estimate is asked after once the owner has had it three days', () => {
    const answer = (days: number) =>
      owedTo({ ...OWED, answerAwaitedSinceS: NOW - days * DAY }).find((o) => o.kind === 'answer')
    expect(answer(0)).toMatchObject({ weight: 'sound', why: 'Sent today.' })
    expect(answer(4)).toMatchObject({ weight: 'watch', title: 'Ask the owner about the estimate' })
    expect(owedTo(OWED).some((o) => o.kind === 'answer')).toBe(false)
  })

  test('each part to order and each bath stands for itself', () => {
    const list = owedTo({
      ...OWED,
      toOrder: [{ id: 'spring', title: 'Mainspring 19 × 0.40' }],
      timers: [
        { id: 'one', title: 'Bath one', endsS: NOW + 100 },
        { id: 'two', title: 'Bath two', endsS: NOW + 50 },
      ],
    })
    expect(list.filter((o) => o.kind === 'bath').map((o) => o.subject)).toEqual(['two', 'one'])
    expect(list.find((o) => o.kind === 'order')).toMatchObject({
      title: 'Order: Mainspring 19 × 0.40',
      subject: 'spring',
    })
  })

  test('a bad click is owed before all else, and one that nobody judged before it is assembled', () => {
    const done = { bay: 'mend', parted: true, holesTotal: 3 } as const
    expect(first({ ...done, holesToBush: 1, clicks: { open: [], bad: ['strike'] } })).toMatchObject({
      kind: 'click',
      weight: 'must',
      title: 'Mend the click of the strike train',
    })
    expect(first({ ...done, clicks: { open: ['going'], bad: [] } })).toMatchObject({ kind: 'click' })
    expect(first({ ...done, holesToBush: 1, clicks: { open: ['going'], bad: [] } })).toMatchObject({ kind: 'bush' })
    expect(first(done)).toMatchObject({ kind: 'assemble' })
  })

  test('a clock without a cutter for its hole says so first', () => {
    expect(first({ bay: 'mend', holesTotal: 3, holesToBush: 1, holesWithoutCutter: 1 })).toMatchObject({
      kind: 'no-cutter',
      weight: 'watch',
    })
  })
})

describe('oil', () => {
  test.each([
    ['default', '2029-03-10', '2031-03-10'],
    ['short', '2027-03-10', '2029-03-10'],
    ['middle', '2030-03-10', '2032-03-10'],
    ['long', '2033-03-10', '2036-03-10'],
  ] as const)('%s school', (school, checkOn, serviceOn) => {
    expect(oilDue('2026-03-10T14:00:00Z', school)).toEqual({ checkOn, serviceOn })
  })

  test('oil put on in place is a stop-gap: looked at after one year, whatever the school', () => {
    expect(oilDue('2026-03-10', 'long', { stopGap: true })).toEqual({ checkOn: '2027-03-10', serviceOn: '2028-03-10' })
  })

  test('oiled on a leap day, it is due on the last of February', () => {
    expect(oilDue('2028-02-29', 'short')).toEqual({ checkOn: '2029-02-28', serviceOn: '2031-02-28' })
  })
})
