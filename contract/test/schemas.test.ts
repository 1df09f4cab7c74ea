import { describe, expect, test } from 'vitest'
import type { Schema } from 'yup'
import {
  blankDryRun,
  blankHole,
  blankOil,
  blankOilSheet,
  check,
  DEFAULT_SETTINGS,
  DryRunChange,
  EMPTY_PENDULUM,
  GateOverride,
  HoleChange,
  newEvent,
  NewJob,
  OilChange,
  OilSheetChange,
  PLAIN_WORK,
  PowerOff,
  RateEventChange,
  ReadingChange,
  Settings,
  StrikeWork,
  Work,
} from '../src/index.ts'

const ID = '01a20785-1b0b-7624-ae14-949793c6b388'
const wrong = async (schema: Schema, value: unknown) => {
  const checked = await check(schema, value)
  return checked.ok ? [] : checked.errors.map((e) => e.field)
}

const JOB = {
  id: ID,
  owner: { id: ID, name: 'Gull Row', phone: '', address: '' },
  clock: {
    id: ID,
    name: 'Kitchen clock',
    kind: 'wall',
    marks: '',
    trains: [{ train: 'going', power: 'spring' }],
    pendulum: EMPTY_PENDULUM,
    work: PLAIN_WORK,
  },
  complaint: 'Stops.',
  cameWith: [],
  promisedOn: null,
  standsAt: '',
  movedLately: 'unknown',
  lastServiced: null,
}

describe('a job', () => {
  test('with everything it needs is taken', async () => {
    expect(await wrong(NewJob, JOB)).toEqual([])
  })

  test.each<[string, object, string]>([
    ['an id that is none', { id: '1' }, 'id'],
    ['an empty complaint', { complaint: '' }, 'complaint'],
    ['a day that is none', { promisedOn: '1/2/26' }, 'promisedOn'],
    [
      'a train of no kind',
      { clock: { ...JOB.clock, trains: [{ train: 'moon', power: 'spring' }] } },
      'clock.trains[0].train',
    ],
    ['no train', { clock: { ...JOB.clock, trains: [] } }, 'clock.trains'],
    [
      'a pendulum of no length',
      { clock: { ...JOB.clock, pendulum: { ...EMPTY_PENDULUM, lengthMm: 0 } } },
      'clock.pendulum.lengthMm',
    ],
    [
      'a figure as text',
      { clock: { ...JOB.clock, pendulum: { ...EMPTY_PENDULUM, lengthMm: '248' } } },
      'clock.pendulum.lengthMm',
    ],
    ['a thing in no state', { cameWith: [{ name: 'key', state: 'lost', returned: false }] }, 'cameWith[0].state'],
  ])('%s is named', async (_name, change, field) => {
    expect(await wrong(NewJob, { ...JOB, ...change })).toContain(field)
  })

  test('a field nobody knows is refused', async () => {
    expect(await wrong(NewJob, { ...JOB, colour: 'red' })).toHaveLength(1)
  })

  test('the message names the field as the page does', async () => {
    const checked = await check(NewJob, { ...JOB, complaint: '' })
    expect(!checked.ok && checked.errors[0]?.message).toMatch(/^In the owner’s words/)
  })
})

test('a train is off only when it was proved by hand', async () => {
  const off = { id: ID, train: 'going', method: 'let-down', proofs: ['square', 'great-wheel'] }
  expect(await wrong(PowerOff, off)).toEqual([])
  expect(await wrong(PowerOff, { ...off, proofs: undefined })).toEqual(['proofs'])
  expect(await wrong(PowerOff, { ...off, method: 'cut the wire' })).toEqual(['method'])
})

test('a gate is overridden with a sentence, not a grunt', async () => {
  const override = { id: ID, gate: 'power', reason: 'Arbor broken: nothing to wind.' }
  expect(await wrong(GateOverride, override)).toEqual([])
  expect(await wrong(GateOverride, { ...override, reason: '      no  ' })).toContain('reason')
  expect(await wrong(GateOverride, { ...override, gate: 'garden' })).toEqual(['gate'])
})

test('a verdict of one’s own needs its reason', async () => {
  const hole = {
    ...blankHole(ID, { train: 'going', arbor: 'Third', arborIndex: 2, plate: 'back', role: 'other' }),
    typed: { longAxis: { value: '52', unit: 'thou' }, shortAxis: null, wear: null, pivot: null, plate: null },
    verdictOverride: 'leave',
    overrideReason: 'Will be replaced.',
  }
  expect(await wrong(HoleChange, hole)).toEqual([])
  expect(await wrong(HoleChange, { ...hole, overrideReason: '' })).toHaveLength(1)
  expect(await wrong(HoleChange, { ...hole, typed: { ...hole.typed, pivot: { value: '1', unit: 'inch' } } })).toEqual([
    'typed.pivot.unit',
  ])
})

test.each([
  ['2026-03-01T09:30:00Z', true],
  ['2026-03-01T09:30:00.250+01:00', true],
  ['2026-03-01 09:30', false],
  ['2026-13-01T09:30:00Z', false],
  ['yesterday', false],
])('%s as a moment: %s', async (at, good) => {
  const reading = { id: ID, version: 0, at, errorSeconds: 0, sigmaSeconds: 0.5, way: 'eye' }
  expect(await wrong(ReadingChange, reading)).toEqual(good ? [] : expect.arrayContaining(['at']))
})

test('a nut that was turned says how far', async () => {
  const event = { id: ID, version: 0, at: '2026-03-01T09:30:00Z', kind: 'nut', turns: 0.5, showed: '', note: '' }
  expect(await wrong(RateEventChange, event)).toEqual([])
  expect(await wrong(RateEventChange, { ...event, turns: null })).toHaveLength(1)
  expect(await wrong(RateEventChange, { ...event, turns: 0 })).toHaveLength(1)
  expect(await wrong(RateEventChange, { ...event, kind: 'winding', turns: null })).toEqual([])
})

test('a stop says what its dial showed, and nothing else does', async () => {
  const stop = { ...newEvent(ID, 'stopped', '2026-03-01T09:30:00Z'), showed: '12:05' }
  expect(await wrong(RateEventChange, stop)).toEqual([])
  for (const showed of ['0:10', '13:00', '3:60', '3.47', 'noon'])
    expect(await wrong(RateEventChange, { ...stop, showed })).toHaveLength(1)
  expect(await wrong(RateEventChange, { ...stop, kind: 'winding' })).toHaveLength(1)
})

test('blank rows of setting a clock are valid as they are, but for what must be typed', async () => {
  const dry = blankDryRun(ID, { train: 'going', power: 'weight' }, '2026-03-01T09:30:00Z')
  expect(await wrong(DryRunChange, dry)).toEqual([])
  expect(await wrong(DryRunChange, { ...dry, verdict: 'free' })).toHaveLength(1)
  expect(await wrong(OilSheetChange, blankOilSheet(ID))).toEqual([])
  expect(await wrong(OilChange, { ...blankOil(ID, 'grease'), name: 'Grey grease' })).toEqual([])
  expect(await wrong(OilChange, blankOil(ID, 'grease'))).toContain('name')
})

test('a clock strikes at the half only what its work can', async () => {
  const strike = { kind: 'rack', halves: 'hour', pinArbor: null, pins: null, lockingArbor: null }
  expect(await wrong(StrikeWork, strike)).toEqual([])
  expect(await wrong(StrikeWork, { ...strike, kind: 'count-outside' })).toHaveLength(1)
  expect(await wrong(StrikeWork, { ...strike, pins: 0 })).toHaveLength(1)
  expect(await wrong(Work, { ...PLAIN_WORK, strike })).toEqual([])
  expect(await wrong(Work, PLAIN_WORK)).toEqual([])
})

test('the settings that ship are valid themselves', async () => {
  expect(await wrong(Settings, DEFAULT_SETTINGS)).toEqual([])
})
