import type { Answer } from './reason.ts'
import type { StopsFound } from './stops.ts'

/** What other surfaces of a job have found, as far as the trouble finder asks. */
export interface FoundElsewhere {
  movedLately: 'yes' | 'no' | 'unknown'
  yearsSinceOil: number | null
  /** the last listening's grade of beat */
  beat: 'sound' | 'watch' | 'must' | null
  /** what the drive test left to spare, % */
  driveMarginPercent: number | null
  /** measured holes that the workshop's rule would bush */
  holesToBush: number
  holesMeasured: number
  /** a wheel whose turning time matches the period at which a fault comes back */
  periodicWheel: string | null
  /** what its stops told by its dial */
  stops: StopsFound
}

export interface FlowedIn {
  check: string
  answer: Answer
  from: string
}

/** The answers that need not be asked, each with where it was found. */
export function observedElsewhere(found: FoundElsewhere): FlowedIn[] {
  const out: FlowedIn[] = []
  if (found.movedLately !== 'unknown')
    out.push({ check: 'movedLately', answer: found.movedLately, from: 'the owner, on arrival' })
  if (found.yearsSinceOil !== null)
    out.push({ check: 'yearsSinceOil', answer: found.yearsSinceOil, from: 'our record, or the owner' })
  if (found.beat !== null)
    out.push({ check: 'evenBeat', answer: found.beat === 'must' ? 'no' : 'yes', from: 'the last listening' })
  if (found.driveMarginPercent !== null)
    out.push({
      check: 'needsExtraDrive',
      answer: found.driveMarginPercent < 0 ? 'yes' : 'no',
      from: `the drive test, ${found.driveMarginPercent.toFixed(0)} % to spare`,
    })
  if (found.holesMeasured > 0)
    out.push({
      check: 'holesShake',
      answer: found.holesToBush > 0 ? 'yes' : 'no',
      from: `the holes: ${found.holesToBush} of ${found.holesMeasured} measured want a bush`,
    })
  if (found.periodicWheel !== null)
    out.push({ check: 'beatComesBack', answer: 'yes', from: `the train sheet: ${found.periodicWheel}` })
  const { sameTurnOf, inWarning, atChange } = found.stops
  const dial = (check: string, is: boolean | null) => {
    if (is !== null) out.push({ check, answer: is ? 'yes' : 'no', from: 'its stops, by what its dial showed' })
  }
  dial('stopsSamePlace', sameTurnOf === null ? null : sameTurnOf.length > 0)
  dial('stopsInWarning', inWarning)
  dial('stopsAtMoonChange', atChange)
  return out
}
