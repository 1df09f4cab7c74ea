import { mayCut } from '../bushing/steps.ts'
import { dryStanding, type DryRun } from '../job/dryRuns.ts'
import type { ScopeKind } from '../job/scope.ts'
import { mercuryGateKey, mercuryNotWeighed, mercuryWalkOf, type MercurySeen } from '../mercury/gate.ts'
import { MERCURY_GATE } from '../mercury/steps.ts'
import { samePlace, type EndPlace } from '../plate/samePlace.ts'
import { isPlate } from '../strip/assembling.ts'
import { meshMarks } from '../strip/meshMarks.ts'
import { clicksOf } from '../wheel/clicks.ts'
import { markedWork, type MarkedClock } from '../strip/markedWork.ts'
import type { GateName } from './gates.ts'
import { isOurs, type SetAside } from './setAside.ts'

/** What of a job is asked before work on it may be said to be done. */
export interface WorkFacts {
  job: { partedAt: unknown; scope: ScopeKind; scopeTrain: string }
  clock: MarkedClock
  powerOffs: { train: string }[]
  overrides: SetAside[]
  stripMarks: { key: string }[]
  stripSteps: { part: string }[]
  dryRuns: DryRun[]
  oilSheets: { done: string[] }[]
  holes: (EndPlace & { id: string; bushed: boolean })[]
  pivots: (EndPlace & { finishedMm: number | null })[]
  bushings: { holeId: string; done: string[] }[]
  springs: { train: string; done: string[] }[]
  wheels: (Parameters<typeof clicksOf>[1][number] & {
    id: string
    arbor: string
    way: string
    done: string[]
    donorId: string | null
    ownerAgreed: boolean
  })[]
  observations: MercurySeen[]
  /** rows of it that nobody can read; what they would say is not in the rest */
  unreadable: { table: string }[]
  /** ways out that can't be undone, by key */
  forGood: readonly string[]
}

/**
 * Work that waits for something: the plates parted, a plate that is out, a spring that is worked on, a plate that is cut for
 * a bush, parts put together again, oil, a cap of mercury opened, a wheel changed for good.
 */
export type Work =
  | { work: 'part' }
  | { work: 'plates-out' }
  | { work: 'spring'; train: string }
  | { work: 'power-back'; train: string }
  | { work: 'cut'; holeId: string }
  | { work: 'unfinish'; place: EndPlace }
  | { work: 'assemble' }
  | { work: 'oil' }
  | { work: 'dry-back' }
  | { work: 'mercury'; key: string }
  | { work: 'mercury-back'; key: string }
  | { work: 'wheel'; id: string }

/** Why work may not stand as done: a sentence, and what is wanted. */
export interface HeldWork {
  title: string
  detail?: string
}

/**
 * Why work may not be said to be done as things stand, or would stand with it; null: it may. It is asked of the rows as they
 * would be, not of what was added to them, so that it does not matter in which order or by which word they came to be so.
 */
export function workHeld(facts: WorkFacts, work: Work): HeldWork | null {
  // What can't be read may be the very thing that holds it: a train that is wound, a pivot that waits, a click that is bad.
  if (facts.unreadable.length > 0) return notKnown(facts)
  switch (work.work) {
    case 'part':
      return parting(facts)
    case 'plates-out':
      return platesOut(facts)
    case 'spring':
      return isOff(facts, work.train) || isSetAside(facts, 'power')
        ? null
        : { title: `Confirm the ${work.train} train off first: treat its spring as wound until then.` }
    case 'power-back':
      return powerBack(facts, work.train)
    case 'cut':
      return cut(facts, work.holeId)
    case 'unfinish':
      return unfinished(facts, work.place)
    case 'assemble':
      return assembling(facts)
    case 'oil':
      return dry(facts)
    case 'dry-back':
      return isOiled(facts) && dry(facts)
        ? { title: 'Oil stands on this dry run: take the ticks of the oil map back first.' }
        : null
    case 'mercury':
      return mercury(facts, work.key)
    case 'mercury-back':
      return mercuryBack(facts, work.key)
    case 'wheel':
      return wheel(facts, work.id)
  }
}

const isOff = ({ powerOffs }: WorkFacts, train: string) => powerOffs.some((p) => p.train === train)
const isSetAside = ({ overrides }: WorkFacts, gate: GateName) => overrides.some((o) => o.gate === gate && isOurs(o))
const woundOf = (facts: WorkFacts) => facts.clock.trains.map((t) => t.train).filter((train) => !isOff(facts, train))

function notKnown({ unreadable }: WorkFacts): HeldWork {
  const tables = [...new Set(unreadable.map((row) => row.table.replaceAll('_', ' ')))]
  return {
    title: 'Something of this job can’t be read, so it is not known whether this may be done.',
    detail: `See to it first, at the head of its page: ${tables.join(', ')}.`,
  }
}

const NOT_PARTED = 'The plates may not be parted yet.'

function parting(facts: WorkFacts): HeldWork | null {
  const wound = woundOf(facts)
  if (facts.clock.trains.length === 0 && !isSetAside(facts, 'power'))
    return { title: NOT_PARTED, detail: 'No train is named yet, so none is known to be off: name them under Receive.' }
  if (wound.length > 0 && !isSetAside(facts, 'power'))
    return { title: NOT_PARTED, detail: `Not confirmed off: ${wound.join(', ')}. Treat each as wound until it is.` }
  const made = new Set(facts.stripMarks.map((m) => m.key))
  const unmarked = meshMarks(markedWork(facts.clock)).filter((m) => !made.has(m.key))
  return unmarked.length > 0
    ? {
        title: NOT_PARTED,
        detail: `Mark first, or waive with a reason: ${unmarked.map((m) => m.what.toLowerCase()).join('; ')}.`,
      }
    : null
}

/** A plate that came out, or one that a step was renamed to, has parted the plates. */
function platesOut(facts: WorkFacts): HeldWork | null {
  const plate = facts.stripSteps.find((s) => isPlate(s.part))
  if (!plate || facts.job.partedAt !== null) return null
  return {
    title: `${plate.part}: the plates are not parted yet. Confirm every train’s power off first, under Power.`,
  }
}

function powerBack(facts: WorkFacts, train: string): HeldWork | null {
  if (facts.job.partedAt !== null) return { title: 'The plates are parted; that confirmation stands.' }
  return facts.springs.some((s) => s.train === train && s.done.length > 0)
    ? { title: `The ${train} spring was worked on with its power off; that confirmation stands.` }
    : null
}

/** Whether anything was done to a plate that waits for the marks: all but what goes before, and an old bush taken out. */
const cutsThePlate = (done: string[]) => done.some((key) => !['mark', 'reference', 'mask', 'old'].includes(key))
/** Whether a hole was made to the size of a pivot. */
const isSized = (done: string[]) =>
  ['cut', 'bush', 'press', 'broach', 'alone', 'pair'].some((key) => done.includes(key))

function cut(facts: WorkFacts, holeId: string): HeldWork | null {
  const hole = facts.holes.find((h) => h.id === holeId)
  if (!hole) return null
  const done = facts.bushings.filter((b) => b.holeId === holeId).flatMap((b) => b.done)
  if (cutsThePlate(done) && !mayCut(done))
    return { title: 'Mark the wear, the reference marks and the neighbours before the plate is cut.' }
  if (!hole.bushed && !isSized(done)) return null
  const waits = facts.pivots.some((p) => samePlace(p, hole) && p.finishedMm === null)
  return waits && !isSetAside(facts, 'pivots') ? pivotFirst(hole) : null
}

const pivotFirst = ({ arbor, plate }: EndPlace): HeldWork => ({
  title: 'Finish the pivot first: the bush is fitted to the finished pivot.',
  detail: `${arbor}, ${plate} plate. It may be overridden in writing on the pivots’ page.`,
})

/** A pivot that was finished, and a bush fitted to it, is not unfinished again while that bush stands. */
function unfinished(facts: WorkFacts, place: EndPlace): HeldWork | null {
  const hole = facts.holes.find((h) => samePlace(h, place))
  return hole ? cut(facts, hole.id) : null
}

/** A spring is not put where a bad click must hold it. */
function assembling(facts: WorkFacts): HeldWork | null {
  const { bad } = clicksOf(facts.clock.trains.filter(isWorked(facts)), facts.wheels)
  return bad.length > 0
    ? {
        title: `Mend the click of the ${bad.join(' and ')} train before it goes together: a slipping click breaks fingers and teeth.`,
        detail: 'On the wheels’ page; judge it sound once it is mended.',
      }
    : null
}

const isWorked =
  ({ job }: WorkFacts) =>
  (t: { train: string }) =>
    job.scope !== 'one-train' || t.train === job.scopeTrain

/** Whether the movement was taken apart: it was said, or a plate is in the log. */
const wasApart = ({ job, stripSteps }: WorkFacts) => job.partedAt !== null || stripSteps.some((s) => isPlate(s.part))
const isOiled = ({ oilSheets }: WorkFacts) => oilSheets.some((s) => s.done.length > 0)

/** No oil in a movement that was apart before each of its trains has run dry. */
function dry(facts: WorkFacts): HeldWork | null {
  if (!wasApart(facts) || isSetAside(facts, 'dry')) return null
  const trains = facts.clock.trains.filter(isWorked(facts)).map((t) => t.train)
  const { freeAtS, open, tight } = dryStanding(trains, facts.dryRuns)
  if (freeAtS !== null) return null
  const what = [
    tight.length > 0 ? `Tight: the ${tight.join(' and ')} train.` : '',
    open.length > 0 ? `Not run dry and judged yet: the ${open.join(' and ')} train.` : '',
  ]
  return {
    title: 'Run it dry first: oil hides a tight train.',
    detail: `${what.filter((w) => w !== '').join(' ')} It may be overridden in writing on the oil’s page.`,
  }
}

/** Nothing of mercury is done before all is so that must be so, nor said to be weighed without its weight. */
function mercury(facts: WorkFacts, key: string): HeldWork | null {
  const step = mercuryWalkOf(key)
  if (step === null) return null
  const said = (wanted: string) => facts.observations.some((o) => o.key === mercuryGateKey(wanted) && o.answer === 'so')
  const open = MERCURY_GATE.filter(([wanted]) => !said(wanted)).map(([, words]) => words)
  if (open.length > 0)
    return { title: 'Nothing of the mercury is opened yet.', detail: `Still wanted: ${open.join('; ')}.` }
  const unweighed = mercuryNotWeighed(step, facts.observations)
  return unweighed === null ? null : { title: unweighed }
}

/** What mercury’s steps stand on is not taken back while they stand. */
function mercuryBack(facts: WorkFacts, key: string): HeldWork | null {
  const standsOn = MERCURY_GATE.some(([wanted]) => mercuryGateKey(wanted) === key)
  const done = facts.observations.some((o) => mercuryWalkOf(o.key) !== null && o.answer === 'done')
  return standsOn && done
    ? { title: 'Steps of the mercury stand on this: take those back first, with the caps closed.' }
    : null
}

/** What can’t be undone waits for the owner’s word; so does the donor that is taken for it. */
function wheel(facts: WorkFacts, id: string): HeldWork | null {
  const sheet = facts.wheels.find((w) => w.id === id)
  if (!sheet || sheet.ownerAgreed || (sheet.done.length === 0 && sheet.donorId === null)) return null
  if (!facts.forGood.includes(sheet.way)) return null
  return {
    title: 'Ask the owner first: this can’t be undone.',
    detail: `${sheet.arbor}, ${sheet.part}. Tick that the owner agreed, on the wheel’s sheet.`,
  }
}
