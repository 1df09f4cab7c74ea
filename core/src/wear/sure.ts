import { requirePositive } from '../check/require.ts'
import { fromLean } from './lean.ts'

export const PLAY_WAYS = ['caliper', 'dial', 'lean'] as const
/** how a hole's play was measured: two axes by caliper, a dial gauge, the lean test */
export type PlayWay = (typeof PLAY_WAYS)[number]

export interface PlayMeasured {
  way: PlayWay
  playMm: number
  /** standard uncertainty of it, mm */
  sigmaMm: number
}

/** Readings to 0.01 mm of two axes and a pivot; rule of thumb for a steady hand. */
const CALIPER_SIGMA_MM = 0.01
/** A dial gauge set square against the arbor; it shows the play itself. */
const DIAL_SIGMA_MM = 0.015
/** A lean read against a protractor. */
const LEAN_SIGMA_DEG = 0.5

/** What is known of a hole by any of the ways; mm and degrees. */
export interface PlayFacts {
  longAxisMm: number | null
  shortAxisMm: number | null
  pivotMm: number | null
  plateMm: number | null
  /** the play itself, by dial gauge */
  shakeMm: number | null
  leanDeg: number | null
}

/**
 * The play of a hole by the best way it was measured, mm, with its standard uncertainty; null while nothing tells it.
 *
 * Caliper: mean of the two axes less the pivot. Dial gauge: taken as it is. Lean: from the tilted cylinder.
 */
export function bestPlay(facts: PlayFacts): PlayMeasured | null {
  return playByWays(facts)[0] ?? null
}

/** The play by every way it was measured, the surest first. */
export function playByWays({ longAxisMm, shortAxisMm, pivotMm, plateMm, shakeMm, leanDeg }: PlayFacts): PlayMeasured[] {
  const ways: PlayMeasured[] = []
  if (longAxisMm !== null && shortAxisMm !== null && pivotMm !== null)
    ways.push({
      way: 'caliper',
      playMm: (longAxisMm + shortAxisMm) / 2 - pivotMm,
      // Half of each axis and the whole of the pivot, independent of each other.
      sigmaMm: CALIPER_SIGMA_MM * Math.sqrt(0.25 + 0.25 + 1),
    })
  if (shakeMm !== null) ways.push({ way: 'dial', playMm: shakeMm, sigmaMm: DIAL_SIGMA_MM })
  if (leanDeg !== null && pivotMm !== null && plateMm !== null) {
    const playMm = fromLean(leanDeg, pivotMm, plateMm).playMm
    const more = fromLean(Math.min(30, leanDeg + LEAN_SIGMA_DEG), pivotMm, plateMm).playMm
    ways.push({ way: 'lean', playMm, sigmaMm: Math.max(more - playMm, 1e-4) })
  }
  return ways
}

export interface Sureness {
  /** chance that the play is truly on this side of the limit, 0.5 to 1, if the errors are as stated */
  sure: number
  /** the surer way that would settle a close one; null when it is not close, or no way is surer */
  settleBy: PlayWay | null
}

/**
 * How sure it is that a play is on its side of a limit, mm: the share of a normal error that stays there.
 *
 * Under nineteen in twenty it is close, and the next surer way of measuring is named.
 */
export function sureness({ way, playMm, sigmaMm }: PlayMeasured, limitMm: number): Sureness {
  requirePositive('limitMm', limitMm)
  const sure = normalShare(Math.abs(playMm - limitMm) / sigmaMm)
  const close = sure < 0.95
  const surer: Record<PlayWay, PlayWay | null> = { lean: 'caliper', dial: 'caliper', caliper: null }
  return { sure, settleBy: close ? surer[way] : null }
}

/** The share of a normal distribution below z standard deviations; Zelen and Severo's polynomial, to 1e-7. */
function normalShare(z: number): number {
  const t = 1 / (1 + 0.2316419 * z)
  const tail =
    (Math.exp(-z * z * 0.5) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))))
  return 1 - tail
}
