import type { RateEvent, RateReading, RateRun } from './log.ts'

const DAY_S = 86_400

export interface Segment {
  fromS: number
  /** whether the error may have been shifted freely at its start (hands set, clock stopped) */
  breaks: boolean
  /** which stretch between changes other than the nut's */
  epoch: number
  /** where the nut stands against the start of the book, + raised */
  turns: number
  /** s/day by what was laid on the tray since the start of the book */
  given: number
  readings: (RateReading & { weight: number })[]
  /** heard wholly within it */
  runs: RateRun[]
  /** Σw, 1/s² */
  weight: number
  meanS: number
  meanErrorS: number
  /** Σw·τ², days²/s²: the information on its slope from its own readings and runs */
  spread: number
}

/**
 * Readings gathered into segments, in order of time; one without readings stands for a stretch nobody read in.
 *
 * A reading at the very moment of an event belongs before it: one reads, then turns. A run over a change tells nothing
 * of either side.
 */
export function gather(readings: RateReading[], events: RateEvent[], runs: RateRun[] = []): Segment[] {
  const inTime = [...readings].sort((a, b) => a.atS - b.atS)
  const firstS = Math.min(inTime[0]?.atS ?? Infinity, ...runs.map((r) => r.fromS))
  // What happened before the first reading is not in the book.
  const breaks = events.filter((e) => e.atS >= firstS).sort((a, b) => a.atS - b.atS)
  const segments: Segment[] = []
  let start = { fromS: firstS, breaks: true, epoch: 0, turns: 0, given: 0 }
  let next = 0
  const close = (until: number) => {
    const held: RateReading[] = []
    for (let r = inTime[next]; r && r.atS <= until; r = inTime[++next]) held.push(r)
    const inside = runs.filter((r) => r.fromS >= start.fromS && r.toS <= until)
    segments.push({ ...start, ...summed(held, inside, start.fromS) })
  }
  for (const event of breaks) {
    close(event.atS)
    start = {
      fromS: event.atS,
      breaks: event.kind !== 'nut' && event.kind !== 'known',
      epoch: start.epoch + (event.kind === 'change' ? 1 : 0),
      turns: start.turns + (event.kind === 'nut' ? event.turns : 0),
      given: start.given + (event.kind === 'known' ? event.secondsPerDay : 0),
    }
  }
  close(Number.POSITIVE_INFINITY)
  return segments
}

function summed(held: RateReading[], runs: RateRun[], fromS: number) {
  const readings = held.map((r) => ({ ...r, weight: 1 / (r.sigmaS ?? 1) ** 2 }))
  const firstS = readings[0]?.atS ?? fromS
  const firstError = readings[0]?.errorS ?? 0
  const weight = readings.reduce((sum, r) => sum + r.weight, 0)
  // From the first reading on, so that a large epoch costs no digits.
  const mean = (value: (r: RateReading) => number) =>
    readings.reduce((sum, r) => sum + r.weight * value(r), 0) / (weight || 1)
  const meanLaterS = mean((r) => r.atS - firstS)
  return {
    readings,
    runs,
    weight,
    meanS: firstS + meanLaterS,
    meanErrorS: firstError + mean((r) => r.errorS - firstError),
    spread:
      readings.reduce((sum, r) => sum + r.weight * ((r.atS - firstS - meanLaterS) / DAY_S) ** 2, 0) +
      runs.reduce((sum, r) => sum + 1 / (r.standardError ** 2 + r.deviceError ** 2), 0),
  }
}
