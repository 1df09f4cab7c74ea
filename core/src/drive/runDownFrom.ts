import { mean } from 'simple-statistics'
import type { ArcReading } from '../pendulum/decay.ts'

/** Arcs to keep of a run-down that a camera followed: more tell no more. */
const KEPT = 24
/**
 * What it swung before it began to fall is no run-down: it begins after the arc that was this near its largest for the
 * last time. That one was taken because it is wide, so by its own error too: it is no reading.
 */
const NEAR_LARGEST = 0.99
/** It must fall to this share of its first arc before it tells how fast it falls. */
const FALLEN_TO = 0.93

/**
 * A run-down from the arcs that a camera told one after another: when it began, on the clock of the arcs, and means of
 * neighbours from there, seconds since then.
 *
 * @returns null while it has not fallen far enough, or does not fall
 */
export function runDownFrom(
  told: readonly { atS: number; deg: number }[],
): { beganS: number; readings: ArcReading[] } | null {
  const largest = told.reduce((most, a) => Math.max(most, a.deg), 0)
  const arcs = told.slice(told.findLastIndex((a) => a.deg >= NEAR_LARGEST * largest) + 1)
  const first = arcs[0]
  if (!first || arcs.length < 4) return null
  const together = Math.ceil(arcs.length / KEPT)
  const kept = Array.from({ length: Math.ceil(arcs.length / together) }, (_, i) => {
    const part = arcs.slice(i * together, (i + 1) * together)
    return { atS: mean(part.map((a) => a.atS)) - first.atS, semiArcDeg: mean(part.map((a) => a.deg)) }
  })
  const [from, to] = [kept[0]!, kept.at(-1)!]
  return to.semiArcDeg < FALLEN_TO * from.semiArcDeg
    ? {
        beganS: first.atS,
        readings: kept.map((k) => ({
          atS: Math.round(k.atS * 10) / 10,
          semiArcDeg: Math.round(k.semiArcDeg * 1000) / 1000,
        })),
      }
    : null
}
