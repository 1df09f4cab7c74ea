import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  arcScale,
  assemblyPlan,
  clockProofs,
  driveMargin,
  heedMarks,
  hidingPlace,
  meshMarks,
  partsCount,
  placeBetween,
  POWER_CARE,
  POWERS,
  proofsFor,
  type Owed,
} from '../src/index.ts'

describe('power', () => {
  test('each kind names its wear, its steps, what may go wrong and at least two proofs', () => {
    for (const power of POWERS) {
      const care = POWER_CARE[power]
      expect(care.steps.length).toBeGreaterThan(1)
      expect(care.wrong).not.toBe('')
      expect(care.proofs.map((p) => p.key)).toContain('great-wheel')
      expect(care.proofs.length).toBeGreaterThanOrEqual(2)
      expect(care.methods).toContain('run-down')
      // Running down freely is never the first choice.
      expect(care.methods[0]).not.toBe('run-down')
    }
  })

  test('a fusee’s set-up and a remontoire’s second store are proved off', () => {
    expect(POWER_CARE.fusee.proofs.map((p) => p.key)).toContain('set-up')
    expect(POWER_CARE.remontoire.proofs.map((p) => p.key)).toContain('second-store')
  })

  test('a tall case asks for a second person, mercury for its own procedure first', () => {
    expect(clockProofs('longcase', false).map((p) => p.key)).toEqual(['second-person'])
    expect(
      proofsFor('weight', 'longcase', true)
        .map((p) => p.key)
        .slice(0, 2),
    ).toEqual(['mercury', 'second-person'])
    expect(clockProofs('wall', false)).toEqual([])
  })
})

describe('drive margin', () => {
  test('the spare share of what is fitted', () => {
    expect(driveMargin(4, 2.4)).toEqual({ marginPercent: 40, verdict: 'good' })
    expect(driveMargin(4, 3.4).verdict).toBe('watch')
    expect(driveMargin(4, 3.9).verdict).toBe('poor')
    expect(driveMargin(4, 5).marginPercent).toBe(-25)
    expect(driveMargin(4, 5).verdict).toBe('poor')
  })

  test('no weight is no test', () => {
    expect(() => driveMargin(0, 1)).toThrow(/fittedKg/)
    expect(() => driveMargin(1, -1)).toThrow(/leastKg/)
  })
})

describe('the arc scale', () => {
  test('a mark lies where the tip stands at that angle', () => {
    const { ticks, widthMm } = arcScale(1035, 5)
    for (const t of ticks) expect(t.innerX).toBeCloseTo(1035 * Math.sin((t.deg * Math.PI) / 180), 9)
    // All inner ends lie on one circle about the suspension.
    const middle = ticks.find((t) => t.deg === 0)!
    for (const t of ticks) {
      const up = 1035 - (middle.innerY - t.innerY)
      expect(Math.hypot(t.innerX, up)).toBeCloseTo(1035, 6)
    }
    expect(widthMm).toBeLessThan(187)
  })

  test('it is even either side, and never wider than a sheet', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 40, max: 6000, noNaN: true }),
        fc.double({ min: 1, max: 25, noNaN: true }),
        (length, wanted) => {
          const { ticks, widthMm, reachDeg } = arcScale(length, wanted)
          expect(widthMm).toBeLessThan(190 + 18)
          expect(reachDeg).toBeLessThanOrEqual(wanted)
          expect(ticks.map((t) => t.deg + 0).sort((a, b) => a - b)).toEqual(
            ticks.map((t) => -t.deg + 0).sort((a, b) => a - b),
          )
          expect(ticks.some((t) => t.deg === 0)).toBe(true)
        },
      ),
    )
  })

  test('a length that is none is refused', () => {
    expect(() => arcScale(10)).toThrow(/lengthMm is 10/)
  })
})

describe('marks before parting', () => {
  const spring = (train: string) => ({ train, power: 'spring' })
  const keys = (work: Partial<Parameters<typeof meshMarks>[0]>) =>
    meshMarks({
      trains: [spring('going')],
      strikeWork: null,
      moon: false,
      calendar: false,
      pendulum: true,
      ...work,
    }).map((m) => m.key)

  test('a going clock: clicks and nut', () => {
    expect(keys({})).toEqual(['clicks', 'nut'])
    expect(keys({ pendulum: false })).toEqual(['clicks'])
  })

  test('a striking clock by its own work; where nobody has looked, both', () => {
    const trains = [spring('going'), spring('strike')]
    expect(keys({ trains, strikeWork: 'rack' })).toEqual([
      'clicks',
      'nut',
      'strike-lock',
      'warning',
      'gathering-pallet',
    ])
    expect(keys({ trains, strikeWork: 'count-wheel' })).toEqual([
      'clicks',
      'nut',
      'strike-lock',
      'warning',
      'count-wheel',
    ])
    expect(keys({ trains })).toContain('count-wheel')
    expect(keys({ trains })).toContain('gathering-pallet')
  })

  test('chime, moon and calendar add theirs', () => {
    expect(keys({ trains: [spring('going'), spring('chime')], moon: true, calendar: true })).toEqual([
      'clicks',
      'nut',
      'chime',
      'moon',
      'calendar',
    ])
  })
})

describe('the strip log backwards', () => {
  const step = (id: string, position: number, count = 1, back = false) => ({
    ...{ id, position, part: id, count, back, notBack: '', tray: 'case' },
  })

  test('last out is first in, parts are counted, and what is left over is named', () => {
    const log = [step('dial', 1, 5, true), step('hands', 2, 3), step('bridge', 3, 2, true)]
    const { partsOut, partsBack, partsKept, leftOver } = partsCount(log)
    const back = assemblyPlan(log, ['going'], {}).flatMap((i) => (i.kind === 'part' ? [i.part.part] : []))
    expect(back).toEqual(['bridge', 'hands', 'dial'])
    expect([partsOut, partsBack, partsKept]).toEqual([10, 7, 0])
    expect(leftOver.map((s) => s.part)).toEqual(['hands'])
  })

  test('a step moved between two neighbours stays between them, again and again', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(), { minLength: 1, maxLength: 40 }), (moves) => {
        const places = [1, 2, 3, 4, 5]
        for (const m of moves) {
          const at = m % (places.length + 1)
          const place = placeBetween(places[at - 1] ?? null, places[at] ?? null)
          if (at > 0) expect(place).toBeGreaterThan(places[at - 1]!)
          if (at < places.length) expect(place).toBeLessThan(places[at]!)
          places.splice(at, 0, place)
        }
      }),
    )
    expect(placeBetween(null, null)).toBe(1)
  })

  test('it reminds where things hide', () => {
    expect(hidingPlace('Warning lever')).toMatch(/washer/)
    expect(hidingPlace('Third wheel')).toBeNull()
  })
})

describe('done, later, not needed', () => {
  const owed: Owed = { kind: 'wind', dueS: 1000, weight: 'watch', title: '', why: '', subject: '' }
  const mark = (state: 'done' | 'later' | 'not-needed', dueS: number | null, untilS: number | null = null) => [
    { kind: 'wind', subject: '', state, dueS, untilS },
  ]

  test('done hides this one and not the next', () => {
    expect(heedMarks([owed], mark('done', 1000), 900)).toEqual([])
    expect(heedMarks([{ ...owed, dueS: 605_800 }], mark('done', 1000), 900)).toHaveLength(1)
  })

  test('later hides it until its time', () => {
    expect(heedMarks([owed], mark('later', 1000, 2000), 1999)).toEqual([])
    expect(heedMarks([owed], mark('later', 1000, 2000), 2000)).toHaveLength(1)
  })

  test('a mark is for one subject only', () => {
    expect(heedMarks([{ ...owed, subject: 'bath 2' }], mark('done', 1000), 900)).toHaveLength(1)
    expect(heedMarks([{ ...owed, dueS: null }], mark('not-needed', null), 900)).toEqual([])
  })
})
