import { describe, expect, test } from 'vitest'
import { ask, refused } from './ask.ts'

describe('strike', () => {
  test('blows, by what it strikes at the half', () => {
    expect(ask('strike.blows', { halves: 'none' })).toEqual({ inTwelveHours: 78, aDay: 156 })
    expect(ask('strike.blows', { halves: 'one' })).toEqual({ inTwelveHours: 90, aDay: 180 })
    expect(ask('strike.blows', { halves: 'hour' })).toEqual({ inTwelveHours: 156, aDay: 312 })
    expect(refused('strike.blows', { halves: 'two' })).toBe('halves')
    expect(refused('strike.blows', {})).toBe('halves')
  })

  const TRAIN = { wheels: [84, 78], pinions: [12, 6], pinWheel: { arbor: 1, pins: 13 }, lockingArbor: 2 }

  test('a train: fields as they are asked for, days only with turns and halves', () => {
    // The great wheel turns 1/7 for a turn of 13 blows: 1/91 a blow; 78 over 6 is 13 turns of the lock for 13 blows.
    expect(ask('strike.train', TRAIN)).toEqual({
      turnsPerBlow: [1 / 91, 1 / 13, 1],
      locksRight: true,
      days: null,
      faults: [],
    })
    expect(ask('strike.train', { ...TRAIN, turnsOfGreat: 12 }).days).toBeNull()
    expect(ask('strike.train', { ...TRAIN, halves: 'one' }).days).toBeNull()
    expect(ask('strike.train', { ...TRAIN, turnsOfGreat: 12, halves: 'one' }).days).toBeCloseTo((12 * 91) / 180, 12)
  })

  test('a count, a pin or an arbor that can’t be is named', () => {
    expect(refused('strike.train', { ...TRAIN, wheels: [84, 2] })).toBe('wheels[1]')
    expect(refused('strike.train', { ...TRAIN, pinions: [12] })).toBe('pinions')
    expect(refused('strike.train', { ...TRAIN, pinWheel: { arbor: 1 } })).toBe('pinWheel.pins')
    expect(refused('strike.train', { ...TRAIN, lockingArbor: 3 })).toBe('lockingArbor')
    expect(refused('strike.train', { ...TRAIN, halves: 'both' })).toBe('halves')
  })

  test('a count wheel: divisions and where each hour’s and half’s blows end', () => {
    const none = ask('strike.countWheel', { halves: 'none' }) as {
      divisions: number
      slots: { after: number; atDeg: number }[]
    }
    expect(none.divisions).toBe(78)
    expect(none.slots[0]).toEqual({ after: 1, atDeg: 360 / 78 })
    expect(none.slots.at(-1)).toEqual({ after: 12, atDeg: 360 })
    const one = ask('strike.countWheel', { halves: 'one' }) as typeof none
    expect(one.slots.map((s) => s.after).slice(10)).toEqual([
      11, 12, 1.5, 2.5, 3.5, 4.5, 5.5, 6.5, 7.5, 8.5, 9.5, 10.5, 11.5, 12.5,
    ])
    expect(refused('strike.countWheel', { halves: 'hour' })).toBe('halves')
  })
})

describe('oil', () => {
  test('a sink: a cup unless it is said to be a cone, six tenths unless it is said', () => {
    const half = (2 / 3) * Math.PI
    expect(ask('oil.sink', { acrossMm: 2, depthMm: 1 })).toEqual({
      fullMicrolitres: expect.closeTo(half, 12) as number,
      microlitres: expect.closeTo(0.6 * half, 12) as number,
    })
    expect(ask('oil.sink', { acrossMm: 2, depthMm: 2, shape: 'cone', fill: 0.5 }).microlitres).toBeCloseTo(
      Math.PI / 3,
      12,
    )
    expect(refused('oil.sink', { acrossMm: 2, depthMm: 1.5 })).toBe('depthMm')
    expect(refused('oil.sink', { acrossMm: 2, depthMm: 1, shape: 'box' })).toBe('shape')
    expect(refused('oil.sink', { acrossMm: 2, depthMm: 1, fill: 1.5 })).toBe('fill')
  })

  test('a plan: each point with what, how much and why, in its place', () => {
    const { points } = ask('oil.plan', {
      points: [
        { name: 'a', part: 'wheel teeth' },
        { name: 'b', part: 'great pivot' },
      ],
    }) as { points: Record<string, string>[] }
    expect(points.map((p) => Object.keys(p).sort())).toEqual([
      ['howMuch', 'name', 'why', 'with'],
      ['howMuch', 'name', 'why', 'with'],
    ])
    expect(points.map((p) => [p.name, p.with])).toEqual([
      ['a', 'dry'],
      ['b', 'heavy oil'],
    ])
    expect(refused('oil.plan', { points: [{ name: 'a', part: 'dial' }] })).toBe('points[0].part')
    expect(refused('oil.plan', { points: [] })).toBe('points')
  })
})

describe('trial', () => {
  const TRIAL = {
    days: 7,
    startedAt: '2026-03-01T10:00:00+01:00',
    changes: ['2026-03-03T16:00:00Z', '2026-02-01T00:00:00Z'],
    windings: ['2026-03-02T09:00:00Z', '2026-03-05T09:00:00Z'],
    nowAt: '2026-03-10T16:00:00Z',
  }

  test('counts from the last change, and ends its days after', () => {
    expect(ask('trial.standing', TRIAL)).toEqual({
      countsFrom: '2026-03-03T16:00:00.000Z',
      endsAt: '2026-03-10T16:00:00.000Z',
      over: true,
      wanted: [],
    })
    expect(ask('trial.standing', { ...TRIAL, windings: TRIAL.windings.slice(0, 1) })).toMatchObject({
      over: false,
      wanted: ['a full winding since it counts'],
    })
    expect(ask('trial.standing', { ...TRIAL, changes: [] }).countsFrom).toBe('2026-03-01T09:00:00.000Z')
  })

  test('a moment without its zone, or a day that is none, is named', () => {
    expect(refused('trial.standing', { ...TRIAL, startedAt: '2026-03-01T10:00' })).toBe('startedAt')
    expect(refused('trial.standing', { ...TRIAL, changes: ['2026-02-30T10:00:00Z'] })).toBe('changes[0]')
    expect(refused('trial.standing', { ...TRIAL, windings: ['yesterday'] })).toBe('windings[0]')
    expect(refused('trial.standing', { ...TRIAL, days: 0 })).toBe('days')
  })
})
