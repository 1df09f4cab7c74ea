import fc from 'fast-check'
import {
  HoleChange,
  NewClock,
  NewJob,
  OilSheetChange,
  shapeFault,
  TrainSheetChange,
  WheelSheetChange,
} from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { bodiesOf } from './oddBodies.ts'

const SCHEMAS = { HoleChange, NewClock, NewJob, OilSheetChange, TrainSheetChange, WheelSheetChange }

describe('whether a row can be read', () => {
  test.each(Object.entries(SCHEMAS))(
    '%s: what its schema takes can be, and what can’t be its schema refuses',
    (_name, schema) => {
      const described = schema.describe()
      let [readable, unreadable] = [0, 0]
      for (const body of fc.sample(bodiesOf(described as never, ['00000000-0000-4000-8000-000000000001']), {
        numRuns: 400,
        seed: 5,
      })) {
        const fault = shapeFault(described, body)
        const taken = schema.isValidSync(body, { strict: true })
        // Far too large, or of a day that is none, it can still be read: not all that is refused is unreadable.
        if (taken)
          expect([fault, JSON.stringify(body)?.slice(0, 300)]).toEqual([null, JSON.stringify(body)?.slice(0, 300)])
        if (taken) readable++
        if (fault !== null) unreadable++
      }
      expect(Math.min(readable, unreadable)).toBeGreaterThan(5)
    },
  )

  test('the first thing that can’t be is named by its path', () => {
    const described = NewClock.describe()
    const clock = { id: 'x', name: '', kind: 'wall', marks: '', trains: [{ train: 'going', power: 'steam' }] }
    expect(shapeFault(described, { ...clock, pendulum: 4 })).toBe('trains[0].power')
    expect(shapeFault(described, [])).toBe('')
    expect(shapeFault(described, { ...clock, trains: [], pendulum: 4 })).toBe('pendulum')
  })
})
