import { ClockChange, HoleChange, Settings, StripStep } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { clashOf, merged, without } from '../src/parts/clash.ts'
import { wordsOf } from '../src/parts/fieldWords.ts'

const words = wordsOf(HoleChange)
const base = { id: 'h', version: 3, longAxisMm: 1.2, shortAxisMm: 1.1, pivotMm: null, waived: '', flagged: false }
const clash = (mine: object, theirs: object, from: object | null = base) =>
  clashOf(
    { words, base: from ?? undefined, mine: { ...base, ...mine }, send: () => undefined },
    { ...base, version: 4, ...theirs },
  )

describe('two people change one row', () => {
  test('another field: nobody is asked, and both changes stand', () => {
    const met = clash({ longAxisMm: 1.3 }, { pivotMm: 1 })
    expect(met.fields).toEqual([])
    expect(merged(met, {})).toMatchObject({ longAxisMm: 1.3, pivotMm: 1 })
  })

  test('the same field: that one is asked about, and keeping mine takes back nothing else of theirs', () => {
    const met = clash({ longAxisMm: 1.3, waived: 'New.' }, { longAxisMm: 1.4, pivotMm: 1 })
    expect(met.fields).toEqual(['longAxisMm'])
    expect(merged(met, {})).toMatchObject({ longAxisMm: 1.3, waived: 'New.', pivotMm: 1 })
    expect(merged(met, { longAxisMm: 'theirs' })).toMatchObject({ longAxisMm: 1.4, waived: 'New.', pivotMm: 1 })
  })

  test('field by field: one mine, one theirs', () => {
    const met = clash({ longAxisMm: 1.3, shortAxisMm: 1.2 }, { longAxisMm: 1.4, shortAxisMm: 1.15 })
    expect(met.fields).toEqual(['longAxisMm', 'shortAxisMm'])
    expect(merged(met, { shortAxisMm: 'theirs' })).toMatchObject({ longAxisMm: 1.3, shortAxisMm: 1.15 })
  })

  test('two figures of one thing are two fields: a clock’s pendulum, the rules for bushing', () => {
    const clock = { name: 'Dial', pendulum: { beatsPerHour: 7200, lengthMm: null, pitchMm: 0.8 }, motion: null }
    const met = clashOf(
      {
        words: wordsOf(ClockChange),
        base: clock,
        mine: { ...clock, pendulum: { ...clock.pendulum, lengthMm: 248, pitchMm: 0.7 } },
        send: () => undefined,
      },
      { ...clock, pendulum: { ...clock.pendulum, beatsPerHour: 7300, pitchMm: 0.75 } },
    )
    expect(met.fields).toEqual(['pendulum.pitchMm'])
    expect(met.words[met.fields[0]!]!.say(0.7)).toBe('0.7 mm')
    expect(merged(met, {}).pendulum).toEqual({ beatsPerHour: 7300, lengthMm: 248, pitchMm: 0.7 })
    expect(merged(met, { 'pendulum.pitchMm': 'theirs' }).pendulum).toEqual({
      beatsPerHour: 7300,
      lengthMm: 248,
      pitchMm: 0.75,
    })
    // Nothing of either person's row is changed by laying them together.
    expect(met.mine.pendulum).toMatchObject({ beatsPerHour: 7200 })
  })

  test('a take-back says what stood there before: what they changed since is asked about, never left as it is', () => {
    const pressed = { ...base, flagged: true }
    const back = { ...pressed, flagged: false }
    const met = clashOf(
      { words, base: without(base, { flagged: false }), mine: back, send: () => undefined },
      { ...pressed, version: 5, pivotMm: 1 },
    )
    expect(met.fields).toEqual(['flagged'])
    expect(merged(met, {})).toMatchObject({ flagged: false, pivotMm: 1 })
  })

  test('the same change twice is no question, nor is a field that nobody reads', () => {
    expect(clash({ longAxisMm: 1.3 }, { longAxisMm: 1.3 }).fields).toEqual([])
    expect(clash({ typed: { longAxis: 1 } }, { typed: { longAxis: 2 } }).fields).toEqual([])
  })

  test('begun anew by both: every field that differs is asked about', () => {
    expect(clash({ longAxisMm: 1.3 }, {}, null).fields).toEqual(['longAxisMm'])
  })
})

describe('a row in words', () => {
  test('labels and units are the schema’s; nothing is shown as it is stored', () => {
    expect(words.longAxisMm).toMatchObject({ label: 'Long way' })
    expect(words.longAxisMm!.say(1.3)).toBe('1.3 mm')
    expect(words.wearDeg!.say(90)).toBe('90°')
    expect(words.longAxisMm!.say(null)).toBe('–')
    expect(words.bushed!.say(true)).toBe('yes')
    expect(words.version).toBeUndefined()
    const { bushing } = wordsOf(Settings)
    expect(bushing!.say({ playPercent: 8, rule: 'play' })).toBe('Play 8 %, Which schools decide play')
    for (const schema of [HoleChange, Settings, StripStep])
      for (const { say } of Object.values(wordsOf(schema))) expect(say({ odd: [1] })).not.toMatch(/[{}"]/)
  })
})
