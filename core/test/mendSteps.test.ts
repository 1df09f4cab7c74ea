import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  contrateDepthMm,
  cutsInOrder,
  FILE_CUTS,
  FILE_FINISHES,
  fileStrokes,
  isLookedAt,
  settingsToTry,
  smoothRange,
  springSteps,
  toppingSteps,
  trundleSteps,
  WORK_SHAPES,
  type WheelFound,
} from '../src/index.ts'

describe('fitting a mainspring', () => {
  const facts = { end: 'hole', fromDrawer: true, woundNmm: 839, open: false } as const
  const keys = springSteps(facts).map((s) => s.key)

  test('it is looked at and oiled before it is wound in, hooked after, and counted last', () => {
    for (const [first, then] of [
      ['out', 'take'],
      ['clean', 'wind'],
      ['oil', 'wind'],
      ['wind', 'hook'],
      ['hook', 'count'],
    ] as const)
      expect(keys.indexOf(first), `${first} before ${then}`).toBeLessThan(keys.indexOf(then))
  })

  test('what can hurt is said where it does, with the torque that safety reckons with', () => {
    const at = (key: string) => springSteps(facts).find((s) => s.key === key)!
    for (const key of ['out', 'wind']) expect(at(key).caution).toMatch(/eyes covered, heavy gloves.*worse than none/)
    expect(at('count').caution).toMatch(/as wound until it is let down/)
    expect(at('out').does).toMatch(/839 N·mm/)
    expect(at('wind').does).toMatch(/never by cutting its wire in the hand/)
  })

  test('a loop goes over its pillar, a hole over a hook; an open spring’s seat is oiled first', () => {
    const does = (part: Partial<Parameters<typeof springSteps>[0]>, key: string) =>
      springSteps({ ...facts, ...part }).find((s) => s.key === key)!.does
    expect(does({ end: 'loop' }, 'hook')).toMatch(/pillar/)
    expect(does({ end: 'loop' }, 'wind')).toMatch(/straight piece by the loop free/)
    expect(does({}, 'hook')).toMatch(/barrel’s hook/)
    expect(does({ open: true }, 'oil')).toMatch(/^Its seat on the arbor first/)
  })
})

describe('topping and trundles', () => {
  test('bent teeth are straightened before anything is taken off, and the tips measured again', () => {
    const steps = toppingSteps(17.91, 0.09)
    expect(steps[0]!.key).toBe('straighten')
    expect(steps.at(-1)!.key).toBe('measure')
    expect(steps.find((s) => s.key === 'top')!.does).toMatch(/17\.91 mm: at most 0\.09 mm/)
    expect(steps.find((s) => s.key === 'top')!.caution).toMatch(/hands off the tips/)
    expect(toppingSteps(null, null).find((s) => s.key === 'top')!.does).not.toMatch(/mm/)
  })

  test('a loose shroud is staked before the pinion is trued', () => {
    const keys = trundleSteps(1.2, [3], true).map((s) => s.key)
    expect(keys.indexOf('stake')).toBeGreaterThan(keys.indexOf('in'))
    expect(keys.indexOf('stake')).toBeLessThan(keys.indexOf('true'))
    expect(trundleSteps(1.2, [3], false).map((s) => s.key)).not.toContain('stake')
    expect(trundleSteps(1.2, [3, 5], false)[0]!.does).toMatch(/Number 3, 5/)
  })
})

describe('the depthing tool’s settings', () => {
  test('five about the reckoned one, from far to near, by 4 % of a module', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 200, noNaN: true }),
        fc.double({ min: 0.2, max: 2, noNaN: true }),
        (acrossRunnersMm, moduleMm) => {
          const all = settingsToTry({ acrossRunnersMm, moduleMm })
          expect(all).toHaveLength(5)
          expect(all[2]).toBeCloseTo(acrossRunnersMm, 9)
          all.slice(1).forEach((mm, i) => expect(all[i]! - mm).toBeCloseTo(0.04 * moduleMm, 9))
        },
      ),
    )
  })

  test('the middle of those that felt smooth; none where none did', () => {
    const trials = [
      { acrossMm: 31.2, feel: 'click' as const },
      { acrossMm: 31.1, feel: 'smooth' as const },
      { acrossMm: 31, feel: 'smooth' as const },
      { acrossMm: 30.9, feel: 'butts' as const },
    ]
    expect(smoothRange(trials)).toMatchObject({ fromMm: 31, toMm: 31.1 })
    expect(smoothRange(trials)!.bestMm).toBeCloseTo(31.05, 9)
    expect(smoothRange([{ acrossMm: 31, feel: '' }])).toBeNull()
  })

  test('a contrate wheel’s tips stand within the pinion’s pitch circle', () => {
    // Of 8 leaves and module 0.5: pitch radius 2 mm, teeth that rise 0.675 mm over their pitch plane.
    expect(contrateDepthMm(8, 0.5)).toBeCloseTo(2 - 0.675, 9)
  })
})

describe('how it is filed', () => {
  test('cuts only get finer, and end with the one that the finish asks for', () => {
    const right = { coarse: ['00', '0'], fine: ['2'], 'ready to polish': ['4'] }
    for (const finish of FILE_FINISHES)
      for (const removeMm of [0, 0.01, 0.05, 0.2, 1.5]) {
        const cuts = cutsInOrder({ finish, removeMm }).map((cut) => FILE_CUTS.indexOf(cut))
        expect(cuts).toEqual([...cuts].sort((a, b) => a - b))
        expect(right[finish]).toContain(FILE_CUTS[cuts.at(-1)!])
      }
  })

  test('a flat is crossed, a shoulder has its safe edge, and hard steel is tried first', () => {
    expect(fileStrokes({ shape: 'flat', material: 'brass' })[0]).toMatch(/70° and one at about 50°/)
    expect(fileStrokes({ shape: 'shoulder', material: 'steel' })[0]).toMatch(/safe edge.*1000 and then 6000/)
    expect(fileStrokes({ shape: 'slot', material: 'hardened steel' }).join(' ')).toMatch(/slides off it is no file/)
    for (const shape of WORK_SHAPES) expect(fileStrokes({ shape, material: 'brass' }).length).toBeGreaterThan(2)
  })
})

test('a sheet is looked at once anything at all is said of it', () => {
  const nothing: WheelFound = { part: 'wheel', faults: [], worn: '', trundlesMm: [null], shroud: '', grooveMm: null }
  expect(isLookedAt(nothing)).toBe(false)
  for (const part of [
    { worn: 'none' as const },
    { faults: [{ tooth: 1, fault: 'bent' as const }] },
    { trundlesMm: [1.2, null] },
    { shroud: 'sound' as const },
    { grooveMm: 0 },
  ])
    expect(isLookedAt({ ...nothing, ...part })).toBe(true)
})
