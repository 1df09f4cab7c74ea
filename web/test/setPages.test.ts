import {
  blankDryRun,
  blankOil,
  blankOilSheet,
  DEFAULT_SETTINGS,
  newEvent,
  type DryRunChange,
  type JobPage,
  type OilRow,
} from '@treadle/contract'
import { strikesRight } from '@treadle/core'
import { describe, expect, test, vi } from 'vitest'
import { dryPress, type DryRuns } from '../src/job/DryRun.tsx'
import { oilDueOf } from '../src/job/oilDueOf.ts'
import { proofOf, trialNow } from '../src/job/proof.ts'
import { seenInWords } from '../src/places/drawers/Oils.tsx'
import { ownerCard } from '../src/surfaces/card/ownerCard.ts'
import { begunFrom } from '../src/surfaces/make/measured.ts'
import { at, PAGE } from './page.ts'

const STAMP = { jobId: '', who: '', at: at(0) }
const event = (day: number, kind: JobPage['events'][number]['kind']) => ({
  ...newEvent(`${kind}${day}`, kind, at(day)),
  ...STAMP,
  at: at(day),
})
const observed = (key: string, second: number) => ({
  ...{ id: key, version: 1, key, answer: 'kg', figure: 4.9, second, note: '', photoId: null },
  ...STAMP,
})
const strike = { kind: 'rack' as const, halves: 'none' as const, pinArbor: null, pins: null, lockingArbor: null }
const counted = strikesRight('rack', 'none').map((s) => ({
  ...{ ...s, id: `${s.hour}`, version: 1, quarters: null, way: 'hand' as const, heardAt: at(12) },
  ...STAMP,
}))
const ON_TRIAL: JobPage = {
  ...PAGE,
  clock: { ...PAGE.clock, work: { ...PAGE.clock.work, strike } },
  events: [...PAGE.events, event(10, 'trial'), event(14, 'winding')],
  strikeCounts: counted,
  observations: [observed('drive', 1.76), observed('drive-again', 1.16)],
}
const nowS = (day: number) => Date.parse(at(day)) / 1000

describe('the proof of a trial', () => {
  test('says what was measured, and nothing else', () => {
    const trial = trialNow(ON_TRIAL, DEFAULT_SETTINGS, nowS(18))!
    expect(trial.passed).toBe(true)
    const lines = Object.fromEntries(proofOf(ON_TRIAL, DEFAULT_SETTINGS, [], trial).map((l) => [l.title, l.words]))
    expect(lines.Ran).toMatch(
      /^7 days without a stop or a change, from 11 March 2026 to 18 March 2026; wound once since it counts/,
    )
    expect(lines.Drive).toBe('It needed 1.76 kg to keep going as it came, and needs 1.16 kg now.')
    expect(lines.Strike).toBe('Counted right round the dial: all 12 times right.')
    expect(lines.Oil).toMatch(/^Oiled 28 February 2026; to be looked at in February 2029/)
    expect(lines.Beat).toBeUndefined()
    expect(lines.Moon).toBeUndefined()
  })

  test('a strike that is wrong, or not counted, is not called right', () => {
    const trial = trialNow(ON_TRIAL, DEFAULT_SETTINGS, nowS(18))!
    const titles = (strikeCounts: JobPage['strikeCounts']) =>
      proofOf({ ...ON_TRIAL, strikeCounts }, DEFAULT_SETTINGS, [], trial).map((l) => l.title)
    expect(titles(counted.map((c) => (c.hour === 4 ? { ...c, blows: 5 } : c)))).not.toContain('Strike')
    expect(titles(counted.slice(1))).not.toContain('Strike')
    expect(titles(counted)).toContain('Strike')
    // What was heard before the last change proves nothing any more.
    expect(titles(counted.map((c) => ({ ...c, heardAt: at(9) })))).not.toContain('Strike')
  })

  test('the oil’s own age goes before the workshop’s school, on the proof and on the card', () => {
    const oil = { ...blankOil('pale', 'pivot oil'), name: 'Pale oil', school: 'long' as const }
    const data = { ...ON_TRIAL, oilSheets: [{ ...blankOilSheet('s'), pivotOilId: 'pale', ...STAMP }] }
    const due = (oils: OilRow[], page: JobPage = data) => oilDueOf(page, oils, DEFAULT_SETTINGS)
    expect(due([oil])).toEqual({
      oiledOn: '2026-02-28',
      checkOn: '2033-02-28',
      serviceOn: '2036-02-28',
      stopGap: false,
    })
    expect(due([])?.checkOn).toBe('2029-02-28')
    expect(due([{ ...oil, school: '' }])?.checkOn).toBe('2029-02-28')
    expect(due([oil], { ...data, events: [] })).toBeNull()
    const trial = trialNow(data, DEFAULT_SETTINGS, nowS(18))!
    const words = proofOf(data, DEFAULT_SETTINGS, [oil], trial).find((l) => l.title === 'Oil')?.words
    expect(words).toMatch(/with Pale oil; to be looked at in February 2033/)
    expect(ownerCard(data, [oil], DEFAULT_SETTINGS).due).toContain('February 2033')
    // Oil that is doubted is asked for as soon as it will be recalled.
    const old = { ...oil, openedOn: '2001-01-01', keepsYears: 3 }
    expect(ownerCard(data, [old], DEFAULT_SETTINGS).due).toContain('February 2027')
    expect(proofOf(data, DEFAULT_SETTINGS, [old], trial).find((l) => l.title === 'Oil')?.words).toMatch(
      /looked at in February 2027, service in February 2036/,
    )
  })

  test('the card tells of drive and strike only what was proved', () => {
    const { done } = ownerCard(ON_TRIAL, [], DEFAULT_SETTINGS)
    expect(done).toContain('It needed 1.76 kg to keep going when it came, and 1.16 kg now.')
    expect(done).toContain('Its strike was counted right round the dial, and every hour is right.')
    const worse = { ...ON_TRIAL, observations: [observed('drive', 1), observed('drive-again', 1.2)], strikeCounts: [] }
    expect(ownerCard(worse, [], DEFAULT_SETTINGS).done.join()).not.toMatch(/to keep going|Its strike/)
  })
})

describe('what a press says of a train that is to run dry', () => {
  const pressing = (part: Partial<DryRunChange>) => {
    const row = { ...blankDryRun('x', { train: 'going', power: 'spring' }, at(0)), ...part }
    const set = vi.fn<DryRuns['set']>()
    return { press: dryPress('going', { of: () => row, set }), set }
  }

  test('first what moved it is typed, then that it backs off, then that it runs freely', () => {
    expect(pressing({}).press?.label).toBe('Press, then type what moved the going train')
    const backs = pressing({ amount: 0.25 })
    expect(backs.press?.label).toBe('Press if it backs off at the end')
    backs.press?.press()
    expect(backs.set).toHaveBeenLastCalledWith('going', { backsOff: 'yes' })
    const free = pressing({ amount: 0.25, backsOff: 'yes' })
    const undo = free.press?.press()
    expect(free.set).toHaveBeenLastCalledWith('going', { verdict: 'free' })
    if (undo) undo()
    expect(free.set).toHaveBeenLastCalledWith('going', { backsOff: 'yes', verdict: '' })
  })

  test('one that does not back off is tight, and what is judged asks for nothing', () => {
    const tight = pressing({ amount: 0.25, backsOff: 'no' })
    tight.press?.press()
    expect(tight.set).toHaveBeenLastCalledWith('going', { verdict: 'tight' })
    expect(pressing({ amount: 0.25, backsOff: 'yes', verdict: 'free' }).press).toBeNull()
  })

  test('grams for a weight, turns for a spring', () => {
    const by = (power: string) => blankDryRun('x', { train: 'going', power }, at(0)).drivenBy
    expect([by('weight'), by('spring'), by('fusee')]).toEqual(['grams', 'turns', 'turns'])
  })
})

test('what pictures tell of an oil is said in a sentence', () => {
  expect(seenInWords(undefined)).toBe('no picture judged yet')
  const seen = { oilId: 'x', stays: 3, spread: 1, dry: 0, stayedYears: 4.2, failedYears: 6.1 }
  expect(seenInWords(seen)).toBe('stayed in 3, for up to 4.2 years, ran out of 1, the soonest after 6.1 years')
})

test('a lost count wheel or snail begins at usual sizes', () => {
  for (const part of ['count wheel', 'count wheel with halves', 'snail'] as const)
    expect(Object.values(begunFrom(part, { pivots: [], wheels: [], holes: [] }).sizes).every((mm) => mm > 0)).toBe(true)
})
