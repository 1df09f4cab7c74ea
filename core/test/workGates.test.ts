import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { GATE_NAMES, workHeld, type Work, type WorkFacts } from '../src/index.ts'

const NOTHING: WorkFacts = {
  job: { partedAt: null, scope: 'whole', scopeTrain: '' },
  clock: {
    trains: [
      { train: 'going', power: 'spring' },
      { train: 'strike', power: 'spring' },
    ],
    work: { strikeWork: null, moon: false, calendar: false },
    pendulum: { beatsPerHour: null, lengthMm: null },
  },
  ...{ powerOffs: [], overrides: [], stripMarks: [], stripSteps: [], dryRuns: [], oilSheets: [], holes: [] },
  ...{ pivots: [], bushings: [], springs: [], wheels: [], observations: [], unreadable: [], forGood: ['dress'] },
}

const trains = fc.subarray(['going', 'strike'] as const)
const brought = fc.constantFrom(null, { from: 'Elsewhere' })
const overrides = fc.array(
  fc.record({ gate: fc.constantFrom(...GATE_NAMES), reason: fc.constant('It may go on.'), brought }),
  { maxLength: 3 },
)
const dryRuns = fc.uniqueArray(
  fc.record({
    train: fc.constantFrom('going', 'strike'),
    verdict: fc.constantFrom('' as const, 'free' as const, 'tight' as const),
    ranAt: fc.constant('2026-03-01T10:00:00Z'),
  }),
  { selector: (r) => r.train, maxLength: 2 },
)
const parts = fc.subarray(['Dial', 'Front plate', 'Back plate screws'])
const facts = fc
  .record({
    off: trains,
    overrides,
    dryRuns,
    parts,
    parted: fc.boolean(),
    marks: fc.subarray(['clicks', 'strike-lock', 'warning', 'count-wheel', 'gathering-pallet']),
  })
  .map(({ off, parted, parts: out, marks, ...rest }): WorkFacts => ({
    ...NOTHING,
    ...rest,
    job: { ...NOTHING.job, partedAt: parted ? '2026-03-01T09:00:00Z' : null },
    powerOffs: off.map((train) => ({ train })),
    stripSteps: out.map((part) => ({ part })),
    stripMarks: marks.map((key) => ({ key })),
  }))

const setAside = ({ overrides: all }: WorkFacts, gate: string) => all.some((o) => o.gate === gate && o.brought === null)
const may = (all: WorkFacts, work: Work) => workHeld(all, work) === null

describe('work that waits for something, over jobs of every kind', () => {
  test('no oil in what was apart before both trains ran free, unless that was set aside here', () => {
    fc.assert(
      fc.property(facts, (all) => {
        const apart = all.job.partedAt !== null || all.stripSteps.some((s) => s.part === 'Front plate')
        const free = all.dryRuns.filter((r) => r.verdict === 'free').length === 2
        expect(may(all, { work: 'oil' })).toBe(!apart || free || setAside(all, 'dry'))
      }),
    )
  })

  test('no plates parted with a train that is wound, or a mesh not marked', () => {
    fc.assert(
      fc.property(facts, (all) => {
        const off = all.powerOffs.length === 2 || setAside(all, 'power')
        expect(may(all, { work: 'part' })).toBe(off && all.stripMarks.length === 5)
      }),
    )
  })

  test('no plate out before they are; no spring touched while its train is wound', () => {
    fc.assert(
      fc.property(facts, (all) => {
        expect(may(all, { work: 'plates-out' })).toBe(
          all.job.partedAt !== null || !all.stripSteps.some((s) => s.part === 'Front plate'),
        )
        for (const train of ['going', 'strike'])
          expect(may(all, { work: 'spring', train })).toBe(
            all.powerOffs.some((p) => p.train === train) || setAside(all, 'power'),
          )
      }),
    )
  })

  test('nothing while something can’t be read, and no plates parted of a clock without a train that is known', () => {
    const works: Work[] = [
      ...(['part', 'plates-out', 'assemble', 'oil', 'dry-back'] as const).map((work) => ({ work })),
      ...(['spring', 'power-back'] as const).map((work) => ({ work, train: 'going' })),
      ...[
        { work: 'cut' as const, holeId: 'a' },
        { work: 'wheel' as const, id: 'a' },
      ],
      ...(['mercury', 'mercury-back'] as const).map((work) => ({ work, key: 'mercury keep: decant' })),
    ]
    fc.assert(
      fc.property(facts, fc.constantFrom(...works), (all, work) => {
        expect(may({ ...all, unreadable: [{ table: 'clocks' }] }, work)).toBe(false)
        const nameless = { ...all, clock: { ...all.clock, trains: [] } }
        if (!setAside(all, 'power')) expect(may(nameless, { work: 'part' })).toBe(false)
      }),
    )
  })

  test('what is held is said in a sentence', () => {
    fc.assert(
      fc.property(facts, fc.constantFrom('part' as const, 'oil' as const, 'plates-out' as const), (all, work) => {
        const held = workHeld(all, { work })
        if (held) expect(`${held.title} ${held.detail ?? ''}`.trim()).toMatch(/^[A-Z].*\.$/)
      }),
    )
  })
})
