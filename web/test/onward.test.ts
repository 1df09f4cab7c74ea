import type { Owed } from '@treadle/core'
import type { EstimateRow } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { onwardFrom } from '../src/app/onward.ts'
import { merged } from '../src/job/estimateFromJob.ts'
import { sortNow } from '../src/places/nowWords.ts'
import { workOn } from '../src/surfaces/trouble/workOn.ts'
import { PAGE } from './page.ts'

const owed = (kind: Owed['kind'], dueS: number | null, weight: Owed['weight'] = 'sound'): Owed => ({
  ...{ kind, dueS, weight, title: kind, why: 'So it is.', subject: '' },
})
const NOW = 1_790_000_000
const DAY = 86_400

describe('from a surface that has nothing for the foot', () => {
  const from = (path: string, list: Owed[]) =>
    onwardFrom({ job: { ...PAGE.job, bay: 'mend' }, clock: PAGE.clock, owed: list }, path)

  test('a press leads to what the clock is owed elsewhere', () => {
    expect(from('journal', [owed('pivots', null)])).toMatchObject({ path: 'pivots', label: 'Press to go on: pivots' })
  })

  test('else to the next surface of its bay, and past the last to nothing', () => {
    expect(from('pivots', [owed('pivots', null)])).toMatchObject({ path: 'holes' })
    expect(from('make', [])).toBeNull()
  })

  test('a closed job has nothing for the foot', () => {
    expect(
      onwardFrom({ job: { ...PAGE.job, closedAt: 'x' }, clock: PAGE.clock, owed: [owed('card', null)] }, 'journal'),
    ).toBeNull()
  })
})

describe('Now', () => {
  const sorted = (...list: Owed[]) => {
    const { pressing, later, waited } = sortNow(
      list.map((o) => ({ owed: o })),
      NOW,
    )
    return [pressing, later, waited].map((part) => part.map(({ owed: o }) => o.kind))
  }

  test('a promise of the day after tomorrow presses, however much else does', () => {
    const many = Array.from({ length: 12 }, (_, i) => owed('reading', NOW - i * 60, 'watch'))
    expect(sorted(...many, owed('promise', NOW + 1.9 * DAY, 'watch'))[0]).toHaveLength(13)
  })

  test('the next step of a clock that nothing hurries is not on it; what is waited for stands apart', () => {
    expect(sorted(owed('make-safe', null, 'must'), owed('waits', NOW + DAY), owed('order', null, 'watch'))).toEqual([
      [],
      ['order'],
      ['waits'],
    ])
    expect(sorted(owed('waits', NOW - 60, 'watch'), owed('tell-owner', null, 'must'))[0]).toEqual([
      'waits',
      'tell-owner',
    ])
  })
})

test('pricing the plan keeps a price and a sum that were agreed by hand', () => {
  const line = { id: 'a', title: 'Bush a worn hole', unit: 'hole', unitPrice: '15.00', taxed: true, order: false }
  const agreed = { ...line, kind: 'fixed', quantity: 2, upToPrice: null } as EstimateRow['lines'][number]
  const found = {
    ...line,
    id: 'b',
    kind: 'range',
    quantity: 5,
    unitPrice: '18.00',
    upToPrice: '22.00',
  } as typeof agreed
  expect(merged([agreed], [found], [])).toEqual([{ ...agreed, quantity: 5 }])
  const offered = { ...agreed, kind: 'if-needed' } as typeof agreed
  expect(merged([offered], [found], [])[0]).toMatchObject({ kind: 'range', quantity: 5, unitPrice: '15.00' })
})

test('a cause that can be worked on leads to its surface', () => {
  expect(workOn('beat-out')?.path).toBe('listen')
  expect(workOn('another')).toBeNull()
})
