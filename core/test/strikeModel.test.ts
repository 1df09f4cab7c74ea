import { describe, expect, test } from 'vitest'
import {
  countWheelRim,
  faultsFor,
  faultsOfPattern,
  patternInWords,
  ROUND_OF_TIMES,
  snailEdge,
  STANDS_RIGHT,
  stepOfRack,
  STRIKE_KINDS,
  STRIKE_KIND_FACTS,
  strikeForgives,
  strikeRound,
  strikesRight,
  strikeSteps,
  strikeStory,
  withFault,
  type HeardStrike,
  type Halves,
  type StrikeKind,
} from '../src/index.ts'

const right = (kind: StrikeKind, halves: Halves = 'none') => strikeRound({ kind, halves, stands: STANDS_RIGHT })
const hours = (round: { hour: number; quarter: number; blows: number }[]) =>
  Array.from({ length: 12 }, (_, i) => round.find((s) => s.hour === i + 1 && s.quarter === 0)!.blows)
const at = <T extends { hour: number; quarter: number }>(round: T[], hour: number, quarter: number) =>
  round.find((s) => s.hour === hour && s.quarter === quarter)!
const fault = (kind: StrikeKind, halves: Halves, key: string, amount?: number) => {
  const found = faultsFor(kind, halves).find((f) => f.key === key)!
  return strikeRound({ kind, halves, stands: withFault(found, amount ?? found.usual[0]!) })
}
const ONE_TO_TWELVE = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]

describe('a strike that stands right', () => {
  // Worked out by hand for each kind: blows and quarters of a round.
  test.each([
    ['count-outside', 'none', 78, 0],
    ['count-outside', 'one', 90, 0],
    ['count-inside', 'one', 90, 0],
    ['rack', 'none', 78, 0],
    ['rack', 'one', 90, 0],
    ['rack', 'hour', 156, 0],
    ['repeater', 'none', 78, 0],
    // 1 + 2 + 3 pairs an hour.
    ['ting-tang', 'none', 78, 72],
    // 1 + 2 + 3 + 4 phrases or calls an hour.
    ['chime', 'none', 78, 120],
    ['bird-three', 'none', 78, 120],
    ['bird-two', 'one', 90, 0],
  ] as const)('%s, halves %s: %i blows, %i quarters a round', (kind, halves, blows, quarters) => {
    const round = right(kind, halves)
    expect(hours(round)).toEqual(ONE_TO_TWELVE)
    expect(round.reduce((n, s) => n + s.blows, 0)).toBe(blows)
    expect(round.reduce((n, s) => n + s.quarters, 0)).toBe(quarters)
    expect(round.some((s) => s.runsOn || s.relocked || s.ranThrough || s.early > 0)).toBe(false)
  })

  test('the halves of each kind are as its words say', () => {
    expect(at(right('rack', 'one'), 7, 2).blows).toBe(1)
    expect(at(right('rack', 'hour'), 7, 2).blows).toBe(7)
    expect(at(right('count-outside', 'one'), 12, 2).blows).toBe(1)
    expect(at(right('ting-tang'), 4, 3).quarters).toBe(3)
    expect(at(right('chime'), 4, 3)).toMatchObject({ quarters: 3, blows: 0 })
  })

  test('what is expected is what the model strikes, at every time', () => {
    for (const kind of STRIKE_KINDS)
      for (const halves of STRIKE_KIND_FACTS[kind].halves) {
        const expected = strikesRight(kind, halves)
        for (const struck of right(kind, halves)) {
          const { quarters, blows } = expected.find((e) => e.hour === struck.hour && e.quarter === struck.quarter) ?? {
            quarters: 0,
            blows: 0,
          }
          expect([struck.quarters, struck.blows]).toEqual([quarters, blows])
        }
      }
  })

  test('the drum plays ten phrases an hour, two turns of its five', () => {
    const round = right('chime')
    expect(at(round, 12, 1).phrases).toEqual([1])
    expect(at(round, 12, 2).phrases).toEqual([2, 3])
    expect(at(round, 12, 3).phrases).toEqual([4, 5, 1])
    expect(at(round, 1, 0).phrases).toEqual([2, 3, 4, 5])
    expect(at(round, 1, 1).phrases).toEqual([1])
  })
})

describe('a fault that is put in', () => {
  test('too near its warning lever it locks again, and is silent', () => {
    expect(hours(fault('rack', 'none', 'warning-close'))).toEqual(ONE_TO_TWELVE.map(() => 0))
    // By its geometry: 6° of the locking wheel clear its lock, 48° of a warning wheel that turns eight times as far.
    const near = (warningDeg: number) =>
      strikeRound({ kind: 'rack', halves: 'none', stands: { ...STANDS_RIGHT, warningDeg } })[3]!.blows
    expect(near(47)).toBe(0)
    expect(near(49)).toBe(1)
  })

  test('with its warning pin under the lever it strikes the right number, all of it early', () => {
    const round = fault('count-outside', 'none', 'warning-past')
    expect(hours(round)).toEqual(ONE_TO_TWELVE)
    expect(at(round, 5, 0)).toMatchObject({ ranThrough: true, early: 5 })
  })

  test('with the hammer nearly let go at rest one blow falls at the warning', () => {
    const round = fault('count-outside', 'none', 'hammer-on-pin', 0.92)
    expect(at(round, 5, 0)).toMatchObject({ blows: 5, early: 1 })
    expect(at(fault('count-outside', 'none', 'hammer-on-pin', 0.6), 5, 0).early).toBe(0)
  })

  test('a count wheel half a division off finds no slot, and strikes on', () => {
    expect(at(fault('count-outside', 'none', 'count-off'), 1, 0).runsOn).toBe(true)
    // With halves, by hand: a half's one blow ends on the rim, so the next hour's follow it at once; 2, 3, 4… blows.
    const round = fault('count-outside', 'one', 'count-off', 0.5).filter((s) => s.quarter === 0 || s.quarter === 2)
    expect(round.slice(0, 6).map((s) => s.blows)).toEqual([2, 3, 4, 5, 6, 7])
  })

  test('tripped three hours ahead it strikes the hour three ahead, halves and all', () => {
    for (const halves of ['none', 'one'] as const)
      expect(hours(fault('bird-two', halves, 'out-of-step', 3))).toEqual([4, 5, 6, 7, 8, 9, 10, 11, 12, 1, 2, 3])
  })

  test('a gathering pallet among the teeth: one at every hour; too early: one too many', () => {
    expect(hours(fault('rack', 'none', 'gathering-late'))).toEqual(ONE_TO_TWELVE.map(() => 1))
    expect(hours(fault('rack', 'none', 'gathering-early'))).toEqual(ONE_TO_TWELVE.map((h) => h + 1))
  })

  test('a rack tail too long by a fifteenth: all one too many after seven', () => {
    // By hand: 7 × 1.067 = 7.47 falls 7 teeth, 8 × 1.067 = 8.54 falls 9.
    expect(hours(fault('rack', 'none', 'rack-long', 0.067))).toEqual([1, 2, 3, 4, 5, 6, 7, 9, 10, 11, 12, 13])
  })

  test('a bent rack tail shifts every hour; a snail a step out strikes the next hour’s', () => {
    expect(hours(fault('rack', 'none', 'rack-tail', 1))).toEqual(ONE_TO_TWELVE.map((h) => h + 1))
    expect(hours(fault('rack', 'none', 'snail', 1))).toEqual([2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 1])
  })

  test('the lift of the half: too low is silent, too high strikes the hour', () => {
    expect(at(fault('rack', 'one', 'half-low'), 4, 2).blows).toBe(0)
    expect(at(fault('rack', 'one', 'half-high'), 4, 2).blows).toBe(4)
    expect(hours(fault('rack', 'one', 'half-low'))).toEqual(ONE_TO_TWELVE)
  })

  test('a fourth lift that is too low chimes and does not strike; low ones too high strike at each quarter', () => {
    expect(at(fault('chime', 'none', 'hour-lift'), 3, 0)).toMatchObject({ quarters: 4, blows: 0 })
    expect(at(fault('chime', 'none', 'quarter-lift'), 3, 1)).toMatchObject({ quarters: 1, blows: 3 })
  })

  test('a drum out by one plays the right number of the wrong phrases; a plate out by one the wrong number', () => {
    expect(at(fault('chime', 'none', 'drum', 1), 12, 2)).toMatchObject({ quarters: 2, phrases: [3, 4] })
    const round = fault('chime', 'none', 'plate', 1)
    expect(at(round, 12, 1).quarters).toBe(2)
    expect(at(round, 1, 0)).toMatchObject({ quarters: 1, blows: 1 })
  })

  test('refuses more of a fault than there can be', () => {
    const found = faultsFor('rack', 'none').find((f) => f.key === 'rack-tail')!
    expect(() => withFault(found, 5)).toThrow(expect.objectContaining({ field: 'rackOff' }))
  })
})

describe('from what was heard to the fault', () => {
  const heardOf = (round: ReturnType<typeof strikeRound>, kind: StrikeKind, halves: Halves): HeardStrike[] =>
    round
      .filter((s) => strikesRight(kind, halves).some((e) => e.hour === s.hour && e.quarter === s.quarter))
      .map(({ hour, quarter, blows, quarters }) => ({ hour, quarter, blows, quarters }))

  test('every fault that can be heard is among those that explain all that it makes be heard', () => {
    let told = 0
    for (const kind of STRIKE_KINDS)
      for (const halves of STRIKE_KIND_FACTS[kind].halves)
        for (const found of faultsFor(kind, halves))
          for (const amount of found.usual) {
            const round = strikeRound({ kind, halves, stands: withFault(found, amount) })
            const heard = heardOf(round, kind, halves)
            const explained = faultsOfPattern({ kind, halves }, heard)
            if (patternInWords({ kind, halves }, heard) === 'All that was counted is right.') {
              expect(explained).toEqual([])
              continue
            }
            told++
            expect(explained.filter((e) => e.misfits === 0).map((e) => e.fault.key)).toContain(found.key)
          }
    expect(told).toBeGreaterThan(80)
  })

  test('one miscount does not hide the fault', () => {
    const heard = heardOf(fault('rack', 'none', 'rack-long', 0.067), 'rack', 'none')
    heard[2]!.blows = 2
    expect(faultsOfPattern({ kind: 'rack', halves: 'none' }, heard)[0]).toMatchObject({
      fault: { key: 'rack-long' },
      misfits: 1,
    })
  })

  test('patterns are told as a person would', () => {
    const words = (kind: StrikeKind, halves: Halves, key: string, amount?: number) =>
      patternInWords({ kind, halves }, heardOf(fault(kind, halves, key, amount), kind, halves))
    expect(words('rack', 'none', 'rack-long', 0.067)).toBe('All one too many after 7.')
    expect(words('rack', 'one', 'half-low')).toBe('Silent at the half.')
    expect(words('rack', 'none', 'rack-tail', -1)).toMatch(/^All one too few after 1\.$/)
    expect(words('rack', 'none', 'gathering-late')).toBe(
      '1 at 2 o’clock, 1 at 3 o’clock, 1 at 4 o’clock, 1 at 5 o’clock and 7 more.',
    )
    expect(words('count-outside', 'none', 'warning-close')).toBe('Silent at every hour.')
    expect(words('chime', 'none', 'plate', 1)).toMatch(/2 for 1 at quarter past 12/)
    expect(patternInWords({ kind: 'rack', halves: 'none' }, [])).toBe('Nothing is counted yet.')
    expect(patternInWords({ kind: 'rack', halves: 'none' }, [{ hour: 4, quarter: 0, blows: 5, quarters: null }])).toBe(
      '5 at 4 o’clock.',
    )
  })
})

describe('the story of a strike', () => {
  test('of every kind at every time ends where the model ends, blow by blow', () => {
    for (const kind of STRIKE_KINDS)
      for (const halves of STRIKE_KIND_FACTS[kind].halves) {
        const setUp = { kind, halves, stands: STANDS_RIGHT }
        const round = strikeRound(setUp)
        for (const time of ROUND_OF_TIMES) {
          const { moments } = strikeStory(setUp, time)
          const struck = at(round, time.hour, time.quarter)
          const last = moments.at(-1)!
          expect([last.pose.blows, last.pose.quarters]).toEqual([struck.blows, struck.quarters])
          expect(last.pose.locked).toBe(true)
          expect(last.pose.hammer).toBe(0)
          // The hands never go back.
          moments.reduce((before, m) => {
            expect(m.pose.minute).toBeGreaterThanOrEqual(before)
            return m.pose.minute
          }, -60)
          expect(new Set(moments.map((m) => m.key)).size).toBe(moments.length)
        }
      }
  })

  test('of every fault, at every time, is that of the model: its blows, its warning, its lock', () => {
    for (const kind of STRIKE_KINDS)
      for (const halves of STRIKE_KIND_FACTS[kind].halves)
        for (const found of faultsFor(kind, halves))
          for (const amount of found.usual.slice(0, 2)) {
            const setUp = { kind, halves, stands: withFault(found, amount) }
            const round = strikeRound(setUp)
            for (const time of ROUND_OF_TIMES.filter((t) => [1, 4, 12].includes(t.hour))) {
              const struck = at(round, time.hour, time.quarter)
              const { moments } = strikeStory(setUp, time)
              const keys = moments.map((m) => m.key)
              const last = moments.at(-1)!
              expect(new Set(keys).size).toBe(keys.length)
              expect(last.pose.blows).toBe(struck.blows)
              expect(last.pose.quarters).toBe(struck.quarters)
              expect(last.pose.locked).toBe(!struck.runsOn)
              expect(keys.includes('runs-on')).toBe(struck.runsOn)
              // What falls at the warning has fallen before it drops.
              const drop = moments.find((m) => m.key === 'drop')
              if (drop && struck.phrases.length === 0)
                expect(drop.pose.blows).toBe(struck.ranThrough ? struck.blows : struck.early)
            }
          }
  })

  test('of a fault shows what goes wrong', () => {
    const story = (kind: StrikeKind, halves: Halves, key: string, hour: number) => {
      const found = faultsFor(kind, halves).find((f) => f.key === key)!
      return strikeStory({ kind, halves, stands: withFault(found, found.usual[0]!) }, { hour, quarter: 0 }).moments
    }
    expect(story('rack', 'none', 'warning-close', 3).at(-1)?.title).toBe('It drops, and locks at once')
    // A chime plays its quarters all the same; its strike alone locks again, or has struck before.
    const chimed = story('chime', 'none', 'warning-close', 3)
    expect(chimed.map((m) => m.key)).toEqual(expect.arrayContaining(['drop', 'phrase-1', 'phrase-4', 'relocked']))
    const early = story('chime', 'none', 'warning-past', 3).map((m) => m.key)
    expect(early.indexOf('blow-3')).toBeLessThan(early.indexOf('phrase-1'))
    expect(story('rack', 'none', 'warning-past', 3).map((m) => m.key)).toContain('through')
    expect(story('count-outside', 'none', 'count-off', 3).at(-1)).toMatchObject({
      title: 'It does not stop',
      pose: { locked: false, inSlot: false },
    })
    expect(story('rack', 'none', 'hammer-on-pin', 3).find((m) => m.key === 'warning')?.pose.blows).toBe(1)
  })
})

describe('what is set up', () => {
  test('every kind has its own steps, each told, and says what forgives', () => {
    for (const kind of STRIKE_KINDS) {
      const steps = strikeSteps(kind)
      expect(new Set(steps.map((s) => s.key)).size).toBe(steps.length)
      expect(strikeForgives(kind).matters.length).toBeGreaterThan(0)
    }
    const keys = (kind: StrikeKind) => strikeSteps(kind).map((s) => s.key)
    expect(keys('count-outside')).toContain('count')
    expect(keys('rack')).not.toContain('count')
    expect(keys('chime')).toEqual(expect.arrayContaining(['chime-lock', 'lifts', 'hammers', 'pallet']))
    expect(keys('bird-three')).toEqual(expect.arrayContaining(['bellows', 'birds', 'handover']))
    expect(keys('repeater')).toContain('cord')
  })
})

describe('a lost part to cut', () => {
  const radius = (p: { xMm: number; yMm: number }) => Math.hypot(p.xMm, p.yMm)
  const clock = (p: { xMm: number; yMm: number }) => ((Math.atan2(p.xMm, p.yMm) * 180) / Math.PI + 360) % 360
  const cutAt = (points: { xMm: number; yMm: number }[], deg: number) => {
    const near = points.filter((p) => Math.min(Math.abs(clock(p) - deg), 360 - Math.abs(clock(p) - deg)) < 0.4)
    return Math.min(...near.map(radius))
  }

  test('a count wheel is low where an hour ends and high between', () => {
    const rim = countWheelRim('none', { outsideMm: 50, slotDeepMm: 3, slotWideMm: 1.2 })
    let blows = 0
    for (let hour = 1; hour <= 12; hour++) {
      blows += hour
      expect(cutAt(rim, ((blows * 360) / 78) % 360)).toBeCloseTo(22, 6)
      // Half a division before its end a blow is still to come.
      expect(cutAt(rim, ((blows - 0.5) * 360) / 78)).toBeCloseTo(25, 6)
    }
    expect(Math.max(...rim.map(radius))).toBeCloseTo(25, 9)
  })

  test('with halves the slot of an hour reaches to the end of its half', () => {
    const rim = countWheelRim('one', { outsideMm: 60, slotDeepMm: 3, slotWideMm: 1 })
    for (const place of [0, 0.5, 1, 2, 2.5, 3, 5, 5.5, 6]) expect(cutAt(rim, place * 4)).toBeCloseTo(27, 6)
    for (const place of [1.5, 4, 7, 8]) expect(cutAt(rim, place * 4)).toBeCloseTo(30, 6)
  })

  test('a snail is a step lower for every hour, and under the tail when its hour comes', () => {
    const edge = snailEdge({ highMm: 18, stepMm: 1.1, boreMm: 5 })
    for (let hour = 1; hour <= 12; hour++)
      // Turned clockwise by 30° an hour, what is under a tail at the top stood 30° × hour to the left.
      expect(cutAt(edge, (360 - 30 * hour) % 360)).toBeCloseTo(18 - 1.1 * (hour - 1), 6)
  })

  test('a step is a tooth of the rack as its tail measures it', () => {
    expect(stepOfRack(1.5, 40, 20)).toBeCloseTo(0.75, 12)
  })

  test.each([
    ['slotWideMm', () => countWheelRim('none', { outsideMm: 20, slotDeepMm: 2, slotWideMm: 1.2 })],
    ['slotDeepMm', () => countWheelRim('none', { outsideMm: 20, slotDeepMm: 9, slotWideMm: 0.4 })],
    ['stepMm', () => snailEdge({ highMm: 10, stepMm: 1, boreMm: 5 })],
  ] as const)('refuses %s', (field, draw) => {
    expect(draw).toThrow(expect.objectContaining({ field }))
  })
})
