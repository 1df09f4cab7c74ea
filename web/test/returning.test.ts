import {
  blankHole,
  DEFAULT_SETTINGS,
  LANGUAGES,
  USUAL_CARD,
  type CardChoices,
  type Estimate,
  type JobPage,
  type ListeningSummary,
  type ObservationRow,
} from '@treadle/contract'
import { CARE_PARTS, dialTime, drawPart, handsPlan, isMade, PART_SIZES, type SeasonAhead } from '@treadle/core'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { LETTER_WORDS } from '../src/places/care/letterWords.ts'
import { CARD_WORDS } from '../src/surfaces/card/cardWords.ts'
import { ownerCard } from '../src/surfaces/card/ownerCard.ts'
import { fromTaps } from '../src/surfaces/hands/DialPicture.tsx'
import { agreedOf, newInvoice } from '../src/surfaces/invoice/fromEstimate.ts'
import { heldForBeat } from '../src/surfaces/setUp/BeatInPlace.tsx'
import { heldToSettle } from '../src/surfaces/setUp/Settling.tsx'
import { beforeAndAfter, changesOf, pictureKey, picturesOf, workOf } from '../src/surfaces/report/reportOf.ts'
import { PAGE } from './page.ts'

const STAMP = { jobId: 'j', at: '2026-03-01T10:00:00Z', who: 'Ida' }

const SEASON: SeasonAhead = {
  months: Array.from({ length: 12 }, (_, i) => ({ month: i + 1, celsius: 15, secondsPerDay: i < 6 ? 1.5 : -1.5 })),
  ...{ standardError: 0.1, straysS: 180, leaveAtSecondsPerDay: 1 },
}

/** What every function of a language is asked with, so that none is left unsaid. */
const ASKED: Record<string, unknown[][]> = {
  month: [['2026-03-01']],
  day: [['2026-03-01']],
  job: [['Gull Row', 7, '1 March']],
  hangPendulum: [[true], [false]],
  limps: [[true], [false]],
  wind: [[null], [1], [8]],
  windToStop: [[1], [2]],
  minuteHand: [[true], [false]],
  nut: [[null], [30], [5]],
  season: [[SEASON]],
  parted: [[true], [false]],
  bushed: [[{ holes: 1, where: 'third arbor, back' }], [{ holes: 3, where: 'third arbor, back' }]],
  mended: [[['A new mainspring: going.']], [['A new mainspring: going.', 'Teeth dressed: great wheel, going.']]],
  beat: [['35', '0.4']],
  drive: [[{ before: 1.76, now: 1.16, unit: 'kg' }]],
  rate: [
    [{ nut: true, secondsPerDay: -2.5, error: 0.3, readings: 9 }],
    [{ nut: false, secondsPerDay: 2.5, error: 0.3, readings: 9 }],
  ],
  due: [['March 2029', 'March 2031']],
  guarantee: [['1 March 2026', '28 February 2027']],
}

/** Every text of a set of words, by where it stands. */
function textsOf(words: object, path = ''): [where: string, text: string][] {
  return Object.entries(words).flatMap(([key, value]): [string, string][] => {
    const where = `${path}${key}`
    if (typeof value === 'string') return [[where, value]]
    if (typeof value === 'object' && value !== null) return textsOf(value as object, `${where}.`)
    const asked = ASKED[key]
    if (!asked) throw new Error(`Nothing is asked of ${where}.`)
    return asked.flatMap((args, i) =>
      [(value as (...a: unknown[]) => string | string[])(...args)]
        .flat()
        .map((text, j): [string, string] => [`${where} ${i} ${j}`, text]),
    )
  })
}

describe('the languages of the card', () => {
  test.each(LANGUAGES)('%s says everything, and says no “undefined”', (language) => {
    const texts = textsOf(CARD_WORDS[language])
    expect(texts.length).toBeGreaterThan(60)
    for (const [where, text] of texts) {
      expect([where, text.trim().length > 1]).toEqual([where, true])
      expect([where, /undefined|null|NaN|\[object/.test(text)]).toEqual([where, false])
    }
  })

  test('none is left in English', () => {
    const english = new Map(textsOf(CARD_WORDS.en))
    const same = textsOf(CARD_WORDS.de).filter(([where, text]) => english.get(where) === text)
    expect(same).toEqual([])
  })

  test('letters too, on time and late, of every kind', () => {
    for (const language of LANGUAGES) {
      const words = LETTER_WORDS[language]
      for (const body of Object.values(words.body))
        for (const late of [false, true]) {
          const lines = body({ clock: 'Kitchen clock', oiled: 'März 2024', due: 'April 2026', late })
          expect(lines.length).toBe(2)
          expect(lines.join(' ')).toContain('Kitchen clock')
          expect(lines.join(' ')).toContain('April 2026')
          expect(lines.join(' ')).not.toMatch(/undefined|\[object/)
        }
      expect(words.answer('')).not.toContain('undefined')
      const all = words.withIt([...CARE_PARTS])
      expect(all.length).toBe(2)
      expect(all.join(' ')).not.toMatch(/undefined|\[object/)
      // Who has no mercury is not told to leave it alone.
      expect(words.withIt(['suspension']).join(' ')).not.toMatch(/mercury|Quecksilber/)
    }
    const [en, de] = [LETTER_WORDS.en, LETTER_WORDS.de]
    expect(de.farewell).not.toBe(en.farewell)
  })

  test('both have the same sections in the same order for the same clock, each line for line', () => {
    const clock = { ...PAGE.clock, work: { ...PAGE.clock.work, moon: true, calendar: true, mercury: true } }
    const of = (language: 'en' | 'de') => ownerCard({ ...PAGE, clock }, [], DEFAULT_SETTINGS, language, '2026-11-29')
    const [en, de] = [of('en'), of('de')]
    expect(de.sections.map((s) => s.lines.length)).toEqual(en.sections.map((s) => s.lines.length))
    expect(de.done.length).toBe(en.done.length)
    expect(de.sections.map((s) => s.title)).toContain('Mond und Datum')
  })
})

describe('the choices of the card', () => {
  const lines = (part: Partial<CardChoices>, more: Partial<JobPage['clock']> = {}, settings = DEFAULT_SETTINGS) =>
    ownerCard(
      { ...PAGE, clock: { ...PAGE.clock, card: { ...USUAL_CARD, ...part }, ...more } },
      [],
      settings,
      'en',
      '2026-11-29',
    )
  const text = (...asked: Parameters<typeof lines>) =>
    lines(...asked)
      .sections.flatMap((s) => s.lines)
      .join(' ')

  test('an owner who does not regulate is told of no nut', () => {
    expect(text({})).toMatch(/Under the bob is a nut/)
    expect(text({ regulates: false })).not.toMatch(/Under the bob|Turn once/)
    expect(text({ regulates: false })).toMatch(/Leave the nut/)
  })

  test('the pulleys are oiled only by whom it was said, and only where there are any', () => {
    expect(text({})).toMatch(/Never oil it yourself/)
    expect(text({ oilsPulleys: true })).toMatch(/each pulley’s axle/)
    const spring = { trains: [{ train: 'going' as const, power: 'spring' as const }] }
    expect(text({ oilsPulleys: true }, spring)).toMatch(/Never oil it yourself/)
  })

  test('a moon that stands still is left alone', () => {
    const work = { ...PAGE.clock.work, moon: true }
    expect(text({}, { work })).toMatch(/one click at a time/)
    const soldered = { state: 'soldered' as const, clicksPerLunation: null, southern: false, tideMinutes: null }
    expect(text({}, { work: { ...work, moonWork: soldered } })).toMatch(/Its moon stands still/)
  })

  test('the guarantee runs from hand-over, as long as the workshop gives it', () => {
    expect(lines({}).guarantee).toBe('Our guarantee is from 29 November 2026 to 28 November 2027.')
    expect(lines({}, {}, { ...DEFAULT_SETTINGS, guaranteeMonths: 0 }).guarantee).toBe('')
    const closed = { ...PAGE, job: { ...PAGE.job, closedAt: '2026-03-15T10:00:00.000Z' } }
    expect(ownerCard(closed, [], DEFAULT_SETTINGS).guarantee).toContain('from 15 March 2026 to 14 March 2027')
    // Handed over in the evening where it is tomorrow in UTC already.
    const evening = { ...PAGE, job: { ...PAGE.job, closedAt: '2026-03-16T01:30:00.000Z' } }
    const west = { ...DEFAULT_SETTINGS, timeZone: 'America/Vancouver' }
    expect(ownerCard(evening, [], west).guarantee).toContain('from 15 March 2026 to 14 March 2027')
  })
})

describe('two taps on a dial', () => {
  test('read the time at which the hands stand so, for every minute of the dial', () => {
    for (let minutes = 0; minutes < 720; minutes++) expect(fromTaps(minutes / 2, 6 * (minutes % 60))).toBe(minutes)
  })

  test('a hand tapped a few degrees off is still read, and its plan is the same', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 719 }),
        fc.double({ min: -12, max: 12, noNaN: true }),
        fc.double({ min: -2.9, max: 2.9, noNaN: true }),
        (minutes, hourOff, minuteOff) => {
          const read = fromTaps(minutes / 2 + hourOff, 6 * (minutes % 60) + minuteOff)
          expect(dialTime(read)).toBe(dialTime(minutes))
          expect(handsPlan({ showsMinutes: read, trueMinutes: minutes }).forwardMinutes).toBe(0)
        },
      ),
    )
  })
})

describe('an invoice', () => {
  const line = (title: string, kind: 'fixed' | 'range' | 'if-needed') => ({
    ...{
      id: title,
      title,
      kind,
      quantity: 1,
      unit: '',
      unitPrice: '10.00',
      upToPrice: null,
      taxed: true,
      order: false,
    },
  })
  const estimate = (revision: number, state: Estimate['state']): Estimate => ({
    ...{ id: `e${revision}`, version: 1, revision, state, choices: [], chosen: '', currency: '£', taxPercent: '20' },
    ...{ depositPercent: '30', note: '', sentAt: null, answer: null },
    lines: [line('Service', 'fixed'), line('A new pivot', 'if-needed')],
  })

  test('begins with what the owner accepted last; what was only if needed is left until somebody says it was', () => {
    const agreed = agreedOf([estimate(1, 'accepted'), estimate(2, 'accepted'), estimate(3, 'sent')])
    expect(agreed?.revision).toBe(2)
    const invoice = newInvoice(agreed, DEFAULT_SETTINGS, '2026-11-29')
    expect(invoice.lines.map((l) => [l.title, l.source, l.why])).toEqual([
      ['Service', 'estimate', ''],
      ['A new pivot', 'left', 'not needed'],
    ])
    expect([invoice.currency, invoice.taxPercent, invoice.payments]).toEqual(['£', '20', []])
  })

  test('begins empty where nothing was agreed', () => {
    expect(agreedOf([estimate(1, 'declined')])).toBeUndefined()
    expect(newInvoice(undefined, DEFAULT_SETTINGS, '2026-11-29').lines).toEqual([])
  })
})

describe('the report', () => {
  const photo = (id: string, takenAt: string) => ({
    ...{ id, jobId: 'j', caption: id, width: 10, height: 10 },
    takenAt,
  })
  const event = (kind: 'oiled', at: string) => ({
    ...{ id: at, version: 1, at, kind, turns: null, showed: '', note: '' },
    ...STAMP,
    at,
  })
  const page: JobPage = {
    ...PAGE,
    job: { ...PAGE.job, partedAt: '2026-03-05T10:00:00Z' },
    photos: [
      photo('came', '2026-03-01T10:00:00Z'),
      photo('apart', '2026-03-10T10:00:00Z'),
      photo('ready', '2026-04-01T10:00:00Z'),
    ],
    events: [event('oiled', '2026-03-20T10:00:00Z')],
  }
  const names = (of: ReturnType<typeof picturesOf>) => [of.before.map((p) => p.id), of.after.map((p) => p.id)]

  test('shows what was taken before it was parted, and after it was oiled', () => {
    expect(names(picturesOf(page))).toEqual([['came'], ['ready']])
  })

  test('unless somebody chose otherwise', () => {
    const said = (id: string, answer: string) => ({
      ...{ id, version: 1, key: pictureKey(id), answer, figure: null, second: null, note: '', photoId: null },
      ...STAMP,
    })
    const chosen = { ...page, observations: [said('came', 'out'), said('apart', 'after')] }
    expect(names(picturesOf(chosen))).toEqual([[], ['apart', 'ready']])
  })

  test('says made only of what is made: a part that was begun is not told', () => {
    const sizes = Object.fromEntries(PART_SIZES.arbor.map((s) => [s.key, s.startMm]))
    const steps = drawPart('arbor', sizes).steps.map((s) => s.key)
    const part = (id: string, done: string[], name = '') => ({
      ...{ id, version: 1, part: 'arbor' as const, name, sizes, done },
      ...STAMP,
    })
    const condition = (id: string, partClass: 'original' | 'made-now', note = '') => ({
      ...{ id, version: 1, kind: 'part' as const, name: id, class: partClass, note, photoId: null, x: null, y: null },
      ...STAMP,
    })
    const told = changesOf({
      ...page,
      madeParts: [part('a', []), part('b', steps.slice(0, 2)), part('c', steps, 'Third arbor')],
      conditions: [condition('Bob', 'original'), condition('Minute hand', 'made-now', 'after the old one')],
    })
    expect(told).toEqual(['Minute hand: made now, after the old one', 'Third arbor, arbor: made'])
    expect(isMade(part('d', [...steps, 'a step of before']))).toBe(true)
    expect(isMade({ ...part('e', steps), sizes: {} })).toBe(false)
  })

  test('tells what was done in the words of the clock’s history', () => {
    const hole = {
      ...blankHole('h', { train: 'going', arbor: 'Third arbor', arborIndex: 2, plate: 'back', role: 'other' }),
      ...{ jobId: 'j', measuredBy: 'Ida', bushed: true },
    }
    expect(workOf({ ...page, holes: [hole] }, DEFAULT_SETTINGS)).toEqual(
      expect.arrayContaining(['Taken apart.', 'One hole bushed: third arbor, back.', 'Oiled.']),
    )
    const untouched = { ...page, job: { ...page.job, scope: 'untouched' as const, partedAt: null } }
    expect(workOf(untouched, DEFAULT_SETTINGS)).toEqual(['It went back as it came.'])
  })

  test('measures only what was measured', () => {
    expect(beforeAndAfter({ ...page, listenings: [] }).map((l) => l.title)).toEqual(['Ran'])
  })
})

describe('at the house, what may be said to be so', () => {
  const heard = (minute: number, outMs: number, purpose: ListeningSummary['purpose'] = 'in-place') =>
    ({
      ...{ at: `2026-03-01T10:${minute}:00Z`, purpose, firstSide: null, outOfBeatStandardError: 0.1 },
      ...{ firstToSecondMs: 500 + outMs, secondToFirstMs: 500 - outMs },
    }) as ListeningSummary
  const ear = (minute: number | null, answer = 'even') => ({
    of: () =>
      minute === null ? undefined : ({ answer, at: `2026-03-01T10:${minute}:00Z` } as unknown as ObservationRow),
  })
  const held = (listenings: ListeningSummary[], byEar: ReturnType<typeof ear>) =>
    heldForBeat(listenings, byEar, DEFAULT_SETTINGS)

  test('the beat is even once it was heard even here; on the stand is not here', () => {
    expect(held([], ear(null))).toMatch(/Hear it here first/)
    expect(held([heard(10, 0.4, 'beat')], ear(null))).toMatch(/Hear it here first/)
    expect(held([heard(10, 0.4)], ear(null))).toBeNull()
    expect(held([heard(10, 60)], ear(null))).toMatch(/^It was 60\.0 ms out/)
    expect(held([heard(10, 60), heard(20, 0.4)], ear(null))).toBeNull()
  })

  test('or even by ear, until an instrument hears it limp', () => {
    expect(held([], ear(10))).toBeNull()
    expect(held([], ear(10, ''))).not.toBeNull()
    expect(held([heard(10, 60)], ear(20))).toBeNull()
    expect(held([heard(30, 60)], ear(20))).toMatch(/60\.0 ms out/)
  })

  test('its minutes are counted from when it was set going', () => {
    const going = '2026-03-01T10:00:00Z'
    const after = (minutes: number) => heldToSettle(going, Date.parse(going) + minutes * 60_000)
    expect(heldToSettle(null)).toMatch(/not set going/)
    expect(after(0)).toMatch(/^10 minutes more/)
    expect(after(9.5)).toMatch(/^1 minute more/)
    expect(after(10)).toBeNull()
  })
})
