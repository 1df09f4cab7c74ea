import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { chooseFile, depthTool, lanternTrundles, wheelReversed, type DrawerFile, type FileWork } from '../src/index.ts'

describe('trundles of a lantern pinion', () => {
  test('no fewer would do: against every choice there is', () => {
    const diameters = fc.array(fc.integer({ min: 1180, max: 1210 }), { minLength: 3, maxLength: 10 })
    fc.assert(
      fc.property(diameters, fc.integer({ min: 0, max: 15 }), (thousandths, tolerance) => {
        const mm = thousandths.map((t) => t / 1000)
        const { replace } = lanternTrundles(mm, tolerance / 1000)
        const within = (left: number[]) => Math.max(...left) - Math.min(...left) <= tolerance
        let fewest = mm.length
        for (let choice = 0; choice < 1 << mm.length; choice++) {
          const left = thousandths.filter((_, i) => !(choice & (1 << i)))
          if (left.length > 0 && within(left)) fewest = Math.min(fewest, mm.length - left.length)
        }
        expect(replace).toHaveLength(fewest)
        const stay = thousandths.filter((_, i) => !replace.includes(i + 1))
        expect(within(stay)).toBe(true)
      }),
    )
  })

  test('says how much is bad', () => {
    expect(lanternTrundles([1.2, 1.2, 1.14, 1.2, 1.2, 1.21])).toMatchObject({
      replace: [3],
      verdict: 'replace the bad ones',
    })
    expect(lanternTrundles([1.2, 1.2, 1.2]).verdict).toBe('sound')
    expect(lanternTrundles([1.2, 1.17, 1.14, 1.11]).verdict).toBe('replace all')
    // Of two groups as large the thicker stays: trundles wear thin.
    expect(lanternTrundles([1.1, 1.2, 1.1, 1.2]).replace).toEqual([1, 3])
    expect(() => lanternTrundles([1.2, -1, 1.2])).toThrow('diametersMm[1]')
  })
})

describe('the holes of a reversed wheel', () => {
  const hole = fc.record({
    name: fc.constant('a'),
    xMm: fc.double({ min: -30, max: 30, noNaN: true }),
    yMm: fc.double({ min: -30, max: 30, noNaN: true }),
    diameterMm: fc.double({ min: 0.5, max: 4, noNaN: true }),
  })
  test('mirrored twice they are where they were, and what lies on the line stays', () => {
    fc.assert(
      fc.property(hole, fc.double({ min: 0, max: 360, noNaN: true }), (h, deg) => {
        const once = wheelReversed([h], deg).holes[0]!
        const twice = wheelReversed([once], deg).holes[0]!
        expect(twice.xMm).toBeCloseTo(h.xMm, 9)
        expect(twice.yMm).toBeCloseTo(h.yMm, 9)
        // As far from the centre, and half way between them lies on the line.
        expect(Math.hypot(once.xMm, once.yMm)).toBeCloseTo(Math.hypot(h.xMm, h.yMm), 9)
        const a = (deg * Math.PI) / 180
        const across = ((once.xMm + h.xMm) / 2) * Math.cos(a) - ((once.yMm + h.yMm) / 2) * Math.sin(a)
        expect(across).toBeCloseTo(0, 9)
      }),
    )
  })

  test('about 12 o’clock, left becomes right', () => {
    const { holes, conflicts } = wheelReversed([{ name: 'click rivet', xMm: 9, yMm: 4, diameterMm: 2.2 }], 0)
    expect(holes[0]!.xMm).toBeCloseTo(-9, 12)
    expect(holes[0]!.yMm).toBeCloseTo(4, 12)
    expect(conflicts).toEqual([])
  })

  test('too little metal between a new hole and an old one is told; the bore is its own image', () => {
    const holes = [
      { name: 'bore', xMm: 0, yMm: 0, diameterMm: 6 },
      { name: 'rivet', xMm: 1.5, yMm: 9, diameterMm: 2.4 },
    ]
    const { conflicts } = wheelReversed(holes, 0)
    expect(conflicts).toHaveLength(1)
    expect(conflicts[0]!.between).toEqual(['rivet', 'rivet'])
    expect(conflicts[0]!.leftMm).toBeCloseTo(0.6, 9)
    expect(wheelReversed(holes, 0, 0.5).conflicts).toEqual([])
  })
})

describe('the depthing tool', () => {
  test('pitch circles touch, and the caliper shows one runner more', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 120 }), fc.integer({ min: 6, max: 14 }), (wheelTeeth, pinionLeaves) => {
        const { wheelPitchMm, pinionPitchMm, centreDistanceMm, acrossRunnersMm, moduleMm } = depthTool(
          wheelTeeth,
          pinionLeaves,
          { moduleMm: 0.6 },
          6,
        )
        expect((wheelPitchMm + pinionPitchMm) / 2).toBeCloseTo(centreDistanceMm, 9)
        expect(acrossRunnersMm).toBeCloseTo(centreDistanceMm + 6, 9)
        expect(depthTool(wheelTeeth, pinionLeaves, { centreDistanceMm }).moduleMm).toBeCloseTo(moduleMm, 9)
      }),
    )
    expect(depthTool(64, 8, { moduleMm: 0.5 }, 6).acrossRunnersMm).toBeCloseTo(24, 12)
  })
  test('one of module and distance, not both and not neither', () => {
    expect(() => depthTool(64, 8, {})).toThrow('moduleMm')
    expect(() => depthTool(64, 8, { moduleMm: 0.5, centreDistanceMm: 18 })).toThrow('centreDistanceMm')
  })
})

describe('a file for the work', () => {
  const file = (id: string, part: Partial<DrawerFile> = {}): DrawerFile => ({
    id,
    shape: 'hand',
    cut: '2',
    widthMm: 12,
    lengthMm: 150,
    keptFor: 'both',
    ...part,
  })
  const work: FileWork = { shape: 'flat', material: 'brass', removeMm: 0.1, finish: 'fine' }

  test('the right cut first, then the widest', () => {
    const drawer = [
      file('narrow', { widthMm: 6 }),
      file('wide'),
      file('wider, a step finer', { cut: '3', widthMm: 20 }),
    ]
    expect(chooseFile(work, drawer)).toEqual({
      choice: 'wide',
      fits: ['wide', 'narrow', 'wider, a step finer'],
      whyNot: [],
    })
  })

  test.each([
    ['the wrong shape', work, file('a', { shape: 'round' }), /does not reach along a flat/],
    ['too wide for the room', { ...work, roomMm: 8 }, file('a'), /room for 8 mm/],
    ['kept for steel', work, file('a', { keptFor: 'steel' }), /kept for steel/],
    ['too coarse', work, file('a', { cut: '00' }), /too coarse; 2 is right/],
    ['too soft', { ...work, material: 'hardened steel' as const }, file('a', { keptFor: 'steel' }), /hard file/],
  ])('is not one of %s, and why is said', (_name, asked, one, why) => {
    const { choice, whyNot } = chooseFile(asked, [one])
    expect(choice).toBeNull()
    expect(whyNot[0]!.why).toMatch(why)
  })

  test('what fits by exhaustive search is what is told', () => {
    const some = fc.record({
      shape: fc.constantFrom<DrawerFile['shape']>('hand', 'barrette', 'round'),
      cut: fc.constantFrom<DrawerFile['cut']>('00', '0', '1', '2', '3', '4', '6'),
      widthMm: fc.integer({ min: 2, max: 16 }),
      keptFor: fc.constantFrom<DrawerFile['keptFor']>('brass', 'steel', 'both'),
    })
    fc.assert(
      fc.property(fc.array(some, { maxLength: 12 }), (drawer) => {
        const files = drawer.map((f, i) => file(String(i), f))
        const { choice, fits, whyNot } = chooseFile({ ...work, roomMm: 10 }, files)
        expect(fits.length + whyNot.length).toBe(files.length)
        const cuts = ['1', '2', '3']
        const good = files.filter(
          (f) => f.shape !== 'round' && f.widthMm <= 10 && f.keptFor !== 'steel' && cuts.includes(f.cut),
        )
        expect([...fits].sort()).toEqual(good.map((f) => f.id).sort())
        const best = good.filter((f) => f.cut === '2')
        if (best.length > 0)
          expect(files.find((f) => f.id === choice)!.widthMm).toBe(Math.max(...best.map((f) => f.widthMm)))
      }),
    )
  })
})
