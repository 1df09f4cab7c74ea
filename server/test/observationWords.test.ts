import { Observation } from '@treadle/contract'
import {
  JOURNEYS,
  journeySteps,
  lookedKey,
  MERCURY_GATE,
  MERCURY_QUESTIONS,
  MERCURY_WAYS,
  mercurySteps,
  setUpSteps,
} from '@treadle/core'
import { describe, expect, test } from 'vitest'
import { observationWords, takenBackWords } from '../src/observations/words.ts'

const said = (key: string, part: Partial<Observation> = {}) =>
  observationWords({ key, answer: '', figure: null, second: null, note: '', photoId: null, ...part })

/** Every kind of clock, with everything that asks for a step of its own, and with nothing of it. */
const CLOCKS = ['longcase', 'wall', 'mantel', 'shelf', 'bracket', 'other'].flatMap((kind) =>
  [true, false].map((all) => ({
    kind,
    trains: [
      { train: 'going', power: all ? 'weight' : 'spring' },
      ...(all ? [{ train: 'chime', power: 'weight' }] : []),
    ],
    work: { moon: all, calendar: all, mercury: all },
    mercury: all,
    things: all
      ? [
          { name: 'Left weight', hung: 'left', massKg: 5.2 },
          { name: 'Pendulum' },
          { name: 'Hood' },
          { name: 'Keys' },
          { name: 'Chime rods' },
        ]
      : [],
  })),
)
const LED = [
  ...CLOCKS.flatMap((clock) =>
    [true, false].flatMap((level) => setUpSteps(clock, level).map((s) => `set-up: ${s.key}`)),
  ),
  ...CLOCKS.flatMap((clock) =>
    JOURNEYS.flatMap((way) => journeySteps(clock, way).map((s) => `journey ${way}: ${s.key}`)),
  ),
  ...MERCURY_WAYS.flatMap((way) => mercurySteps(way).map((s) => `mercury ${way}: ${s.key}`)),
]

describe('the journal’s words', () => {
  test('of every step that is led, on any kind of clock: by its title, never by its key', () => {
    expect(new Set(LED).size).toBeGreaterThan(60)
    for (const key of new Set(LED)) {
      const done = said(key, { answer: 'done' })
      expect(done).toMatch(/^(Set up|Taken away|Brought home|Moved by its owner|Mercury): .+: done\.$/)
      expect(done).not.toContain(key)
      expect(said(key)).toMatch(/, not done\.$/)
      // And what is said of it can be kept.
      expect(Observation.validateSyncAt('key', { key })).toBe(key)
    }
  })

  test('of the gate before mercury is touched, and of what the authority said', () => {
    const [gate, words] = MERCURY_GATE[0]
    expect(said(`mercury gate: ${gate}`, { answer: 'so' })).toBe(`Mercury: ${words}.`)
    expect(said(`mercury gate: ${gate}`)).toBe(`Mercury: no longer so: ${words}.`)
    const [asked, question] = MERCURY_QUESTIONS[0]
    expect(said(`mercury asked: ${asked}`, { note: 'In its jar, upright.' })).toBe(
      `Asked of the authority: ${question} In its jar, upright.`,
    )
  })

  test('of what was looked at, pegged, lost and asked', () => {
    expect(said(lookedKey('pivots', 'strike'), { answer: 'sound' })).toBe(
      'All other pivots of the strike train were looked at, and are sound.',
    )
    expect(said('pegged: cocks and pulleys', { answer: 'clean' })).toBe('Pegged clean: cocks and pulleys.')
    expect(said('pegged: cocks and pulleys', { answer: 'not yet' })).toBe('Not pegged yet: cocks and pulleys.')
    const loss = { key: 'loss:1', note: 'The small washer' }
    expect(said(loss.key, loss)).toBe('Lost or broken in our hands: The small washer. The owner does not know yet.')
    expect(said(loss.key, { ...loss, answer: 'told' })).toMatch(/The owner was told\.$/)
  })

  test('of figures with their note, and one full stop; a nought is said', () => {
    expect(said('arc', { figure: 2.4, note: 'Measured on the paper scale.' })).toBe(
      'Arc: 2.4: Measured on the paper scale.',
    )
    expect(said('drive', { figure: 1.76, second: 0 })).toBe('Drive margin, fitted and least, kg: 1.76, 0.')
    expect(said('something new')).toBe('Something new.')
  })

  test('taken back, in the same words', () => {
    expect(takenBackWords({ key: 'arc', answer: '', figure: 2.4, second: null, note: '', photoId: null })).toBe(
      'Taken back: arc: 2.4.',
    )
  })
})
