import { expect, test } from 'vitest'
import { laidOver, touch } from '../src/parts/touched.ts'

const ROW = { words: 'Stops.', place: 'hall', year: 1990 }

test('only what was touched lies over the row; the rest follows it', () => {
  const touched = touch(ROW, {}, { words: 'Stops at night.' })
  expect(laidOver(ROW, touched)).toMatchObject({ row: { words: 'Stops at night.', place: 'hall' }, dirty: true })
  // Somebody else changes another field meanwhile.
  expect(laidOver({ ...ROW, place: 'shelf' }, touched).row).toEqual({
    ...ROW,
    words: 'Stops at night.',
    place: 'shelf',
  })
})

test('what stood there when it was touched is remembered, so that a change of it since is seen', () => {
  const once = touch(ROW, {}, { words: 'Stops at' })
  const theirs = { ...ROW, words: 'Stops in the cold.' }
  const twice = touch(theirs, once, { words: 'Stops at night.' })
  expect(laidOver(theirs, twice)).toMatchObject({
    row: { words: 'Stops at night.' },
    base: { words: 'Stops.' },
  })
})

test('typed back to what is kept, it is touched no more, and begins anew', () => {
  const back = touch(ROW, touch(ROW, {}, { year: 1991 }), { year: 1990 })
  expect(laidOver(ROW, back)).toEqual({ row: ROW, base: ROW, dirty: false })
  const later = { ...ROW, year: 2000 }
  expect(laidOver(later, touch(later, touch(later, {}, { year: 2000 }), { year: 2001 })).base.year).toBe(2000)
})
