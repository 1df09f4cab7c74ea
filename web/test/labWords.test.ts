import { blankPart, compensationsOf, laboratoryOf, neededAgainst, type Needed, type SheetPart } from '@treadle/core'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { labelOf, spread } from '../src/lab/labels.ts'
import { compensationWords, headlineOf, remedyOf } from '../src/lab/words.ts'

const needed: Needed = {
  lengthMm: 994,
  tooLongMm: 3.31,
  secondsPerDay: -144,
  lowerMm: -3.4,
  turns: 4.25,
  reaches: true,
  bobG: null,
}

describe('needed against found, in words', () => {
  test('says how much, which way, how many turns, and whether the thread reaches', () => {
    expect(headlineOf(needed)).toBe('3.3 mm too long')
    expect(remedyOf(needed)).toBe(
      'It loses 144 s a day. Raise all that rides on the nut by 3.4 mm: 4¼ turns. The thread reaches.',
    )
    expect(remedyOf({ ...needed, turns: null, reaches: null })).toMatch(/by 3\.4 mm\. Measure the thread/)
  })

  test('a thread that does not reach names the rod or the bob that would do', () => {
    expect(remedyOf({ ...needed, reaches: false, bobG: 3104.2 })).toMatch(
      /does not reach: a shorter rod, or one that hangs higher, by 3\.4 mm; or a bob of 3104 g/,
    )
    const short = { ...needed, secondsPerDay: 900, tooLongMm: -20, lowerMm: 20, reaches: false }
    expect(headlineOf(short)).toBe('20 mm too short')
    expect(remedyOf(short)).toMatch(/^It gains 15 minutes a day\. Lower .* a longer rod/)
  })

  test('what is right within two seconds a day is left to the nut', () => {
    const right = { ...needed, secondsPerDay: 1.2, tooLongMm: -0.02 }
    expect(headlineOf(right)).toBe('As long as it should be')
    expect(remedyOf(right)).toBe('It gains 1.20 s a day as it hangs: the nut does the rest.')
    expect(remedyOf({ ...needed, lowerMm: null, reaches: false })).toMatch(/another rod or bob/)
  })

  test('agrees with what the core reckons of a bob hung too low', () => {
    const parts: SheetPart[] = [
      { ...blankPart('rod'), atMm: 520, lengthMm: 1010, acrossMm: 7 },
      { ...blankPart('bob'), atMm: 990, acrossMm: 170, massG: 4200 },
    ]
    const { beatsPerHour } = laboratoryOf(parts.map((p) => (p.kind === 'bob' ? { ...p, atMm: 986 } : p)))
    expect(remedyOf(neededAgainst(parts, beatsPerHour, { pitchMm: 0.8 }))).toMatch(/Raise .* by 4\.0 mm: 5 turns/)
  })
})

describe('summer and winter, in words', () => {
  const parts: SheetPart[] = [
    { ...blankPart('rod'), atMm: 557, lengthMm: 1090, acrossMm: 8 },
    { ...blankPart('jar'), atMm: 1085, lengthMm: 150, acrossMm: 48 },
  ]
  const wordsOf = (sheet: SheetPart[]) => {
    const [way] = compensationsOf(sheet)
    const index = way?.index
    return compensationWords(
      way!,
      laboratoryOf(sheet).secondsPerDayPerC,
      index == null ? 'zinc' : sheet[index]!.material,
    )
  }

  test('a column too low is under-compensated, one too high over', () => {
    expect(wordsOf(parts)).toMatchObject({ state: 'watch' })
    expect(wordsOf(parts).title).toMatch(/^Under-compensated: its mercury column is 2\d\.\d mm too low$/)
    const high = parts.map((p) => (p.kind === 'jar' ? { ...p, lengthMm: 200 } : p))
    expect(wordsOf(high).title).toMatch(/^Over-compensated: .* too high$/)
    expect(wordsOf(high).words).toMatch(/it gains 0\.\d+ s a day for each degree warmer/)
  })

  test('the length that was named holds it', () => {
    const { rightMm } = compensationsOf(parts)[0]!
    expect(wordsOf(parts.map((p) => (p.kind === 'jar' ? { ...p, lengthMm: rightMm } : p)))).toMatchObject({
      title: 'Its mercury column holds it from summer to winter',
      state: 'sound',
    })
  })

  test('without any it says which sleeve it would take', () => {
    const plain: SheetPart[] = [parts[0]!, { ...blankPart('bob'), atMm: 985, acrossMm: 170, massG: 4200 }]
    expect(wordsOf(plain).title).toMatch(/^To hold it from summer to winter: a zinc sleeve \d+ mm long under the bob$/)
  })
})

describe('what is written beside the parts', () => {
  const parts: SheetPart[] = [
    { ...blankPart('rod'), atMm: 512, lengthMm: 1020, acrossMm: 8, massG: 400 },
    { ...blankPart('bob'), atMm: 985, acrossMm: 170, massG: 4200 },
    { ...blankPart('tray'), atMm: 500, massG: 12 },
    { ...blankPart('nut'), atMm: 1010, massG: 40 },
    { ...blankPart('weight'), atMm: 480, massG: 3 },
  ]
  const lab = laboratoryOf(parts)
  const said = (thread: { threadUpMm: number | null; threadDownMm: number | null }) =>
    parts.flatMap((p, i) => labelOf(p, i, (mm) => mm / 2, { lab, ...thread }))

  test('nothing beside rod and bob; a gram with what it does, the nut with its travel, a weight with its grams', () => {
    expect(said({ threadUpMm: 12, threadDownMm: null }).map((l) => l.words)).toEqual([
      expect.stringMatching(/^1 g: \+\d\.\d\d s a day$/),
      'nut, 12 mm up, ? down',
      '3 g',
    ])
    expect(said({ threadUpMm: null, threadDownMm: null })[1]?.words).toBe('nut')
    // Each stands where its part is drawn.
    expect(said({ threadUpMm: null, threadDownMm: null }).map((l) => l.at)).toEqual([250, 505, 240])
  })

  test('labels never overlap, keep their order, and stay on the drawing as long as there is room', () => {
    const HEIGHT = 600
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: HEIGHT - 10, noNaN: true }), { maxLength: 20 }), (at) => {
        const labels = at.map((y, i) => ({ key: String(i), at: y, words: '' }))
        const out = spread(labels, HEIGHT)
        expect(out.map((l) => l.key)).toEqual([...labels].sort((a, b) => a.at - b.at).map((l) => l.key))
        out.slice(1).forEach((l, i) => expect(l.at - out[i]!.at).toBeGreaterThanOrEqual(21 - 1e-9))
        for (const l of out) expect(l.at).toBeLessThanOrEqual(HEIGHT - 8)
      }),
    )
    // What is far enough apart stays where it is.
    const apart = [10, 100, 300].map((y) => ({ key: `${y}`, at: y, words: '' }))
    expect(spread(apart, HEIGHT)).toEqual(apart)
  })
})
