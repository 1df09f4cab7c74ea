import { outOfBeatMs, splitTold, type HeardIntervals } from '../beat/heard.ts'
import { rateBookOf, type RateAims, type RateLog } from '../rate/fromLog.ts'
import type { RateEventKind } from '../rate/kinds.ts'
import { rateInWords } from '../rate/words.ts'
import { mendDone, type MendSheets } from '../wheel/done.ts'
import type { Moment } from './moment.ts'

/** A visit, as far as it is told in words. */
export interface VisitFacts extends RateLog {
  job: { scope: string; partedAt: Moment | null }
  clock: { pendulum: RateAims['pendulum'] }
  holes: { arbor: string; plate: string; bushed: boolean }[]
  pivots: { arbor: string; plate: string; work: string }[]
  events: { at: Moment; kind: RateEventKind; turns: number | null }[]
  listenings: (Pick<HeardIntervals, 'firstToSecondMs' | 'secondToFirstMs'> & {
    at: Moment
    outOfBeatStandardError: number
  })[]
  estimates: { state: string; lines: { title: string }[] }[]
  observations: { key: string; answer: string; note: string }[]
  causes: { cause: string }[]
  wheels?: MendSheets['wheels']
  springs?: MendSheets['springs']
}

/** What was done and found on a visit, in sentences for whoever opens this clock again; nothing that was not done. */
export function visitInWords(visit: VisitFacts, settings: RateAims['settings']): string[] {
  const { job, holes, pivots, events, listenings } = visit
  const words: string[] = []
  if (job.scope === 'untouched' && job.partedAt === null) return ['It went back as it came.']
  for (const { cause } of visit.causes) words.push(`It was this: ${cause}.`)
  if (job.partedAt !== null) words.push('Taken apart.')
  const bushed = holes.filter((h) => h.bushed).map((h) => `${h.arbor.toLowerCase()}, ${h.plate}`)
  if (bushed.length > 0)
    words.push(`${bushed.length === 1 ? 'One hole' : `${bushed.length} holes`} bushed: ${bushed.join('; ')}.`)
  const worked = pivots.filter((p) => p.work !== '' && p.work !== 'left')
  if (worked.length > 0)
    words.push(`Pivots: ${worked.map((p) => `${p.arbor.toLowerCase()}, ${p.plate}, ${p.work}`).join('; ')}.`)
  words.push(...mendDone({ wheels: visit.wheels ?? [], springs: visit.springs ?? [] }))
  const springs = visit.estimates
    .filter((e) => e.state === 'accepted')
    .at(-1)
    ?.lines.filter((l) => /mainspring|suspension/i.test(l.title))
  if (springs && springs.length > 0) words.push(`Agreed: ${springs.map((l) => l.title.toLowerCase()).join('; ')}.`)
  if (visit.observations.some((o) => o.key === 'in-place' && o.answer === 'done'))
    words.push('Oiled in place, fresh oil on old: a stop-gap.')
  else if (events.some((e) => e.kind === 'oiled')) words.push('Oiled.')
  const last = listenings.filter(splitTold).at(-1)
  if (last) words.push(`Beat at leaving: ${outOfBeatMs(last).toFixed(1)} ms out.`)
  const book = rateBookOf(visit, { pendulum: visit.clock.pendulum, settings })
  if (book?.rateSecondsPerDay != null && book.standardError !== null && book.suspects.length === 0)
    words.push(`Rate at leaving: it ${rateInWords(book.rateSecondsPerDay, book.standardError)}.`)
  if (book?.secondsPerDayPerTurn != null && book.perTurnStandardError !== null && book.turnsLearntFrom > 0)
    words.push(
      `One turn of its nut: ${book.secondsPerDayPerTurn.toFixed(0)} ± ${book.perTurnStandardError.toFixed(0)} s a day.`,
    )
  return words
}
