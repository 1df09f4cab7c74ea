import { BAY_NAMES } from '@treadle/core'
import { expect, test } from 'vitest'
import { SURFACES, whereInBay, whereOwed } from '../src/surfaces/index.ts'

test('each surface has an address of its own, and each kind of work one place', () => {
  const paths = SURFACES.map((s) => s.path)
  expect(new Set(paths).size).toBe(paths.length)
  const owed = SURFACES.flatMap((s) => s.owes ?? [])
  expect(new Set(owed).size).toBe(owed.length)
  // Every kind that the core can owe; the type of the record holds this list to the core's.
  const kinds: Record<Parameters<typeof whereOwed>[0], string> = {
    unreadable: 'arrive',
    observe: 'listen',
    'send-on': 'arrive',
    answer: 'estimate',
    order: 'estimate',
    'make-safe': 'power',
    mark: 'strip',
    'take-apart': 'strip',
    clean: 'clean',
    bath: 'clean',
    measure: 'holes',
    pivots: 'pivots',
    bush: 'bushings',
    click: 'wheels',
    assemble: 'assemble',
    'no-cutter': 'holes',
    beat: 'listen',
    reading: 'rate',
    turn: 'rate',
    wind: 'rate',
    trial: 'trial',
    stop: 'trial',
    strike: 'strike',
    promise: 'card',
    card: 'card',
    recall: 'visit',
    waits: 'visit',
    'tell-owner': 'visit',
    counts: 'trains',
    dry: 'assemble',
    oil: 'oil',
  }
  for (const [kind, path] of Object.entries(kinds)) expect(whereOwed(kind as keyof typeof kinds)).toBe(path)
  expect(BAY_NAMES.map(whereInBay)).toEqual(['arrive', 'power', 'holes', 'listen', 'card'])
})
