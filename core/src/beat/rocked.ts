import type { HeardSwing } from '../listen/swings.ts'
import type { TiltPoint } from './evenTilt.ts'

/** How the case stood at a moment of the recording. */
export interface TiltAt {
  atS: number
  tiltDeg: number
}

/** A sensor that has said nothing for so long says nothing of a beat, s; a level that was typed stands till the next. */
const STALE_S = 0.5

/**
 * Every beat's unevenness with the tilt it was made at: half by how much the interval before it exceeds the one after,
 * of one sign for both sides.
 *
 * @param tilts - in order of time
 * @param typed - the tilts were read off a level and stand until the next one
 */
export function rockedPoints(beats: HeardSwing[], tilts: TiltAt[], typed: boolean): TiltPoint[] {
  return beats.flatMap((beat, i) => {
    const [before, after] = [beats[i - 1], beats[i + 1]]
    if (!before || !after || before.index !== beat.index - 1 || after.index !== beat.index + 1) return []
    const tiltDeg = tiltAt(tilts, beat.atS, typed)
    if (tiltDeg === null) return []
    const half = (1000 * (2 * beat.atS - before.atS - after.atS)) / 2
    return [{ tiltDeg, outMs: beat.index % 2 === 0 ? -half : half }]
  })
}

function tiltAt(tilts: TiltAt[], atS: number, typed: boolean): number | null {
  const next = tilts.findIndex((t) => t.atS > atS)
  const before = next === -1 ? tilts.at(-1) : tilts[next - 1]
  if (!before) return null
  if (typed) return before.tiltDeg
  const after = next === -1 ? undefined : tilts[next]
  if (atS - before.atS > STALE_S) return null
  if (!after || after.atS - before.atS > STALE_S) return before.tiltDeg
  const share = (atS - before.atS) / (after.atS - before.atS)
  return before.tiltDeg + share * (after.tiltDeg - before.tiltDeg)
}
