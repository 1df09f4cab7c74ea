import {
  blankHole,
  blankSheet,
  DEFAULT_PRICES,
  DEFAULT_SETTINGS,
  type HoleChange,
  type JobPage,
} from '@treadle/contract'
import { arcScale, compared, foundElsewhere, movementOfJob, trainSheet } from '@treadle/core'
import { DEFAULT_WAYS } from '@treadle/core'
import { describe, expect, test } from 'vitest'
import { laterTimes, mayTick } from '../src/places/nowWords.ts'
import { leftWords, timerFor } from '../src/surfaces/clean/timers.ts'
import { linesFromJob, newRevision, spanWords } from '../src/job/estimateFromJob.ts'
import { walkSteps, wrongBlows } from '../src/surfaces/observe/steps.ts'
import { qrPath } from '../src/parts/qr.ts'
import { scaleSvg } from '../src/surfaces/papers/scaleSvg.ts'
import { PAGE, RULES } from './page.ts'

const of = (page: JobPage) => movementOfJob(page, RULES)
const priced = (page: JobPage) => linesFromJob(DEFAULT_PRICES, page, DEFAULT_SETTINGS, of(page), DEFAULT_WAYS)
const NOW = new Date('2026-11-23T10:00:00Z')

const hole = (long: number, short: number): JobPage['holes'][number] => {
  const measured: HoleChange = {
    ...blankHole(`${long}`, { train: 'going', arbor: 'Third arbor', arborIndex: 2, plate: 'back', role: 'other' }),
    longAxisMm: long,
    shortAxisMm: short,
    wearDeg: 50,
    pivotMm: 1,
    plateMm: 2.4,
  }
  return { ...measured, jobId: '', measuredBy: '' }
}

describe('an estimate from what was found', () => {
  test('every train, and every hole that wants a bush', () => {
    const data = { ...PAGE, holes: [hole(1.32, 1.1), hole(1.4, 1.1), hole(1.04, 1.04)] }
    const lines = priced(data)
    expect(lines.map((l) => [l.title.slice(0, 10), l.quantity, l.kind])).toEqual([
      ['Take apart', 2, 'fixed'],
      ['Bush a wor', 2, 'fixed'],
    ])
  })

  test('while no hole is measured, bushes are there only if needed', () => {
    const bush = priced(PAGE).find((l) => /bush/i.test(l.title))
    expect(bush).toMatchObject({ quantity: 1, kind: 'if-needed' })
  })

  test('sound holes bring no bush', () => {
    const lines = priced({ ...PAGE, holes: [hole(1.04, 1.04)] })
    expect(lines.some((l) => /bush/i.test(l.title))).toBe(false)
  })

  test('the next revision keeps the lines and forgets the answer', () => {
    const first = newRevision(undefined, DEFAULT_PRICES, PAGE, DEFAULT_SETTINGS, of(PAGE), DEFAULT_WAYS)
    const answered = { ...first, state: 'accepted' as const, sentAt: NOW.toISOString(), note: 'As agreed.' }
    const next = newRevision(
      answered,
      DEFAULT_PRICES,
      PAGE,
      { ...DEFAULT_SETTINGS, taxPercent: '21' },
      of(PAGE),
      DEFAULT_WAYS,
    )
    expect(next).toMatchObject({
      revision: 2,
      state: 'draft',
      sentAt: null,
      answer: null,
      taxPercent: '21',
      note: 'As agreed.',
    })
    expect(next.lines).toEqual(first.lines)
    expect(next.id).not.toBe(first.id)
  })

  test('one figure where least and most agree', () => {
    expect(spanWords('12.00', '12.00')).toBe('12.00')
    expect(spanWords('12.00', '18.00')).toBe('12.00 to 18.00')
  })
})

describe('what the trouble finder hears from elsewhere', () => {
  const found = (part: Partial<JobPage>, lastHere: string | null = null) =>
    foundElsewhere({ ...PAGE, ...part }, DEFAULT_SETTINGS.beat, of({ ...PAGE, ...part }).judged, lastHere, NOW, 'UTC')

  test('nothing from an empty job', () => {
    expect(found({ events: [] })).toMatchObject({
      movedLately: 'unknown',
      yearsSinceOil: null,
      beat: null,
      driveMarginPercent: null,
      holesMeasured: 0,
      periodicWheel: null,
    })
  })

  test('our own record of the last oil goes before the owner’s memory', () => {
    const job = { ...PAGE.job, lastServiced: 1990 }
    expect(found({ job, events: [] }).yearsSinceOil).toBe(36)
    // What was oiled on this visit is fresh, whatever was before.
    expect(found({ job }, '2020-01-01T10:00:00Z').yearsSinceOil).toBeLessThan(1)
    expect(found({ job, events: [] }, '2022-11-23T10:00:00Z').yearsSinceOil).toBeCloseTo(4, 1)
  })

  test('counts that can’t be name no wheel, and stop nothing else', () => {
    const sheet = { ...blankSheet('', 'going'), hourly: 9, faultPeriodS: 450, clockId: '' }
    expect(found({ trainSheets: [sheet] })).toMatchObject({ periodicWheel: null, holesMeasured: 0 })
  })

  test('the drive test, the holes and the train sheet speak', () => {
    const drive = { figure: 2, second: 2.5, answer: 'kg', note: '', photoId: null }
    const row = { id: '', jobId: '', version: 1, at: '', who: '', key: 'drive', ...drive }
    const arbors = [
      { name: 'Great', pinion: null, wheel: 96 },
      { name: 'Centre', pinion: 8, wheel: 64 },
      { name: 'Third', pinion: 8, wheel: 60 },
      { name: 'Escape', pinion: 8, wheel: 30 },
    ]
    const sheet = { ...blankSheet('', 'going'), arbors, faultPeriodS: 450, clockId: '' }
    expect(found({ observations: [row], holes: [hole(1.4, 1.1)], trainSheets: [sheet] })).toMatchObject({
      driveMarginPercent: -25,
      holesToBush: 1,
      holesMeasured: 1,
      periodicWheel: 'Third',
    })
    // Once it is together again its new test speaks.
    const again = { ...row, key: 'drive-again', second: 1.2 }
    expect(found({ observations: [row, again] }).driveMarginPercent).toBeCloseTo(40)
  })
})

describe('the train against what was heard and found', () => {
  const sheet = trainSheet(
    [
      { name: 'Great', pinion: null, wheel: 96 },
      { name: 'Centre', pinion: 8, wheel: 64 },
      { name: 'Third', pinion: 8, wheel: 60 },
      { name: 'Escape', pinion: 8, wheel: 30 },
    ],
    1,
    true,
    16,
  )
  const says = (found: Parameters<typeof compared>[1]) => compared(sheet, found).map((c) => [c.state, c.says])

  test('a clock a minute a day off its rate still agrees with its train', () => {
    expect(says({ heard: 3602.5, lengthMm: 1000, windsEveryDays: 7 })).toEqual([
      ['sound', 'The counts give 3600.0 beats an hour; heard 3602.5.'],
      ['sound', 'They ask for a pendulum of 994 mm; found 1000 mm.'],
      ['sound', 'One winding lasts 8.0 days; it is wound every 7.'],
    ])
  })

  test('another pendulum, a wrong count and too short a fall are said', () => {
    const all = says({ heard: 3900, lengthMm: 700, windsEveryDays: 14 })
    expect(all.map((s) => s[0])).toEqual(['must', 'must', 'must'])
    expect(all[0]?.[1]).toMatch(/8\.3 % faster/)
  })

  test('not heard yet, it claims nothing', () => {
    expect(says({ heard: null, lengthMm: null, windsEveryDays: null }).map((s) => s[0])).toEqual(['none', 'none'])
  })
})

describe('papers', () => {
  test('the code’s path stays within its quiet zone of four', () => {
    const { path, size } = qrPath('http://bench.local:4173/jobs/01a20785-1b0b-7624-ae14-949793c6b388')
    const at = [...path.matchAll(/M(\d+) (\d+)/g)].map((m) => [Number(m[1]), Number(m[2])])
    expect(at.length).toBeGreaterThan(200)
    for (const [x, y] of at) {
      expect(Math.min(x!, y!)).toBeGreaterThanOrEqual(4)
      expect(Math.max(x!, y!)).toBeLessThan(size - 4)
    }
    // The three corner marks begin at the inner corners.
    expect(at.some(([x, y]) => x === 4 && y === 4)).toBe(true)
    expect(at.some(([x, y]) => x === size - 5 && y === 4)).toBe(true)
  })

  test('every mark of the arc scale is where the angle puts it, in millimetres', () => {
    const svg = scaleSvg(arcScale(1035, 5), 'Tall <clock>')
    const width = Number(/width="([\d.]+)mm"/.exec(svg)?.[1])
    const starts = [
      ...svg.matchAll(/<line x1="([\d.]+)" y1="[\d.]+" x2="[\d.]+" y2="[\d.]+" stroke="#000" stroke-width="0\.35"/g),
    ]
    const xs = starts.map((m) => Number(m[1]) - width / 2)
    const whole = [-5, -4, -3, -2, -1, 0, 1, 2, 3, 4, 5]
    expect(xs).toHaveLength(whole.length)
    xs.forEach((x, i) => expect(x).toBeCloseTo(1035 * Math.sin((whole[i]! * Math.PI) / 180), 2))
    expect(svg).toContain('Tall &#60;clock&#62;')
  })
})

describe('timers', () => {
  const bath = {
    key: 'a',
    title: 'Bath',
    kind: 'ammoniated' as const,
    minutes: 8,
    then: [{ title: 'Rinse', minutes: 5 }],
    caution: '',
  }

  test('a bath, then what follows, then nothing', () => {
    const ms = Date.UTC(2026, 2, 1, 9)
    const begun = timerFor(bath, undefined, ms)!
    expect(begun).toMatchObject({ title: 'Bath', step: 0, endsAt: '2026-03-01T09:08:00.000Z' })
    const rinse = timerFor(bath, begun, ms)!
    expect(rinse).toMatchObject({ title: 'Rinse', step: 1, endsAt: '2026-03-01T09:05:00.000Z' })
    expect(timerFor(bath, rinse, ms)).toBeNull()
    // Two people, or two presses, take it out once.
    expect(timerFor(bath, begun, ms + 5000)!.id).toBe(rinse.id)
    expect(timerFor(bath, undefined, ms)!.id).not.toBe(begun.id)
  })

  test.each([
    [65_000, '1:05'],
    [0, '0:00'],
    [-125_000, '2:05 over'],
    [7_265_000, '2:01:05'],
  ])('%i ms to go reads %s', (left, words) => {
    expect(leftWords(left, 0)).toBe(words)
  })
})

describe('Now', () => {
  test('later is always later, and the evening is offered only while it is not near', () => {
    // Noon and half past four by the clock of a workshop an hour ahead of UTC.
    const noon = new Date('2026-03-01T11:00:00Z')
    const late = new Date('2026-03-01T15:30:00Z')
    const titles = (at: Date) => laterTimes(at, 'Europe/Oslo').map((t) => t.title)
    expect(titles(noon)).toContain('this evening')
    expect(titles(late)).not.toContain('this evening')
    const evening = laterTimes(noon, 'Europe/Oslo').find((t) => t.title === 'this evening')!
    expect(new Date(1000 * evening.untilS).toISOString()).toBe('2026-03-01T16:00:00.000Z')
    for (const at of [noon, late])
      for (const { untilS } of laterTimes(at, 'Europe/Oslo')) expect(1000 * untilS).toBeGreaterThan(at.getTime())
  })

  test('what is done on its own surface is not ticked off by a word', () => {
    expect(mayTick({ kind: 'order' })).toBe(true)
    expect(mayTick({ kind: 'reading' })).toBe(false)
    expect(mayTick({ kind: 'bath' })).toBe(false)
    expect(mayTick({ kind: 'make-safe' })).toBe(false)
  })
})

describe('the walk', () => {
  test('asks for the strike only where there is one, and touches the power last', () => {
    const going = walkSteps(false).map((s) => s.key)
    expect(going).not.toContain('strike-round')
    expect(walkSteps(true).map((s) => s.key)).toEqual([...going.slice(0, -1), 'strike-round', 'wear'])
    expect(going[0]).toBe('hands')
  })

  test('wrong blows are named by their hour', () => {
    expect(
      wrongBlows([
        { hour: 1, blows: 1 },
        { hour: 2, blows: 3 },
      ]),
    ).toEqual(['3 at 2'])
  })
})
