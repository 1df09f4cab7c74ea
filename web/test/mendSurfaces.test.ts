import type { EscapementAction } from '@treadle/core'
import { describe, expect, test } from 'vitest'
import type { JobPage } from '@treadle/contract'
import { begunFrom } from '../src/surfaces/make/measured.ts'
import { nextOf as depthing } from '../src/surfaces/depthing/next.ts'
import { nextOf as escapement } from '../src/surfaces/escapement/next.ts'
import { nextOf as springs } from '../src/surfaces/springs/next.ts'
import { partsOf, partTitle, sheetOf } from '../src/surfaces/wheels/partsOf.ts'
import { nextOf as wheels } from '../src/surfaces/wheels/next.ts'
import { PAGE } from './page.ts'

const STEPS = [
  { key: 'note', title: 'Note the sides' },
  { key: 'free', title: 'Free the arbor' },
]

describe('the foot at a wheel', () => {
  const part = { arbor: 'Great wheel', part: 'wheel' } as const
  const at = {
    part,
    steps: STEPS,
    done: [] as string[],
    waitsForOwner: false,
    next: { arbor: 'Centre', part: 'wheel' } as const,
  }
  test('does the next step, asks the owner first, then goes on', () => {
    expect(wheels(at)).toMatchObject({ what: 'step', key: 'note', hint: 'Great wheel; 1 of 2' })
    expect(wheels({ ...at, waitsForOwner: true }).what).toBe('ask-owner')
    expect(wheels({ ...at, done: ['note', 'free'] })).toMatchObject({
      what: 'next-part',
      label: 'Press for the next: Centre, wheel',
    })
    expect(wheels({ ...at, steps: [], next: undefined }).what).toBe('springs')
  })
})

describe('the foot at a mainspring', () => {
  const at = { steps: STEPS, done: [] as string[], isOff: true, winder: 'fit' as const, next: 'strike' }
  test('never works with a winder too weak, or unknown', () => {
    expect(springs(at).what).toBe('step')
    expect(springs({ ...at, winder: 'too weak' }).what).toBe('wait')
    expect(springs({ ...at, winder: 'not said' }).what).toBe('wait')
    // Whatever the winder: first its power.
    expect(springs({ ...at, isOff: false, winder: 'too weak' })).toMatchObject({
      what: 'power',
      label: 'Press to confirm its power off first',
    })
    expect(springs({ ...at, done: ['note', 'free'] })).toMatchObject({ what: 'next' })
    expect(springs({ ...at, steps: [], next: undefined }).what).toBe('escapement')
  })
})

describe('the foot at the escapement', () => {
  const kept = { nearerMm: 0, openedDeg: 0 }
  const cure = {
    nearerMm: 0.1,
    openedDeg: 0,
    after: {} as EscapementAction,
    judged: { finding: 'fine' as const, sentence: '' },
  }
  const at = {
    drawn: true,
    tried: kept,
    kept,
    cure,
    cureWords: 'bring it nearer',
    triedWords: 'nothing',
    fine: false,
    toppingSteps: STEPS,
    topped: [] as string[],
  }
  test('tries the cure on the screen, on top of what is tried already', () => {
    expect(escapement({ ...at, tried: { nearerMm: 0.2, openedDeg: 1 } })).toMatchObject({
      what: 'try',
      to: { nearerMm: expect.closeTo(0.3, 9) as number, openedDeg: 1 },
      hint: 'the drawing moves, nothing is kept',
    })
  })
  test('says that it is set only where the drawing was moved, then tops, then goes on', () => {
    expect(escapement({ ...at, fine: true, tried: { nearerMm: 0.1, openedDeg: 0 } }).what).toBe('set')
    expect(escapement({ ...at, fine: true })).toMatchObject({ what: 'top', key: 'note' })
    expect(escapement({ ...at, fine: true, topped: ['note', 'free'] }).what).toBe('depthing')
    expect(escapement({ ...at, drawn: false, cure: null, toppingSteps: [] }).what).toBe('depthing')
  })
})

describe('a part to make begins with what was measured', () => {
  const none = { pivots: [], wheels: [], holes: [] }
  test('the rivet and the wheel that it goes through', () => {
    const wheel = { arbor: 'Great wheel', train: 'going', rivetMm: 2.2, thickMm: 1.9 } as JobPage['wheels'][number]
    expect(begunFrom('click rivet', { ...none, wheels: [wheel] })).toEqual({
      name: 'Great wheel, going',
      sizes: { clickHoleMm: 2.2, clickMm: 1.6, wheelHoleMm: 2.2, wheelMm: 1.9 },
    })
  })
  test('the pivot to be let in anew; else a usual size', () => {
    const pivot = {
      arbor: 'Third',
      plate: 'back',
      finishedMm: null,
      arborMm: 2.1,
      originalMm: 0.9,
    } as JobPage['pivots'][number]
    expect(begunFrom('pivot', { ...none, pivots: [pivot] }).sizes).toMatchObject({ pivotMm: 0.9, arborMm: 2.1 })
    expect(begunFrom('pivot', none)).toEqual({ name: '', sizes: { pivotMm: 1, pivotLongMm: 2.6, arborMm: 2.4 } })
    expect(begunFrom('stud', none).sizes).toHaveProperty('postMm', 2.5)
  })
})

describe('the foot at the depthing tool', () => {
  const trials = [
    { acrossMm: 40.5, feel: '' as const },
    { acrossMm: 40.4, feel: '' as const },
  ]
  const at = { trials, keptMm: null, bestMm: null, next: { arbor: 'Third' }, known: true }
  test('goes through the settings, keeps the best, then the next mesh', () => {
    expect(depthing(at)).toMatchObject({ what: 'feel', at: 0, feel: 'smooth' })
    const felt = trials.map((t) => ({ ...t, feel: 'smooth' as const }))
    expect(depthing({ ...at, trials: felt, bestMm: 40.45 })).toMatchObject({ what: 'keep', mm: 40.45 })
    expect(depthing({ ...at, trials: felt, bestMm: 40.45, keptMm: 40.45 }).what).toBe('next')
    expect(depthing({ ...at, known: false, next: undefined }).what).toBe('make')
  })
})

describe('the wheels and pinions of a clock', () => {
  const trainSheets = [
    {
      id: 'a',
      version: 1,
      clockId: 'c',
      train: 'going' as const,
      arbors: [
        { name: 'Great wheel', pinion: null, wheel: 84 },
        { name: 'Centre', pinion: 8, wheel: 64 },
        { name: 'Third', pinion: 8, wheel: 60 },
        { name: 'Escape', pinion: 8, wheel: 30 },
      ],
      hourly: 1,
      escape: true,
      greatTurns: null,
      motion: null,
      faultPeriodS: null,
    },
  ]
  const clock = { ...PAGE.clock, trains: [{ train: 'going' as const, power: 'spring' as const }] }
  const all = partsOf({ trainSheets, clock, plateMap: null })

  test('come from its counts: the great wheel of a spring train carries a click, the last wheel is the escape wheel', () => {
    expect(all.map(partTitle)).toEqual([
      'Great wheel',
      'Centre, wheel',
      'Centre, pinion',
      'Third, wheel',
      'Third, pinion',
      'Escape, wheel',
      'Escape, pinion',
    ])
    expect(all.filter((p) => p.hasClick).map((p) => p.arbor)).toEqual(['Great wheel'])
    expect(all.filter((p) => p.escape).map((p) => p.count)).toEqual([30])
    // The hourly arbor turns with the hands, and each mesh turns about.
    expect(all.find((p) => p.arbor === 'Great wheel')!.turn).toBe('anticlockwise')
    const weights = { ...clock, trains: [{ train: 'going' as const, power: 'weight' as const }] }
    expect(partsOf({ trainSheets, clock: weights, plateMap: null }).some((p) => p.hasClick)).toBe(false)
  })

  test('a pinion’s sheet is of cut leaves or of trundles', () => {
    const pinion = all.find((p) => p.key === 'going Centre pinion')!
    const row = { train: 'going', arbor: 'Centre', part: 'lantern' } as Parameters<typeof sheetOf>[1][number]
    expect(sheetOf(pinion, [row])).toBe(row)
    expect(sheetOf(all[1]!, [row])).toBeUndefined()
  })
})
