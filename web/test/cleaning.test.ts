import { Observation } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { pegKey, pegPlaces } from '../src/surfaces/clean/pegging.ts'

const hole = (train: string, arbor: string, plate: string) => ({ train, arbor, plate })

describe('what is pegged out after the bath', () => {
  test('both plates and the small things, whether any hole is on the list or not', () => {
    expect(pegPlaces([])).toEqual(['front plate, all holes', 'back plate, all holes', 'cocks and pulleys'])
  })

  test('each hole has a place of its own: two trains may both have a third arbor, and it has two ends', () => {
    const holes = ['going', 'strike', 'chime'].flatMap((train) =>
      ['front', 'back'].map((plate) => hole(train, 'Third arbor', plate)),
    )
    const places = pegPlaces(holes).slice(3)
    expect(places).toEqual([
      'Third arbor, front plate',
      'Third arbor, back plate',
      'Third arbor, front plate, strike train',
      'Third arbor, back plate, strike train',
      'Third arbor, front plate, chime train',
      'Third arbor, back plate, chime train',
    ])
    expect(new Set(places.map(pegKey)).size).toBe(holes.length)
  })

  test('its key can be kept, and tells both ends apart, however long an arbor’s name is', () => {
    const longest = 'x'.repeat(60)
    const keys = pegPlaces([hole('strike', longest, 'front'), hole('strike', longest, 'back')]).map(pegKey)
    expect(new Set(keys).size).toBe(keys.length)
    for (const key of keys) expect(Observation.validateSyncAt('key', { key })).toBe(key)
  })
})
