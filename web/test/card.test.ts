import { DEFAULT_SETTINGS, type JobPage, type ListeningSummary } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { ownerCard } from '../src/surfaces/card/ownerCard.ts'
import { PAGE } from './page.ts'

const card = (change: Partial<JobPage> = {}) => ownerCard({ ...PAGE, ...change }, [], DEFAULT_SETTINGS)
const text = (change: Partial<JobPage> = {}) =>
  card(change)
    .sections.flatMap((s) => s.lines)
    .join(' ')

describe('the owner’s card', () => {
  test('gives the nut’s figure as this clock has taught it', () => {
    // −20 to −5 s a day for half a turn: thirty for a whole one, against 34.8 by thread and length.
    expect(text()).toMatch(/one full turn of the nut to the right gains about 30 seconds a day, a quarter turn (7|8)\b/)
    expect(text()).toContain('lower is slower')
  })

  test('says no figure that nobody knows', () => {
    expect(text({ readings: [], events: [] })).not.toMatch(/gains about/)
  })

  test('speaks of this clock: tall, with weights, striking', () => {
    expect(text()).toMatch(/fix the case to the wall with a spacer/)
    expect(text()).toMatch(/Two people move the case/)
    expect(text()).toMatch(/let it finish each strike/)
    expect(text()).toMatch(/every 8 days/)
    expect(text()).not.toMatch(/strong spring/)
  })

  test('warns of the spring where there is one, and hangs a wall clock', () => {
    const clock = {
      ...PAGE.clock,
      kind: 'wall' as const,
      trains: [{ train: 'going' as const, power: 'spring' as const }],
    }
    expect(text({ clock })).toMatch(/There is a strong spring inside/)
    expect(text({ clock })).toMatch(/Hang it on a firm hook/)
    expect(text({ clock })).not.toMatch(/each strike|Weights are heavy/)
  })

  test('tells what was done, from the figures', () => {
    const listening = (first: number) =>
      ({
        firstToSecondMs: 500 + first,
        secondToFirstMs: 500 - first,
        firstSide: 'right',
        outOfBeatStandardError: 0.1,
      }) as ListeningSummary
    const hole = { arbor: 'Third arbor', plate: 'back', bushed: true } as JobPage['holes'][number]
    const { done } = card({ listenings: [listening(35), listening(0.4)], holes: [hole, { ...hole, bushed: false }] })
    expect(done).toEqual([
      'Taken apart.',
      '1 worn hole bushed: third arbor, back.',
      'Set in beat: 35 ms out when it came, 0.4 ms when it left.',
      'Oiled where it should be, dry where it should be.',
      expect.stringMatching(/^Regulated: it loses \d/),
    ])
  })

  test('claims nothing of a clock that goes back as it came', () => {
    const job = { ...PAGE.job, scope: 'untouched' as const, scopeReason: 'declined', partedAt: null }
    const back = { job, events: [], readings: [] }
    expect(card(back).done).toEqual(['Nothing: it goes back as it came.'])
    expect(card(back).due).toBe('')
    expect(text(back)).not.toMatch(/set even in our shop/)
    expect(text(back)).toMatch(/We did not set it\./)
  })

  test('says that it was cleaned only where the list of parts says so', () => {
    const part = { name: 'plates', done: true } as JobPage['cleanParts'][number]
    expect(card({ cleanParts: [part] }).done[0]).toBe('Taken apart and cleaned.')
    expect(card({ cleanParts: [part, { ...part, done: false }] }).done[0]).toBe('Taken apart.')
  })

  test('counts the oil’s age from the day it was oiled, by the workshop’s school', () => {
    expect(card().due).toBe(
      'Its oil should be looked at in February 2029, and the clock serviced in February 2031, even if it still goes.',
    )
    expect(ownerCard(PAGE, [], { ...DEFAULT_SETTINGS, oilSchool: 'long' }).due).toContain('February 2033')
  })
})
