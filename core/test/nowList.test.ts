import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  BAY_NAMES,
  gatesOf,
  isHeld,
  mayClose,
  owedTo,
  type Gate,
  type GateFacts,
  type OwedFacts,
} from '../src/index.ts'

const NOW = 1_790_000_000
const DAY = 86_400

const passed = (name: Gate['name']): Gate => ({
  name,
  title: '',
  passed: true,
  reason: 'So it is.',
  notNeeded: null,
  overriddenBecause: null,
})
const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null })
const when = fc.integer({ min: NOW - 90 * DAY, max: NOW + 30 * DAY })

const trialFacts = fc.record({
  countsFromS: when,
  endsAtS: when,
  over: fc.boolean(),
  wound: fc.boolean(),
  needs: fc.subarray(['winding' as const, 'strike' as const]),
  wanted: fc.subarray(['4 days more without a change', 'a full winding since it counts'], { minLength: 1 }),
  day: fc.integer({ min: 1, max: 20 }),
  days: fc.constant(7),
  passed: fc.boolean(),
})

const facts: fc.Arbitrary<OwedFacts> = fc.record({
  bay: fc.constantFrom(...BAY_NAMES),
  scope: fc.constantFrom('whole' as const, 'untouched' as const, 'in-place' as const),
  waits: maybe(
    fc.record({ for: fc.constantFrom('parts' as const, 'owner' as const), note: fc.constant(''), untilS: maybe(when) }),
  ),
  untold: fc.uniqueArray(fc.record({ key: fc.uuid(), what: fc.constant('a glass') }), {
    selector: (l) => l.key,
    maxLength: 2,
  }),
  unknownTrains: fc.subarray(['strike']),
  holesNotLooked: fc.nat(4),
  pivotsNotLooked: fc.nat(4),
  dry: fc.boolean().map((ok) => ({ ...passed('dry'), passed: ok })),
  oil: fc.boolean().map((ok) => ({ ...passed('oil'), passed: ok })),
  listenings: fc.nat(3),
  answerAwaitedSinceS: maybe(fc.integer({ min: NOW - 30 * DAY, max: NOW })),
  toOrder: fc.uniqueArray(fc.record({ id: fc.uuid(), title: fc.constant('Spring') }), {
    selector: (o) => o.id,
    maxLength: 3,
  }),
  timers: fc.uniqueArray(fc.record({ id: fc.uuid(), title: fc.constant('Bath'), endsS: when }), {
    selector: (t) => t.id,
    maxLength: 3,
  }),
  marksOpen: fc.nat(5),
  stripSteps: fc.nat(5),
  partsToClean: fc.nat(5),
  woundTrains: fc.subarray(['going', 'strike', 'chime']),
  parted: fc.boolean(),
  powerOverridden: fc.boolean(),
  pivotsOpen: fc.nat({ max: 3 }),
  holesOpen: fc.nat(4),
  holesTotal: fc.integer({ min: 4, max: 12 }),
  holesToBush: fc.nat(4),
  holesWithoutCutter: fc.nat(2),
  clicks: fc.record({ open: fc.subarray(['going', 'strike']), bad: fc.subarray(['chime']) }),
  beat: fc.boolean().map((ok) => ({ ...passed('beat'), passed: ok })),
  rateAdvice: fc.constantFrom('turn' as const, 'too-few-readings' as const, null),
  turnSentence: maybe(fc.constant('Raise the nut by ¼ turn')),
  nextReadingAtS: maybe(when),
  lastWoundS: maybe(when),
  windsEveryDays: maybe(fc.integer({ min: 1, max: 30 })),
  trial: fc.boolean().map((ok) => ({ ...passed('trial'), passed: ok })),
  trialAt: maybe(trialFacts),
  partsToGoBack: fc.nat(3),
  strikeWanted: fc.subarray(['struck round the dial: 2 of 12 heard']),
  stopUnanswered: maybe(fc.constant({ showed: '3:47' })),
  promisedS: maybe(when),
  nowS: fc.constant(NOW),
})

describe('whatever state a clock is in', () => {
  test('there is something next, said as an instruction with its reason', () => {
    fc.assert(
      fc.property(facts, (f) => {
        const list = owedTo(f)
        expect(list.length).toBeGreaterThan(0)
        for (const { title, why } of list) {
          expect(title).toMatch(/^[A-Z]/)
          expect(why).toMatch(/\.$/)
        }
      }),
    )
  })

  test('what must be done stands before what is watched, and that before what is in order', () => {
    const order = ['must', 'watch', 'sound']
    fc.assert(
      fc.property(facts, (f) => {
        const weights = owedTo(f).map((o) => order.indexOf(o.weight))
        expect(weights).toEqual([...weights].sort((a, b) => a - b))
      }),
    )
  })

  test('no two entries are the same thing, so that each can be ticked off by itself', () => {
    fc.assert(
      fc.property(facts, (f) => {
        const keys = owedTo(f).map((o) => `${o.kind} ${o.subject}`)
        // A hole to measure and one without a cutter are different kinds; a bay has one next step.
        expect(new Set(keys).size).toBe(keys.length)
      }),
    )
  })

  test('plates are never to be parted while a train is wound, nor before the meshes are marked', () => {
    fc.assert(
      fc.property(facts, (f) => {
        const titles = owedTo({ ...f, bay: 'strip', parted: false, waits: null, scope: 'whole' }).map((o) => o.title)
        const wound = f.woundTrains.length > 0 && !f.powerOverridden
        if (wound || f.marksOpen > 0) expect(titles).not.toContain('Part the plates')
        else expect(titles).toContain('Part the plates')
      }),
    )
  })

  test('a bath that is over is a must, one that runs is not', () => {
    fc.assert(
      fc.property(facts, (f) => {
        for (const { subject, weight, dueS } of owedTo(f).filter((o) => o.kind === 'bath')) {
          expect(f.timers.find((t) => t.id === subject)?.endsS).toBe(dueS)
          expect(weight).toBe(dueS! <= NOW ? 'must' : 'watch')
        }
        expect(owedTo(f).filter((o) => o.kind === 'bath')).toHaveLength(f.timers.length)
      }),
    )
  })
})

describe('gates, whatever the facts', () => {
  const gateFacts: fc.Arbitrary<GateFacts> = fc.record({
    pivots: fc.record({
      unfinished: fc.array(fc.constant('Third, back'), { maxLength: 2 }),
      sizedBefore: fc.array(fc.constant('Third, back'), { maxLength: 1 }),
      notLooked: fc.array(fc.constant('Third, back'), { maxLength: 1 }),
    }),
    scope: fc.record({
      kind: fc.constantFrom('whole' as const, 'in-place' as const, 'untouched' as const),
      reason: fc.constant('agreed'),
    }),
    holesNotLooked: fc.array(fc.constant('Third, back'), { maxLength: 1 }),
    unknownTrains: fc.array(fc.constant('strike'), { maxLength: 1 }),
    dry: fc.record({
      open: fc.subarray(['going']),
      tight: fc.subarray(['strike']),
      freeAtS: maybe(when),
    }),
    oiledAtS: maybe(when),
    oilOpen: fc.subarray(['Third, going']),
    notAgreed: maybe(fc.constant('It is not answered.')),
    untold: fc.array(fc.constant('glass'), { maxLength: 1 }),
    trains: fc.array(fc.record({ train: fc.constantFrom('going', 'strike'), powerOff: fc.boolean() }), {
      maxLength: 2,
    }),
    parted: fc.boolean(),
    holes: fc.array(
      fc.record({ verdict: fc.constantFrom('bush' as const, 'leave' as const, null), bushed: fc.boolean() }),
      { maxLength: 4 },
    ),
    beat: maybe(
      fc.record({ splitGrade: fc.constantFrom('sound' as const, 'watch' as const, 'must' as const), atS: when }),
    ),
    lastBeatChangeS: maybe(when),
    rate: fc.record({
      secondsPerDay: maybe(fc.double({ min: -60, max: 60, noNaN: true })),
      standardError: maybe(fc.double({ min: 0.01, max: 30, noNaN: true })),
      toleranceSecondsPerDay: fc.constant(10),
    }),
    trial: maybe(trialFacts),
    cameWith: fc.array(
      fc.record({ name: fc.constant('key'), state: fc.constantFrom('present', 'missing'), returned: fc.boolean() }),
      { maxLength: 3 },
    ),
    leftOver: fc.array(fc.constant('washer'), { maxLength: 2 }),
    nowS: fc.constant(NOW),
    overridden: fc.constant({}),
  })

  test('a job closes only when every gate is passed, or each that is not is overridden', () => {
    fc.assert(
      fc.property(gateFacts, (f) => {
        const gates = gatesOf(f)
        expect(mayClose(gates)).toBe(gates.every((g) => g.passed || g.notNeeded !== null))
        const all = Object.fromEntries(gates.map((g) => [g.name, 'By agreement.']))
        expect(mayClose(gatesOf({ ...f, overridden: all }))).toBe(true)
        const held = gates.find(isHeld)
        if (held) {
          const { [held.name]: _, ...others } = all
          expect(mayClose(gatesOf({ ...f, overridden: others }))).toBe(false)
        }
      }),
    )
  })

  test('nothing is handed over while a part is left over', () => {
    fc.assert(
      fc.property(gateFacts, (f) => {
        const parts = gatesOf({ ...f, untold: [], leftOver: ['washer'] }).find((g) => g.name === 'parts')
        expect(parts).toMatchObject({ passed: false })
        expect(parts?.reason).toContain('washer')
      }),
    )
  })
})
