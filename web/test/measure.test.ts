import { blankHole, type Hole } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { draftOf, isWhole, measuredOf, readDraft, type Draft } from '../src/surfaces/holes/measure.ts'

const WHOLE: Draft = { longAxis: '1.32', shortAxis: '1.10', wear: '1:50', pivot: '1.00', plate: '2.4' }

const HOLE: Hole = {
  ...blankHole('', { train: 'going', arbor: 'Third', arborIndex: 2, plate: 'back', role: 'other' }),
  jobId: '',
  measuredBy: '',
  longAxisMm: 1.32,
  shortAxisMm: 1.1,
  wearDeg: 55,
  pivotMm: 1,
  plateMm: 2.4,
  typed: { longAxis: { value: '1.320', unit: 'mm' }, shortAxis: null, wear: null, pivot: null, plate: null },
}

describe('reading the fields', () => {
  test('whole figures in mm', () => {
    const read = readDraft(WHOLE, 'mm')
    expect(read).toEqual({
      figures: { longAxisMm: 1.32, shortAxisMm: 1.1, wearDeg: 55, pivotMm: 1, plateMm: 2.4 },
      errors: {},
    })
    expect(isWhole(read)).toBe(true)
  })

  test('thou become mm, exactly', () => {
    expect(
      readDraft({ ...WHOLE, longAxis: '52', shortAxis: '43.3', pivot: '39.4', plate: '94.5' }, 'thou').figures,
    ).toMatchObject({ longAxisMm: 1.3208, plateMm: 2.4003 })
  })

  test('a comma is a point, as calipers of half the world have it', () => {
    expect(readDraft({ ...WHOLE, longAxis: '1,32' }, 'mm').figures.longAxisMm).toBe(1.32)
  })

  test('an empty field is no error and no figure', () => {
    const read = readDraft({ ...WHOLE, pivot: '' }, 'mm')
    expect(read.errors).toEqual({})
    expect(isWhole(read)).toBe(false)
  })

  test.each<[string, Partial<Draft>, keyof Draft, RegExp]>([
    ['a word', { pivot: 'thin' }, 'pivot', /“thin” can’t be read as one figure/],
    ['nought', { plate: '0' }, 'plate', /above 0/],
    ['no direction', { wear: 'left' }, 'wear', /direction on the dial/],
    ['short above long', { shortAxis: '1.40' }, 'shortAxis', /can’t be above the long way, 1\.32 mm/],
    ['pivot above the hole', { pivot: '1.2' }, 'pivot', /can’t be larger than its hole, 1\.10 mm/],
    ['thou typed as mm', { longAxis: '52', shortAxis: '43' }, 'longAxis', /another unit/],
  ])('%s is told at its field', (_name, change, field, sentence) => {
    expect(readDraft({ ...WHOLE, ...change }, 'mm').errors[field]).toMatch(sentence)
  })
})

describe('showing what is kept', () => {
  test('as it was typed, in the unit it was typed in', () => {
    expect(draftOf(HOLE, 'mm')).toEqual({
      longAxis: '1.320',
      shortAxis: '1.10',
      wear: '1:50',
      pivot: '1.00',
      plate: '2.40',
    })
  })

  test('in the other unit, to a tenth of a thou', () => {
    expect(draftOf(HOLE, 'thou')).toMatchObject({ longAxis: '52.0', shortAxis: '43.3', pivot: '39.4' })
  })

  test('nothing for what is not measured', () => {
    expect(draftOf({ ...HOLE, longAxisMm: null, wearDeg: null }, 'mm')).toMatchObject({ longAxis: '', wear: '' })
  })
})

describe('keeping what was typed', () => {
  test('each figure in mm, and as it was typed, in its own unit; a direction by the dial', () => {
    expect(measuredOf({ ...WHOLE, longAxis: '52' }, 'thou')).toMatchObject({
      longAxisMm: 1.3208,
      wearDeg: 55,
      typed: {
        longAxis: { value: '52', unit: 'thou' },
        wear: { value: '1:50', unit: 'dial' },
        plate: { value: '2.4', unit: 'thou' },
      },
    })
    expect(measuredOf({ ...WHOLE, pivot: '' }, 'mm').typed.pivot).toBeNull()
  })

  test('what is kept is shown again as it was typed, in either unit', () => {
    for (const [unit, draft] of [
      ['mm', WHOLE],
      ['thou', { longAxis: '52', shortAxis: '43.3', wear: '1:50', pivot: '39.4', plate: '94.5' }],
    ] as const)
      expect(draftOf({ ...HOLE, ...measuredOf(draft, unit) }, unit)).toEqual(draft)
  })

  test('a figure that can’t be read is not lost: it stays as it was typed, and is no figure', () => {
    const kept = measuredOf({ ...WHOLE, plate: 'thick' }, 'mm')
    expect(kept.plateMm).toBeNull()
    expect(kept.typed.plate).toEqual({ value: 'thick', unit: 'mm' })
  })
})
