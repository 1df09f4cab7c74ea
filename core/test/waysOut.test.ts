import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  clicksOf,
  donorFit,
  drawPart,
  drillsForRivet,
  freshTrack,
  leftOnArm,
  mendDone,
  MADE_PARTS,
  mirrorLines,
  outlineOfPart,
  PART_SIZES,
  platformWays,
  rankDonors,
  reversingSteps,
  stepsOfWay,
  toothOutline,
  waysChosen,
  waysOut,
  wheelReversed,
  workingFlank,
  type DonorFacts,
  type WaysBy,
  type WheelFound,
} from '../src/index.ts'
import { DEFAULT_WAYS } from '../src/choices.ts'

const WHEEL: WheelFound = { part: 'wheel', faults: [], worn: '', trundlesMm: [], shroud: '', grooveMm: null }
const BY: WaysBy = { click: null, teeth: 84, escape: false, donors: 0, freshTrack: false }
const ways = (found: Partial<WheelFound>, by: Partial<WaysBy> = {}) =>
  waysOut({ ...WHEEL, ...found }, { ...BY, ...by }, [...DEFAULT_WAYS])
const why = (all: ReturnType<typeof ways>, key: string) => all.find((w) => w.key === key)?.whyNot

describe('ways out of what was found', () => {
  test('a flank worn on one side: reversing is open, and what costs least a year comes first', () => {
    const all = ways({ worn: 'working' })
    expect(why(all, 'reverse')).toBe('')
    const open = all.filter((w) => w.whyNot === '' && w.key !== 'leave').map((w) => Number(w.aYear))
    expect(open).toEqual([...open].sort((a, b) => a - b))
    // Leaving it costs nothing and mends nothing: it is never the first.
    expect(all[0]!.key).not.toBe('leave')
  })

  test.each([
    ['worn on both flanks', { worn: 'both' as const }, {}, 'reverse', /just the flank that works/],
    ['an escape wheel', { worn: 'working' as const }, { escape: true }, 'reverse', /lean one way/],
    ['a missing tooth', { faults: [{ tooth: 3, fault: 'missing' as const }] }, {}, 'leave', /takes its neighbours/],
    ['a missing tooth', { faults: [{ tooth: 3, fault: 'missing' as const }] }, {}, 'dress', /can’t be dressed/],
    ['a short tooth', { faults: [{ tooth: 3, fault: 'short' as const }] }, {}, 'dress', /not made longer/],
    ['no donor', {}, {}, 'used-wheel', /No donor/],
    ['a bad click', {}, { click: { click: 'bad', clickSpring: '', rivet: '' } as const }, 'leave', /breaks fingers/],
  ])('%s rules out one way, and says why', (_name, found, by, key, words) => {
    expect(why(ways(found, by), key)).toMatch(words)
  })

  test('new teeth are priced by the tooth, and too many are a new wheel', () => {
    const faults = (n: number) => Array.from({ length: n }, (_, i) => ({ tooth: i + 1, fault: 'missing' as const }))
    const three = ways({ faults: faults(3) }).find((w) => w.key === 'replace-teeth')!
    expect(three).toMatchObject({ pieces: 3, total: '114.00', whyNot: '' })
    expect(why(ways({ faults: faults(15) }), 'replace-teeth')).toMatch(/a wheel is cut/)
  })

  test('a lantern pinion: trundles by the piece; nothing to replace where all are alike', () => {
    const lantern = (trundlesMm: number[]) => ways({ part: 'lantern', trundlesMm })
    const bad = lantern([1.2, 1.2, 1.14, 1.2, 1.1, 1.2, 1.2])
    expect(bad.find((w) => w.key === 'some-trundles')).toMatchObject({ pieces: 2, total: '24.00', whyNot: '' })
    expect(why(lantern([1.2, 1.2, 1.2]), 'some-trundles')).toMatch(/within the tolerance/)
    expect(bad.some((w) => w.key === 'reverse')).toBe(false)
  })

  test('what was chosen becomes lines; leaving it is none', () => {
    const chosen = waysChosen(
      {
        wheels: [
          { ...WHEEL, arbor: 'Great wheel', train: 'going', way: 'reverse' },
          { ...WHEEL, arbor: 'Centre', train: 'going', way: 'leave' },
        ],
        springs: [{ train: 'strike', choice: 'order', fittedWidthMm: 16, fittedThickMm: 0.34 }],
        escapements: [{ way: 'exchange-platform' }],
      },
      DEFAULT_WAYS,
    )
    expect(chosen.map((c) => [c.title, c.price, c.order])).toEqual([
      ['Reverse the wheel on its arbor: great wheel, going', '95.00', false],
      ['A new mainspring fitted: strike, 16 × 0.34 mm', '65.00', true],
      ['Exchange the whole platform', '140.00', true],
    ])
  })

  test('a platform with a worn staff is not done here; a dirty one is', () => {
    const found = { balance: 'bad', staff: 'worn', jewel: 'sound', roller: 'sound' } as const
    expect(why(platformWays(found, 0, [...DEFAULT_WAYS]), 'do-platform')).toMatch(/watchmaker’s work/)
    const dirty = platformWays({ ...found, staff: 'polished' }, 1, [...DEFAULT_WAYS])
    expect(why(dirty, 'do-platform')).toBe('')
    expect(dirty.find((w) => w.key === 'exchange-platform')!.remark).toMatch(/1 in the ledger/)
  })
})

test('what was done is told only where every step was', () => {
  const steps = reversingSteps(null, null).map((s) => s.key)
  const reversed = { ...WHEEL, arbor: 'Great wheel', train: 'going', way: 'reverse' as const, click: 'sound' as const }
  const spring = {
    train: 'strike',
    choice: 'stock' as const,
    done: ['out', 'take', 'clean', 'oil', 'wind', 'hook', 'count'],
  }
  expect(mendDone({ wheels: [{ ...reversed, done: steps }], springs: [spring] })).toEqual([
    'Wheel reversed on its arbor: great wheel, going.',
    'A new mainspring: strike.',
  ])
  const half = { wheels: [{ ...reversed, done: steps.slice(0, -1) }], springs: [{ ...spring, done: ['out'] }] }
  expect(mendDone(half)).toEqual([])
  expect(
    mendDone({ wheels: [{ ...reversed, way: 'leave', done: [] }], springs: [{ ...spring, choice: 'keep' }] }),
  ).toEqual([])
})

describe('which side of a tooth works', () => {
  test('a wheel pushes with the side it turns towards, a pinion is pushed on the other', () => {
    expect(workingFlank('clockwise', true)).toBe('clockwise')
    expect(workingFlank('clockwise', false)).toBe('anticlockwise')
  })

  test('teeth are drawn at their count: as far across as told, and never into each other', () => {
    fc.assert(
      fc.property(fc.integer({ min: 6, max: 200 }), fc.double({ min: 5, max: 200, noNaN: true }), (count, outside) => {
        const points = toothOutline(count, outside)
        expect(Math.max(...points.map((p) => p.mm))).toBeCloseTo(outside / 2, 9)
        expect(points.every((p) => Math.abs(p.deg) <= 180 / count && p.mm > 0)).toBe(true)
      }),
    )
    const [first, tip] = toothOutline(30, 36, 'clockwise')
    expect(tip!.deg - first!.deg).toBeGreaterThan(0)
  })
})

describe('a fresh track', () => {
  test('where there is room the wheel runs wholly beside its groove, and on the leaves', () => {
    const figures = fc.tuple(
      fc.double({ min: 2, max: 12, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0.5, max: 2, noNaN: true }),
    )
    fc.assert(
      fc.property(figures, ([leaf, at, thick]) => {
        const from = at * Math.max(0, leaf - thick)
        const to = Math.min(leaf, from + thick)
        const { way, moveMm } = freshTrack(leaf, from, to, thick)
        if (way === null) return
        const middle = (from + to) / 2 + (way === 'back' ? moveMm : -moveMm)
        const [a, b] = [middle - thick / 2, middle + thick / 2]
        expect(a).toBeGreaterThanOrEqual(-1e-9)
        expect(b).toBeLessThanOrEqual(leaf + 1e-9)
        expect(way === 'back' ? a >= to - 1e-9 : b <= from + 1e-9).toBe(true)
      }),
    )
    expect(freshTrack(3, 1, 2, 1.4).way).toBeNull()
  })
})

describe('reversing a wheel with its click work', () => {
  test('the lines to mirror about bring the click’s arm onto each other arm', () => {
    const arms = { clockAngleDeg: 45, count: 4, widthMm: 7 }
    const rivet = { name: 'click rivet', xMm: 11.3, yMm: 11.3, diameterMm: 2.4 }
    for (const deg of mirrorLines(45, 4)) {
      const [made] = wheelReversed([rivet], deg).holes
      // In the middle of an arm before, so in the middle of one after: half the arm less half the hole is left.
      expect(leftOnArm(made!, arms)).toBeCloseTo(3.5 - 1.2, 9)
    }
    expect(mirrorLines(45, 4)).toHaveLength(3)
    expect(leftOnArm({ ...rivet, xMm: 16, yMm: 0 }, arms)).toBeLessThan(0)
  })

  test('its steps come in their order, with the drills’ sizes and what is near told', () => {
    expect(drillsForRivet(2.4)).toEqual([1, 1.7, 2.4])
    const steps = reversingSteps(2.4, null)
    const keys = steps.map((s) => s.key)
    expect(keys.indexOf('punch-out')).toBeLessThan(keys.indexOf('drill-hole'))
    expect(keys.indexOf('rivet')).toBeLessThan(keys.indexOf('shim'))
    expect(keys.at(-1)).toBe('wind')
    expect(steps.find((s) => s.key === 'drill-head')!.does).toMatch(/1\.0, 1\.7, 2\.4 mm/)
    expect(steps.find((s) => s.key === 'wind')!.caution).toMatch(/breaks fingers/)
    expect(reversingSteps(null, null, false).map((s) => s.key)).toEqual(['note', 'free', 'swage'])
    const near = reversingSteps(2.4, { conflicts: [{ between: ['a', 'b'], leftMm: 0.4 }] })
    expect(near.find((s) => s.key === 'mark-hole')!.does).toMatch(/only 0\.40 mm/)
  })

  test('every way that is work has steps, each named once', () => {
    for (const { key } of DEFAULT_WAYS) {
      const steps = stepsOfWay(key, {
        rivetMm: 2,
        reversed: null,
        hasClick: true,
        trundlesMm: [1.2, 1.2, 1.1],
        shroudLoose: true,
        teeth: [4],
        moveMm: 1,
        moveWay: 'back',
      })
      expect(new Set(steps.map((s) => s.key)).size).toBe(steps.length)
      if (!['leave', 'new-spring'].includes(key) && !key.endsWith('platform'))
        expect(steps.length, key).toBeGreaterThan(2)
    }
  })
})

describe('click work', () => {
  const trains = [
    { train: 'going', power: 'spring' },
    { train: 'strike', power: 'spring' },
    { train: 'chime', power: 'weight' },
  ]
  const wheel = (train: string, click: 'sound' | 'bad' | '') => ({
    train,
    arborIndex: 0,
    part: 'wheel',
    click,
    clickSpring: 'sound' as const,
    rivet: 'sound' as const,
  })
  test('is judged on every spring train; a weight asks for none', () => {
    expect(clicksOf(trains, [])).toEqual({ open: ['going', 'strike'], bad: [] })
    expect(clicksOf(trains, [wheel('going', 'sound'), wheel('strike', 'bad')])).toEqual({ open: [], bad: ['strike'] })
    expect(clicksOf(trains, [wheel('going', '')]).open).toEqual(['going', 'strike'])
    // Another wheel of the train says nothing of its click.
    expect(clicksOf(trains, [{ ...wheel('going', 'sound'), arborIndex: 1 }]).open).toContain('going')
  })
})

describe('donors', () => {
  const wanted: DonorFacts = {
    kind: 'wheel',
    count: 84,
    moduleMm: 0.75,
    boreMm: 6.4,
    outsideMm: 65,
    arborMm: null,
    side: '',
  }
  test('the same part fits as it is; another count, kind or module does not', () => {
    expect(donorFit(wanted, wanted)).toEqual({ fits: 'as it is', apart: 0, words: [] })
    expect(donorFit(wanted, { ...wanted, count: 80 })).toMatchObject({
      fits: 'no',
      words: ['It has 80; 84 are wanted.'],
    })
    expect(donorFit(wanted, { ...wanted, kind: 'pinion' }).fits).toBe('no')
    expect(donorFit(wanted, { ...wanted, moduleMm: 0.8 }).words[0]).toMatch(/6\.7 % larger/)
  })

  test.each([
    [{ moduleMm: 0.76 }, /depth has to be set anew/],
    [{ boreMm: 7 }, /0\.60 mm larger: bush it/],
    [{ boreMm: 6 }, /0\.40 mm smaller: open it/],
    [{ outsideMm: 70 }, /Across it is 7\.7 % larger/],
  ])('%o fits with work, and says which', (part, words) => {
    const fit = donorFit(wanted, { ...wanted, ...part })
    expect(fit.fits).toBe('with work')
    expect(fit.words.join(' ')).toMatch(words)
  })

  test('the nearest first, and none that does not fit: against asking each by itself', () => {
    const donor = fc.record({
      kind: fc.constant('wheel' as const),
      count: fc.constantFrom(80, 84, null),
      moduleMm: fc.constantFrom(0.7, 0.75, 0.76, null),
      boreMm: fc.constantFrom(6, 6.4, 7, null),
      outsideMm: fc.constantFrom(60, 65, null),
      arborMm: fc.constant(null),
      side: fc.constant('' as const),
    })
    fc.assert(
      fc.property(fc.array(donor, { maxLength: 30 }), (all) => {
        const ranked = rankDonors(wanted, all, 100)
        const alone = all.map((d) => donorFit(wanted, d)).filter((f) => f.fits !== 'no')
        expect(ranked).toHaveLength(alone.length)
        expect(ranked.map((r) => r.apart)).toEqual(alone.map((f) => f.apart).sort((a, b) => a - b))
      }),
    )
  })

  test('what is not known is no reason against it, but is told', () => {
    const { fits, words } = donorFit(wanted, { ...wanted, moduleMm: null, boreMm: null })
    expect(fits).toBe('as it is')
    expect(words).toEqual(['Its module is still to be measured.', 'Its bore is still to be measured.'])
  })
})

describe('parts that are made', () => {
  const usual = (part: (typeof MADE_PARTS)[number]) =>
    drawPart(part, Object.fromEntries(PART_SIZES[part].map((s) => [s.key, s.startMm])))
  const turned = MADE_PARTS.filter((part) => usual(part).flat === null)

  test.each(MADE_PARTS.filter((part) => !turned.includes(part)))('%s: cut from sheet, its bore made first', (part) => {
    const { flat, lengthMm, bore, steps, rodMm } = usual(part)
    expect(Math.max(...flat!.map((p) => Math.hypot(p.xMm, p.yMm)))).toBeCloseTo(lengthMm / 2, 9)
    expect(Math.min(...flat!.map((p) => Math.hypot(p.xMm, p.yMm)))).toBeGreaterThan(bore!.diameterMm / 2)
    expect(rodMm).toBe(bore!.depthMm)
    const keys = steps.map((s) => s.key)
    expect(keys.indexOf('bore')).toBeLessThan(keys.indexOf('round'))
    expect(keys.indexOf('round')).toBeLessThan(keys.indexOf('cut'))
  })

  test.each(turned)('%s: sections end to end, from rod that is thick enough, in the right order', (part) => {
    const sizes = Object.fromEntries(PART_SIZES[part].map((s) => [s.key, s.startMm]))
    const drawing = drawPart(part, sizes)
    const outline = outlineOfPart(drawing)
    expect(outline.at(-1)!.alongMm).toBeCloseTo(drawing.lengthMm, 9)
    outline.slice(1).forEach((p, i) => expect(p.alongMm).toBeGreaterThanOrEqual(outline[i]!.alongMm))
    expect(drawing.rodMm).toBeGreaterThanOrEqual(2 * Math.max(...outline.map((p) => p.radiusMm)) + 0.29)
    if (drawing.bore)
      expect(drawing.bore.diameterMm).toBeLessThan(Math.min(...drawing.sections.map((s) => s.diameterMm)))
    const keys = drawing.steps.map((s) => s.key)
    expect(keys[0]).toBe('face')
    if (keys.includes('other')) expect(keys.indexOf('part')).toBeLessThan(keys.indexOf('other'))
    expect(new Set(keys).size).toBe(keys.length)
  })

  test.each([
    ['arbor', 'frontPivotMm', 4],
    ['bush', 'insideMm', 5],
    ['stud', 'tailMm', 6],
    ['collet', 'wheelBoreMm', 3.2],
    ['arbor', 'bodyMm', -1],
  ] as const)('%s with %s of %d mm can’t be, and that size is named', (part, key, mm) => {
    const sizes = Object.fromEntries(PART_SIZES[part].map((s) => [s.key, s.startMm]))
    expect(() => drawPart(part, { ...sizes, [key]: mm })).toThrow(key)
  })
})
