import { describe, expect, test } from 'vitest'
import { laidOver, withRow } from '../src/data/withRow.ts'
import { at, PAGE } from './page.ts'

const standing = { gates: [], owed: [{ kind: 'reading', title: 'Read it' }] as never }

describe('a row that was kept', () => {
  test('takes its place in the list, with what hangs on it', () => {
    const row = { ...PAGE.readings[1]!, id: 'new', at: at(3) }
    const now = withRow(PAGE, '/jobs/j/readings/new', { ...row, standing })
    expect(now?.readings.map((r) => r.id)).toEqual(['0', '2', 'new', '4', '6', '8'])
    expect(now?.owed).toEqual(standing.owed)
    expect(now?.readings[2]).not.toHaveProperty('standing')
    // The page before is left as it was.
    expect(PAGE.readings).toHaveLength(5)
  })

  test('that was there is replaced, and moved where its order says', () => {
    const row = { ...PAGE.readings[0]!, at: at(7), version: 2 }
    const now = withRow(PAGE, `/jobs/j/readings/${row.id}`, { ...row, standing })
    expect(now?.readings.map((r) => [r.id, r.version])).toEqual([
      ['2', 1],
      ['4', 1],
      ['6', 1],
      ['0', 2],
      ['8', 1],
    ])
  })

  test('a change of the job itself is the job', () => {
    const now = withRow(PAGE, '/jobs/j', { ...PAGE.job, bay: 'set', standing })
    expect(now?.job).toMatchObject({ bay: 'set', number: 4 })
  })

  test.each([
    ['work on a hole, which changes the hole too', '/jobs/j/bushings/b', { id: 'b', standing }],
    ['an answer without its standing', '/jobs/j/readings/r', { id: 'r' }],
    ['nothing at all', '/jobs/j/readings/r', undefined],
    ['what the page shows nowhere', '/jobs/j/now', { kind: 'x', standing }],
  ])('%s has the page asked for anew', (_what, path, answer) => {
    expect(withRow(PAGE, path, answer)).toBeNull()
  })
})

describe('changes on their way', () => {
  const kept = PAGE.readings
  const path = (id: string) => `/jobs/j/readings/${id}`
  const over = (...said: { method: string; path: string; body?: unknown }[]) => laidOver('readings', kept, said)

  test('a row that was just said takes its place, and is gone again with its change', () => {
    const { jobId: _j, who: _w, ...body } = { ...kept[1]!, id: 'new', version: 0, at: at(3) }
    const said = { method: 'PUT', path: path('new'), body }
    expect(over(said).map((r) => r.id)).toEqual(['0', '2', 'new', '4', '6', '8'])
    expect(over()).toBe(kept)
  })

  test('once the page has the row, what the server made of it is shown', () => {
    const said = { method: 'PUT', path: path('2'), body: { ...kept[1]!, version: 0, errorSeconds: 99 } }
    expect(over(said)).toBe(kept)
  })

  test('a correction shows what it changes, and leaves the rest', () => {
    const said = { method: 'PUT', path: path('2'), body: { id: '2', version: 1, errorSeconds: -3 } }
    expect(over(said)[1]).toEqual({ ...kept[1]!, errorSeconds: -3 })
  })

  test('what is taken back is gone at once, also what was said a moment before', () => {
    expect(over({ method: 'DELETE', path: path('4') }).map((r) => r.id)).toEqual(['0', '2', '6', '8'])
    const body = { ...kept[1]!, id: 'new', version: 0 }
    expect(
      over({ method: 'PUT', path: path('new'), body }, { method: 'DELETE', path: path('new') }).map((r) => r.id),
    ).toEqual(kept.map((r) => r.id))
    expect(over({ method: 'DELETE', path: path('nothing') })).toBe(kept)
  })
})
