import { median } from 'simple-statistics'
import { nth } from '../check/nth.ts'
import type { BeatFit } from './fit.ts'
import { knocksOf, type Knock } from './knocks.ts'
import { SHAPE_FROM_MS, SHAPE_POINTS, SHAPE_STEP_MS } from './sideShape.ts'
import type { TrackedBeat } from './track.ts'

/** What one side's ticks sound like, all its beats together. */
export interface SideSound {
  /** of its loudest moment above 900 Hz, dB under full scale */
  loudnessDb: number
  knocks: Knock[]
  /** its loudness from SHAPE_FROM_MS on, every SHAPE_STEP_MS, 1 at the loudest */
  shape: number[]
  /** how far the quietest moment between its knocks stands over the room, dB: its ringing, and what rustles; for comparing */
  rustleDb: number
}

/** So many beats are asked at most. */
const MOST_BEATS = 120
/** What follows a knock so closely is the knock. */
const KNOCK_MS = 3
/** The room is heard in the middle between two ticks, from and to so much of an interval after each. */
const ROOM_FROM = 0.3
const ROOM_TO = 0.42

/** How both sides sound, the first side's first; medians over the healthy beats, so that no single knock counts. */
export function soundOfSides(
  amplitude: Float32Array,
  binS: number,
  beats: TrackedBeat[],
  fit: BeatFit,
): [SideSound, SideSound] {
  const room = roomLevel(amplitude, binS, beats, fit.beatS)
  const one = (side: number) => {
    const mine = beats.filter((b, i) => b.index % 2 === side && fit.healthy[i])
    const stride = Math.max(1, Math.floor(mine.length / MOST_BEATS))
    const drops = mine.flatMap((b, i) => (i % stride === 0 ? [b.atS / binS] : []))
    return sideSound(amplitude, binS, drops, room)
  }
  return [one(0), one(1)]
}

function sideSound(amplitude: Float32Array, binS: number, drops: number[], room: number): SideSound {
  const level = Array.from({ length: SHAPE_POINTS }, (_, i) => {
    const off = (SHAPE_FROM_MS + i * SHAPE_STEP_MS) / 1000 / binS
    const there = drops.map((at) => amplitude[Math.round(at + off)] ?? 0)
    return there.length === 0 ? 0 : median(there)
  })
  const most = Math.max(...level, 1e-9)
  const knocks = knocksOf(amplitude, binS, drops)
  const between = level.filter((_, i) => {
    const ms = SHAPE_FROM_MS + i * SHAPE_STEP_MS
    const first = Math.min(0, ...knocks.map((k) => k.ms))
    return ms > first && ms < -1 && knocks.every((k) => ms < k.ms - 1 || ms > k.ms + KNOCK_MS)
  })
  return {
    loudnessDb: decibels(most),
    knocks,
    shape: level.map((v) => Math.round((1000 * v) / most) / 1000),
    rustleDb:
      between.length === 0
        ? 0
        : Math.max(0, decibels(Math.max(Math.min(...between), 1e-9)) - decibels(Math.max(room, 1e-9))),
  }
}

function roomLevel(amplitude: Float32Array, binS: number, beats: TrackedBeat[], beatS: number): number {
  const stride = Math.max(1, Math.floor(beats.length / MOST_BEATS))
  const levels = beats.flatMap((b, i) => {
    if (i % stride > 0) return []
    return [ROOM_FROM, (ROOM_FROM + ROOM_TO) / 2, ROOM_TO].flatMap((share) => {
      const at = Math.round((b.atS + share * beatS) / binS)
      return at < amplitude.length ? [nth(amplitude, at)] : []
    })
  })
  return levels.length === 0 ? 0 : median(levels)
}

function decibels(amplitude: number): number {
  return 20 * Math.log10(amplitude)
}
