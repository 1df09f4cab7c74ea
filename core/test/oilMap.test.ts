import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  bottleStands,
  dropFor,
  OIL_TROUBLE,
  oilingSeen,
  oilMapOf,
  oilOpen,
  oilPoints,
  oilSink,
  oilsSeen,
  POWERS,
  STRIKE_KINDS,
  type OiledWork,
  type OilFacts,
  type OilTicks,
} from '../src/index.ts'

const arbors = (...names: string[]) => names.map((name) => ({ name }))
const WORK: OiledWork = {
  trains: [
    { train: 'going', power: 'spring' },
    { train: 'strike', power: 'weight' },
  ],
  trainSheets: [
    { train: 'going', arbors: arbors('Great', 'Centre', 'Third', 'Escape'), hourly: 1 },
    { train: 'strike', arbors: arbors('Great', 'Pin', 'Fly'), hourly: null },
  ],
  plateMap: null,
  holes: [],
  strike: 'rack',
  pendulum: true,
}
const FACTS: OilFacts = {
  ...WORK,
  work: { strikeWork: 'rack' },
  pendulum: { beatsPerHour: 7200, lengthMm: null },
  scopeTrain: '',
}
const BLANK: OilTicks = { added: [], sinks: [], done: [], left: [] }

describe('the oil map of a movement', () => {
  const points = oilPoints(WORK)
  const of = (key: string) => points.find((p) => p.key === key)

  test('has both ends of every arbor, the pallets’ too where no sheet names them', () => {
    const pivots = points.filter((p) => p.part === 'pivot' || p.part === 'great pivot')
    // Seven arbors and the pallets', two ends each.
    expect(pivots).toHaveLength(16)
    expect(of('going Pallet arbor back')).toMatchObject({ with: 'pivot oil' })
    expect(of('going Great front')).toMatchObject({ part: 'great pivot', with: 'heavy oil', side: 'front' })
    expect(of('strike Great back')).toMatchObject({ part: 'great pivot', side: 'back' })
  })

  test('tells what is reached from inside only', () => {
    expect(of('going Centre front')).toMatchObject({
      side: 'inside',
      reach: expect.stringMatching(/motion work/) as string,
    })
    expect(of('going Centre back')?.side).toBe('back')
    const plateMap = { arbors: [{ train: 'going', name: 'Escape', index: 3, role: 'escape', cock: 'back' }] }
    const cocked = oilPoints({ ...WORK, plateMap })
    expect(cocked.find((p) => p.key === 'going Escape back')?.reach).toBe('under its cock')
    expect(cocked.find((p) => p.key === 'going Escape front')?.reach).toBe('')
  })

  test('oils a spring and no weight, a pulley and no spring', () => {
    expect(of('going mainspring')).toMatchObject({ with: 'heavy oil' })
    expect(of('strike mainspring')).toBeUndefined()
    expect(of('strike pulley')).toMatchObject({ part: 'pulley axle' })
    expect(of('going pulley')).toBeUndefined()
    const open = oilPoints({ ...WORK, trains: [{ train: 'going', power: 'open-spring' }] })
    expect(open.find((p) => p.key === 'going mainspring')?.reach).toMatch(/seat on the arbor before it goes on/)
  })

  test('keeps teeth, leaves and motion work dry, and says why', () => {
    const dry = points.filter((p) => p.with === 'dry')
    expect(dry.map((p) => p.part)).toEqual(
      expect.arrayContaining(['wheel teeth', 'pinion leaves', 'motion work teeth']),
    )
    for (const p of dry) expect(p.why).toMatch(/dust/)
  })

  test('takes a sink from its measured hole: a third of the plate deep, never deeper than a cup can be', () => {
    const hole = { train: 'going', arbor: 'Third', plate: 'back' as const }
    const sinkOf = (sinkMm: number, plateMm: number) =>
      oilPoints({ ...WORK, holes: [{ ...hole, sinkMm, plateMm }] }).find((p) => p.key === 'going Third back')?.sink
    expect(sinkOf(2.6, 2.4)).toEqual({ acrossMm: 2.6, depthMm: 2.4 / 3 })
    expect(sinkOf(1, 6)).toEqual({ acrossMm: 1, depthMm: 0.5 })
    expect(of('going Third back')?.sink).toBeNull()
  })

  test('whatever the clock: every point once, front before back before inside, each with what and why', () => {
    fc.assert(
      fc.property(
        fc.subarray(['going', 'strike', 'chime'], { minLength: 1 }),
        fc.constantFrom(...POWERS),
        fc.constantFrom(null, ...STRIKE_KINDS),
        fc.boolean(),
        (trains, power, strike, pendulum) => {
          const all = oilPoints({
            ...WORK,
            ...{ trains: trains.map((train) => ({ train, power })), strike, pendulum },
          })
          expect(new Set(all.map((p) => p.key)).size).toBe(all.length)
          const order = all.map((p) => ['front', 'back', 'inside'].indexOf(p.side))
          expect(order).toEqual([...order].sort())
          for (const p of all) expect(p.why).toMatch(/\.$/)
          expect(all.some((p) => p.part === 'suspension')).toBe(pendulum && trains.includes('going'))
        },
      ),
    )
  })
})

describe('what is ticked off', () => {
  test('nothing is wanted before it is begun; then all that is neither ticked nor left out', () => {
    expect(oilOpen(undefined, FACTS)).toEqual([])
    expect(oilOpen({ ...BLANK, left: ['suspension'] }, FACTS)).toEqual([])
    const all = oilMapOf(undefined, FACTS)
    const done = all.slice(0, 5).map((p) => p.key)
    expect(oilOpen({ ...BLANK, done }, FACTS)).toEqual(all.slice(5).map((p) => p.name))
    expect(oilOpen({ ...BLANK, done, left: all.slice(5).map((p) => p.key) }, FACTS)).toEqual([])
  })

  test('a point added by hand is wanted too, and a sink measured for a point gives its drop', () => {
    const sheet = {
      ...BLANK,
      added: [{ name: 'Strike silent lever', part: 'lifting surface' as const, side: 'front' as const }],
      sinks: [{ key: 'going Third back', acrossMm: 2.4, depthMm: 0.8 }],
    }
    const map = oilMapOf(sheet, FACTS)
    expect(map.find((p) => p.name === 'Strike silent lever')).toMatchObject({ with: 'grease' })
    const third = map.find((p) => p.key === 'going Third back')!
    expect(dropFor(third)).toBeCloseTo(oilSink(2.4, 0.8).microlitres, 12)
    expect(dropFor({ ...third, with: 'grease' })).toBeNull()
  })

  test('a visit for one train asks for its points only', () => {
    const map = oilMapOf(undefined, { ...FACTS, scopeTrain: 'going' })
    expect(map.some((p) => p.train === 'strike')).toBe(false)
    expect(map.some((p) => p.key === 'pallet faces')).toBe(true)
  })

  test('its rack is asked for once it is known to have one', () => {
    const keys = (work: OilFacts['work']) => oilMapOf(undefined, { ...FACTS, work }).map((p) => p.key)
    expect(keys({ strikeWork: 'rack' })).toContain('rack')
    expect(keys({ strikeWork: 'rack', strike: { kind: 'count-outside' } })).not.toContain('rack')
  })

  test('what to do with rivers and floods is told', () => {
    for (const t of OIL_TROUBLE) expect(t.does).toMatch(/\.$/)
  })
})

describe('the witness of the sinks', () => {
  const at = (years: number) => new Date(Date.UTC(2020, 0, 1) + years * 365.25 * 86_400_000).toISOString()
  const oilings = [
    { jobId: 'first', oilId: 'pale', at: at(0) },
    { jobId: 'second', oilId: 'yellow', at: at(4) },
  ]

  test('a picture of a visit shows that visit’s oil; of a clock come back, the last one’s', () => {
    const seen = (jobId: string, moment: 'oiled' | 'trial' | 'visit', years: number) =>
      oilingSeen({ jobId, moment, takenAt: at(years) }, oilings)?.oilId ?? null
    expect(seen('first', 'oiled', 0)).toBe('pale')
    expect(seen('second', 'visit', 3.9)).toBe('pale')
    expect(seen('second', 'trial', 4.1)).toBe('yellow')
    expect(seen('third', 'visit', 7)).toBe('yellow')
    expect(seen('first', 'visit', -1)).toBeNull()
  })

  test('each oil is told by how often it stayed, for how long, and how soon it did not', () => {
    const picture = (oilId: string | null, years: number, state: '' | 'stays' | 'spread' | 'dry') => ({
      ...{ oilId, oiledAt: at(0), takenAt: at(years), state },
    })
    const told = oilsSeen([
      picture('pale', 0, 'stays'),
      picture('pale', 4, 'stays'),
      picture('pale', 6, 'dry'),
      picture('yellow', 1, 'spread'),
      picture('yellow', 3, ''),
      picture(null, 2, 'dry'),
    ])
    expect(told).toHaveLength(2)
    expect(told[0]).toMatchObject({ oilId: 'pale', stays: 2, spread: 0, dry: 1 })
    expect(told[0]?.stayedYears).toBeCloseTo(4, 9)
    expect(told[0]?.failedYears).toBeCloseTo(6, 9)
    expect(told[1]).toMatchObject({ oilId: 'yellow', stays: 0, spread: 1, stayedYears: null })
  })

  test('a bottle ages from the day it was opened', () => {
    const nowS = Date.parse('2026-11-28T12:00:00Z') / 1000
    const stands = (openedOn: string | null, keepsYears = 3) => bottleStands({ openedOn, keepsYears }, nowS)?.stands
    expect(stands(null)).toBeUndefined()
    expect(stands('')).toBeUndefined()
    expect(stands('2026-01-01')).toBe('fresh')
    expect(stands('2024-04-01')).toBe('old')
    expect(stands('2023-11-01')).toBe('over')
    expect(bottleStands({ openedOn: '2024-11-28', keepsYears: 3 }, nowS)?.years).toBeCloseTo(2, 1)
  })
})
