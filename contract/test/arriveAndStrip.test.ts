import { describe, expect, test } from 'vitest'
import {
  check,
  CleanPart,
  ConditionItem,
  DEFAULT_PRICES,
  Estimate,
  NowMark,
  PriceBook,
  StripMark,
  StripStep,
  Timer,
  TrainSheetChange,
  WORKSHOP_TABLES,
} from '../src/index.ts'
import type { Schema } from 'yup'

const ID = '01a20785-1b0b-7624-ae14-949793c6b388'
const wrong = async (schema: Schema, value: unknown) => {
  const checked = await check(schema, value)
  return checked.ok ? [] : checked.errors.map((e) => e.field)
}

describe('the tables a workshop starts with are right by their own schema', () => {
  test.each(Object.entries(WORKSHOP_TABLES))('%s', async (_name, { schema, start }) => {
    expect(await wrong(schema as Schema, start)).toEqual([])
  })

  test('a price that is none is named by its place', async () => {
    const lines = DEFAULT_PRICES.lines.map((l, i) => (i === 1 ? { ...l, unitPrice: '1.2.3' } : l))
    expect(await wrong(PriceBook, { ...DEFAULT_PRICES, lines })).toEqual(['lines[1].unitPrice'])
  })
})

const rows: [name: string, schema: Schema, good: object, bad: [object, string][]][] = [
  [
    'a strip step',
    StripStep,
    {
      id: ID,
      version: 0,
      position: 1,
      part: 'Dial',
      tray: 'case',
      screws: '',
      marks: '',
      remark: '',
      count: 4,
      photoId: null,
      back: false,
      notBack: '',
    },
    [
      [{ notBack: 'x'.repeat(301) }, 'notBack'],
      [{ part: '' }, 'part'],
      [{ tray: 'pocket' }, 'tray'],
      [{ count: 1.5 }, 'count'],
      [{ photoId: 'x' }, 'photoId'],
      [{ position: Number.NaN }, 'position'],
    ],
  ],
  [
    'a condition item',
    ConditionItem,
    { id: ID, version: 0, kind: 'part', name: 'Hand', class: 'later', note: '', photoId: null, x: null, y: null },
    [
      [{ class: 'antique' }, 'class'],
      [{ x: -0.1 }, 'x'],
    ],
  ],
  [
    'a part to clean',
    CleanPart,
    { id: ID, version: 0, name: 'Dial', material: 'brass', finish: 'silvered', done: false },
    [[{ material: '' }, 'material']],
  ],
  [
    'a timer',
    Timer,
    {
      id: ID,
      version: 0,
      title: 'Bath',
      startedAt: '2026-03-01T09:00:00Z',
      endsAt: '2026-03-01T09:08:00Z',
      stopped: false,
      bath: 'ammoniated',
      step: 0,
    },
    [
      [{ endsAt: '2026-03-01T08:59:00Z' }, ''],
      [{ endsAt: 'tomorrow' }, 'endsAt'],
      [{ step: 99 }, 'step'],
    ],
  ],
  [
    'a train sheet',
    TrainSheetChange,
    {
      id: ID,
      version: 0,
      train: 'going',
      arbors: [
        { name: 'Great', pinion: null, wheel: 96 },
        { name: 'Centre', pinion: 8, wheel: 64 },
      ],
      hourly: 1,
      escape: false,
      greatTurns: null,
      motion: null,
      faultPeriodS: null,
    },
    [
      [{ arbors: [] }, 'arbors'],
      [{ hourly: 40 }, 'hourly'],
      [{ motion: { cannonPinion: 12 } }, 'motion.minuteWheel'],
    ],
  ],
  [
    'a mark in Now',
    NowMark,
    { kind: 'wind', subject: '', state: 'later', dueS: 1, untilS: 2 },
    [
      [{ state: 'never' }, 'state'],
      [{ untilS: Infinity }, 'untilS'],
    ],
  ],
]

describe.each(rows)('%s', (_name, schema, good, bad) => {
  test('as it should be is taken', async () => {
    expect(await wrong(schema, good)).toEqual([])
  })
  test.each(bad)('with %j is refused', async (part, field) => {
    expect(await wrong(schema, { ...good, ...part })).toContain(field)
  })
  test('with a field of its own making is refused', async () => {
    expect(await wrong(schema, { ...good, smuggled: 1 })).not.toEqual([])
  })
})

test('a mark is waived with a reason, made without', async () => {
  const mark = { id: ID, version: 0, key: 'nut', state: 'done', note: '' }
  expect(await wrong(StripMark, mark)).toEqual([])
  expect(await wrong(StripMark, { ...mark, state: 'waived' })).toHaveLength(1)
  expect(await wrong(StripMark, { ...mark, state: 'waived', note: 'The nut is lost.' })).toEqual([])
})

test('an estimate is accepted only with who, how and when', async () => {
  const estimate = {
    id: ID,
    version: 0,
    revision: 1,
    state: 'accepted',
    lines: [],
    choices: [],
    chosen: '',
    currency: '€',
    taxPercent: '21',
    depositPercent: '0',
    note: '',
    sentAt: null,
    answer: null,
  }
  const answer = {
    how: 'signed',
    by: 'Miss Tarn',
    at: '2026-03-01T09:00:00Z',
    note: '',
    strokes: [
      [
        [1, 2],
        [3, 4],
      ],
    ],
  }
  expect(await wrong(Estimate, estimate)).toHaveLength(1)
  expect(await wrong(Estimate, { ...estimate, answer })).toEqual([])
  expect(await wrong(Estimate, { ...estimate, answer: { ...answer, strokes: [] } })).toEqual(['answer'])
  expect(await wrong(Estimate, { ...estimate, answer: { ...answer, strokes: [[[1, 2, 3]]] } })).not.toEqual([])
  expect(await wrong(Estimate, { ...estimate, answer: { ...answer, by: '' } })).toContain('answer.by')
})
