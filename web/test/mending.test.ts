import { blankHole, blankPivot, DEFAULT_SETTINGS, type JobPage, type StockRow } from '@treadle/contract'
import { doneBy, gone, movementOfJob, planOf, stepsOfPivot, testOrder, unjudged } from '@treadle/core'
import { DEFAULT_WAYS } from '@treadle/core'
import { describe, expect, test } from 'vitest'
import { linesFromJob, merged } from '../src/job/estimateFromJob.ts'
import { arborsOfSheet, blankArbor, draftMap, freeName, missingArbors } from '../src/surfaces/plates/draft.ts'
import { frameOf } from '../src/job/plates/frame.ts'
import { DEFAULT_PRICES } from '@treadle/contract'
import { PAGE, RULES } from './page.ts'

type Hole = JobPage['holes'][number]
const place = { train: 'going', arbor: 'Third', arborIndex: 2, plate: 'back', role: 'other' } as const
const worn = (part: Partial<Hole> = {}): Hole => ({
  ...blankHole('h1', place),
  jobId: '',
  measuredBy: '',
  longAxisMm: 1.32,
  shortAxisMm: 1.1,
  wearDeg: 60,
  pivotMm: 1,
  plateMm: 2.4,
  ...part,
})
const SHEET = {
  id: '',
  version: 1,
  clockId: '',
  train: 'going' as const,
  arbors: [
    { name: 'Great', pinion: null, wheel: 84 },
    { name: 'Centre', pinion: 8, wheel: 64 },
    { name: 'Third', pinion: 8, wheel: 60 },
    { name: 'Escape', pinion: 8, wheel: 30 },
  ],
  hourly: 1,
  escape: true,
  greatTurns: null,
  motion: null,
  faultPeriodS: null,
}

describe('setting out', () => {
  test('the train sheet names the arbors, and the pallets after the escape wheel', () => {
    const arbors = arborsOfSheet(SHEET)
    expect(arbors.map((a) => [a.name, a.role])).toEqual([
      ['Great', 'other'],
      ['Centre', 'other'],
      ['Third', 'other'],
      ['Escape', 'escape'],
      ['Pallets', 'pallet'],
    ])
    const draft = draftMap(null, [SHEET])
    expect(draft.arbors).toHaveLength(5)
    expect(missingArbors({ ...draft, arbors: draft.arbors.slice(0, 3) }, [SHEET]).map((a) => a.name)).toEqual([
      'Escape',
      'Pallets',
    ])
  })

  test('a new pillar takes the first free number, so that no two have one name', () => {
    const named = (name: string) => ({
      name,
      kind: 'pillar' as const,
      plate: 'both' as const,
      xMm: 0,
      yMm: 0,
      diameterMm: 6,
    })
    expect(freeName('Pillar', { fixtures: [named('Pillar 1'), named('Pillar 3')] })).toBe('Pillar 2')
    expect(freeName('Screw', { fixtures: [] })).toBe('Screw 1')
  })

  test('the frame holds everything, and the back plate its mirror image', () => {
    const map = {
      arbors: [{ ...blankArbor({ train: 'going', name: 'a', index: 0, role: 'other' }), xMm: 40, yMm: 10 }],
      fixtures: [],
      edge: [
        { xMm: -20, yMm: -30 },
        { xMm: 50, yMm: -30 },
        { xMm: 50, yMm: 40 },
      ],
    }
    const front = frameOf(map, false)
    const back = frameOf(map, true)
    expect(front.left).toBeLessThan(-20)
    expect(front.left + front.width).toBeGreaterThan(50)
    expect(back.left + back.width).toBeCloseTo(-front.left)
    expect(frameOf({ arbors: [], fixtures: [], edge: [] }, false).width).toBeGreaterThan(50)
  })
})

describe('the walk between the plates', () => {
  test('one train at a time, great wheel first, holes that the map does not name too', () => {
    const stop = (train: 'going' | 'strike', name: string, index: number) => ({
      train,
      name,
      index,
      role: 'other' as const,
    })
    const order = testOrder(
      [stop('strike', 'Pin wheel', 1), stop('going', 'Centre', 1), stop('going', 'Great', 0)],
      [worn()],
    )
    expect(order.map((s) => s.name)).toEqual(['Great', 'Centre', 'Third', 'Pin wheel'])
  })

  test('a plate is not judged while one hole of it is not', () => {
    const [stop] = testOrder([], [worn()])
    const done = (h: Hole) => movementOfJob({ ...PAGE, holes: [h] }, RULES).judged(h).done
    expect(unjudged([stop!], [worn()], 'back', done)).toEqual([])
    expect(unjudged([stop!], [worn()], 'front', done)).toEqual([stop])
    const bare = worn({ longAxisMm: null })
    expect(unjudged([stop!], [bare], 'back', done)).toEqual([stop])
    expect(unjudged([stop!], [{ ...bare, waived: 'New.' }], 'back', done)).toEqual([])
    expect(gone(stop!, [], [worn(), worn({ plate: 'front' })], done)).toBe(false)
  })
})

describe('pivots', () => {
  test('the workshop’s school says how, and what is written down', () => {
    expect(stepsOfPivot('file and burnish', 'burnish').join()).toMatch(/Burnisher/)
    expect(stepsOfPivot('file and burnish', 'paste').join()).toMatch(/600, then 1000, then 2500/)
    expect(stepsOfPivot('straighten', 'paste')[0]).toMatch(/may break/)
    expect(doneBy('file and burnish', 'paste')).toBe('papered')
    expect(doneBy('re-pivot', 'burnish')).toBe('re-pivoted')
    expect(stepsOfPivot('leave', 'burnish')).toHaveLength(1)
  })
})

describe('the plan', () => {
  const bush = (id: string, insideMm: number, count = 1, reserved = 0): StockRow => ({
    id,
    version: 1,
    kind: 'bush',
    name: '',
    material: 'bronze',
    outsideMm: 2.02,
    insideMm,
    lengthMm: 2.5,
    measuredMm: null,
    widthMm: null,
    thickMm: null,
    count,
    reserved,
    lowAt: 0,
    drawer: '',
  })
  const planned = (page: Partial<JobPage>, stock: StockRow[]) => {
    const data = { ...PAGE, ...page }
    return planOf(data, movementOfJob(data, RULES), DEFAULT_SETTINGS, stock)
  }

  test('every hole to be bushed, each with a bush of its own; what is promised elsewhere is not given', () => {
    const holes = [worn(), worn({ id: 'h2', plate: 'front' }), worn({ id: 'h3', longAxisMm: 1.04, shortAxisMm: 1.04 })]
    const plan = planned({ holes }, [bush('one', 1.03), bush('promised', 1.02, 1, 1)])
    expect(plan.holes.map((h) => h.hole.id)).toEqual(['h2', 'h1'])
    expect(plan.holes.flatMap((h) => h.stockId ?? [])).toEqual(['one'])
    expect(plan.cutters).toEqual([[2, 2]])
    const turned = plan.holes.find((h) => h.stockId === null)!
    expect(turned.work.bush).toMatchObject({ from: 'turned', outsideMm: 2.02 })
  })

  test('sizes wait for a pivot that is not finished', () => {
    const pivot = { train: 'going', arbor: 'Third', plate: 'back', finishedMm: null } as JobPage['pivots'][number]
    expect(planned({ holes: [worn()], pivots: [pivot] }, []).holes[0]).toMatchObject({ pivotOpen: true, pivotMm: 1 })
    const done = { ...pivot, finishedMm: 0.94 }
    expect(planned({ holes: [worn()], pivots: [done] }, []).holes[0]).toMatchObject({ pivotOpen: false, pivotMm: 0.94 })
  })

  test('near the limit, the movement open: proposed; no cutter: said', () => {
    const near = worn({ longAxisMm: 1.1, shortAxisMm: 1.06, wearDeg: 10 })
    expect(planned({ holes: [near] }, []).doItNow).toHaveLength(1)
    const wide = worn({ longAxisMm: 3.2, shortAxisMm: 2.5, pivotMm: 2.4 })
    expect(planned({ holes: [wide] }, []).withoutCutter).toHaveLength(1)
  })

  test('an old bush out: until it is cut, a larger hole takes another cutter and another bush', () => {
    const row = { holeId: 'h1', stockId: 'one', cutterMm: 2, done: ['mark', 'old'] } as JobPage['bushings'][number]
    const drawer = [bush('one', 1.03), { ...bush('wide', 1.03), outsideMm: 2.32 }]
    const of = (hole: Partial<Hole>, done = row.done) =>
      planned({ holes: [worn({ old: 'pressed', ...hole })], bushings: [{ ...row, done }] }, drawer).holes[0]!
    expect(of({})).toMatchObject({ oldHoleOpen: true, stockId: 'one', work: { cutterMm: 2 } })
    expect(of({ oldHoleMm: 1.9 })).toMatchObject({ oldHoleOpen: false, stockId: 'one', work: { cutterMm: 2 } })
    expect(of({ oldHoleMm: 2.2 })).toMatchObject({ stockId: 'wide', work: { cutterMm: 2.3 } })
    expect(of({ oldHoleMm: 2.2 }, ['mark', 'old', 'cut'])).toMatchObject({ stockId: 'one', work: { cutterMm: 2 } })
    expect(of({ oldHoleMm: 9 }).work).toMatchObject({ cutterMm: null, bush: null })
  })

  test('on the plates: where the marker goes, whom to mask, what comes too near', () => {
    const arbor = (name: string, index: number, xMm: number, yMm: number) => ({
      ...blankArbor({ train: 'going', name, index, role: 'other' }),
      xMm,
      yMm,
    })
    const plateMap = {
      id: '',
      version: 1,
      clockId: '',
      arbors: [arbor('Centre', 1, 0, 36), arbor('Third', 2, 0, 0)],
      fixtures: [{ name: 'Screw', kind: 'screw' as const, plate: 'back' as const, xMm: 2.6, yMm: 0, diameterMm: 2 }],
      edge: [],
      betweenMm: 30,
      photoId: null,
      trueing: null,
      note: '',
    }
    const [one] = planned({ holes: [worn()], plateMap }, []).holes
    expect(one!.work.neighbours).toEqual(['screw', 'centre'])
    expect(one!.conflicts).toEqual([{ to: 'Screw', leftMm: expect.closeTo(2.6 - 1 - 1.01) }])
    // A neighbour’s oil sink, or the bush it will have, counts where it is wider than its hole.
    const beside = (part: Partial<Hole>) =>
      planned(
        {
          holes: [
            worn(),
            worn({ id: 'h2', arbor: 'Centre', arborIndex: 1, shortAxisMm: 1.1, longAxisMm: 1.1, ...part }),
          ],
          plateMap: { ...plateMap, arbors: [arbor('Centre', 1, 0, 3), arbor('Third', 2, 0, 0)], fixtures: [] },
        },
        [],
      ).holes.find((h) => h.hole.id === 'h1')!.conflicts
    expect(beside({})).toEqual([])
    expect(beside({ sinkMm: 3 })).toEqual([{ to: 'Centre’s oil sink', leftMm: expect.closeTo(3 - 1.01 - 1.5) }])
    expect(beside({ verdictOverride: 'bush' })).toEqual([])
    expect(beside({ verdictOverride: 'bush', oldHoleMm: 2.5 })).toEqual([
      { to: 'Centre’s bush', leftMm: expect.closeTo(3 - 1.01 - 1.36) },
    ])
    // Away from the screw, which stands at 3.
    expect(one!.marker!.clockAngleDeg).toBeGreaterThan(180)
  })

  test('it prices itself: bushes, pivots in the lathe, pivots let in anew; twice is as once', () => {
    const end = { train: 'going', arbor: 'Third', arborIndex: 2, plate: 'back' } as const
    const pivot = (part: Partial<JobPage['pivots'][number]>) => ({
      ...blankPivot('', end),
      jobId: '',
      at: '',
      who: '',
      firstMm: 1,
      ...part,
    })
    const data = {
      ...PAGE,
      holes: [worn()],
      pivots: [
        pivot({ grooveDepthMm: 0.03 }),
        pivot({ grooveDepthMm: 0.2 }),
        pivot({}),
        pivot({ work: 're-pivoted', finishedMm: 1 }),
      ],
    }
    const lines = linesFromJob(DEFAULT_PRICES, data, DEFAULT_SETTINGS, movementOfJob(data, RULES), DEFAULT_WAYS)
    const quantity = (words: RegExp) => lines.find((l) => words.test(l.title))?.quantity
    expect(quantity(/Bush a worn hole/)).toBe(1)
    expect(quantity(/Polish or burnish/)).toBe(1)
    expect(quantity(/Let in a new pivot/)).toBe(2)
    expect(merged(lines, lines, DEFAULT_WAYS)).toHaveLength(lines.length)
  })
})
