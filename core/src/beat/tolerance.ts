/** Workshop limits for the beat, as in the settings. */
export interface BeatTolerance {
  /** points from 50/50 that count as even */
  finePoints: number
  /** points from 50/50 that an ordinary clock may have */
  acceptablePoints: number
  /** points from 50/50 at which anyone hears it */
  heardPoints: number
  /** ms out that some shops take as their limit */
  limitMs: number
  /** which of the two limits this shop goes by */
  by: 'split' | 'milliseconds'
}

export const DEFAULT_BEAT_TOLERANCE: BeatTolerance = {
  finePoints: 0.5,
  acceptablePoints: 1.5,
  heardPoints: 4,
  limitMs: 15,
  by: 'split',
}

/** How even a beat is: `sound` within the fine limit, `watch` within the ordinary one, `must` beyond it. */
export type BeatGrade = 'sound' | 'watch' | 'must'

/** Grades a beat by the workshop's own limit. A limit in milliseconds has its fine band at a third. */
export function gradeBeat(splitPercent: number, outOfBeatMs: number, tolerance: BeatTolerance): BeatGrade {
  const value = tolerance.by === 'split' ? splitPercent - 50 : outOfBeatMs
  const fine = tolerance.by === 'split' ? tolerance.finePoints : tolerance.limitMs / 3
  const limit = tolerance.by === 'split' ? tolerance.acceptablePoints : tolerance.limitMs
  return value <= fine ? 'sound' : value <= limit ? 'watch' : 'must'
}

/** The beat as the ear would put it. */
export function beatByEar(splitPercent: number, tolerance: BeatTolerance): string {
  const points = splitPercent - 50
  if (points <= tolerance.finePoints) return 'even'
  if (points <= tolerance.acceptablePoints) return 'a trained ear hears it limp'
  if (points < tolerance.heardPoints) return 'it limps'
  return 'anyone hears it limp'
}
