import { median, quantile } from 'simple-statistics'
import { nth } from '../check/nth.ts'
import type { HeardBlow } from './ear.ts'

/** Blows that belong together: one striking of the hour, a half, a quarter's sequence, a bird's calls. */
export interface StrikeGroup {
  /** the first blow */
  atS: number
  /** how many; a bird's two notes are one */
  blows: number
  /** from each to the next, s */
  intervalsS: number[]
  /** the sequence is of two notes, a bird's */
  bird: boolean
  /** scatter of the intervals, as a share of them */
  unevenness: number
}

/** Blows farther apart than this are of two strikings, s. */
const LONGEST_GAP_S = 4.2
const LONGEST_DROWNED_S = 6
/** What is so much fainter than its company, and brings so much less, is no blow, dB. */
const FAINTER_DB = 14
const NEAR_S = 20
/** A blow that stands by itself; less needs to come just where the next is due. */
const SURE_SUM_DB = 50
const SURE_RISE_DB = 4
const SURELY_SUM_DB = 80
/** What has fallen farther in a quarter of a second was a knock, dB. */
const RINGS_DB = 23
/** One that stands alone has fallen no farther, and is no fainter than the loudest by more, dB. */
const ALONE_FALLS_DB = 16
const ALONE_FAINTER_DB = 10
/** Of what its fellows bring, a blow brings at least so much. */
const LEAST_OF_USUAL = 0.3
/** The first and the last may bring less where they come just in time and are fainter by no more, dB. */
const LEAST_IN_TIME = 0.15
const IN_TIME = 0.03
const WEAKER_DB = 9
/** Of fewer sure blows no rhythm is known well enough to believe what is doubtful. */
const FEW = 3
/** More places than this are not bridged by weak blows. */
const MOST_WEAK = 4
const SHORTEST_S = 0.28
/** Where a blow is due, within so much of an interval. */
const DUE_WITHIN = 0.13
/** What a place on the rhythm costs at which nothing was heard, or only a weak rise. */
const HOLE = 0.7
const HOLE_WITHIN = 0.05
const LONG_ROW = 4
const SAME_PITCH = 0.05
const WEAK = 0.1
/** Of all that is sure so much must keep the rhythm to call it one. */
const REGULAR = 0.6
/** A pause so much longer than the rhythm, and so long, ends a sequence: rests of a chime are shorter. */
const PAUSE = 1.75
const PAUSE_S = 1.9
/** A bird's two notes are a third apart, or near it, and come so close together. */
const LEAST_FALL = 1.1
const MOST_FALL = 1.5
const PAIR_S = 0.9
const PIPE_BANDS = 6

/**
 * The strikings in a row of heard blows.
 *
 * What is much fainter than its surroundings goes. Sure blows make the rhythm; where it is even, a weak one counts when
 * it comes just where one is due, and one that stands off the rhythm and brings little does not; what was taken for a
 * knock, or is fainter than its company, counts where it comes just in time. Uneven sequences, as quarters are, keep
 * their sure blows. Two falling notes of a pipe, in pairs, are a bird's, each pair one call.
 */
export function strikings(blows: HeardBlow[]): StrikeGroup[] {
  const ringing = inCompany(blows.filter((b) => b.fallDb < RINGS_DB))
  const doubtful = blows.filter((b) => !ringing.includes(b))
  const loudest = Math.max(...ringing.map((b) => b.levelDb))
  return clusters(ringing).flatMap((cluster) => {
    const sure = cluster.filter(isSure)
    if (sure.length === 0 || (sure.length === 1 && !sure.every((b) => standsAlone(b, loudest)))) return []
    const bird = birdCalls(sure)
    if (bird) return [group(bird, true)]
    return sequences(cluster).map((sequence) =>
      group(rhythm(sequence, doubtful) ?? sequence.filter(isSure).map((b) => b.atS), false),
    )
  })
}

function isSure(blow: HeardBlow): boolean {
  return blow.sumDb >= SURE_SUM_DB && (blow.riseDb >= SURE_RISE_DB || blow.sumDb >= SURELY_SUM_DB)
}

/** A single blow has no company to speak for it: it must be clear, and as loud as the others of its clock. */
function standsAlone(blow: HeardBlow, loudestDb: number): boolean {
  return blow.sumDb >= SURELY_SUM_DB && blow.fallDb < ALONE_FALLS_DB && blow.levelDb > loudestDb - ALONE_FAINTER_DB
}

/** Two partials that beat against one another may hide a blow for a moment; it is as loud as it becomes. */
function loudness(blow: HeardBlow): number {
  return blow.levelDb + Math.max(0, -blow.fallDb)
}

/** Without what is much fainter than the blows near it and brings much less: ticks and knocks that a blow lifted. */
function inCompany(blows: HeardBlow[]): HeardBlow[] {
  return blows.filter((b) => {
    const sure = blows.filter((other) => Math.abs(other.atS - b.atS) < NEAR_S && isSure(other))
    if (sure.length === 0) return false
    const near = sure.length > 1 ? sure.filter((other) => other !== b) : sure
    const loud = quantile(near.map(loudness), 0.7)
    return loudness(b) > loud - FAINTER_DB || b.sumDb > 0.6 * median(near.map((n) => n.sumDb))
  })
}

function clusters(blows: HeardBlow[]): HeardBlow[][] {
  const out: HeardBlow[][] = []
  for (const blow of blows) {
    const now = out.at(-1) ?? []
    const gap = blow.atS - (now.at(-1)?.atS ?? -Infinity)
    // One of a slow striking may be drowned.
    const drowned = now.length >= 3 && isTimes(gap, median(gaps(now)), 2)
    if (gap <= LONGEST_GAP_S || (drowned && gap <= LONGEST_DROWNED_S)) now.push(blow)
    else out.push([blow])
  }
  return out
}

/** A chime and the hour after it part at the pause between them: longer than any before, and no blow merely missed. */
function sequences(blows: HeardBlow[]): HeardBlow[][] {
  const sure = blows.filter(isSure)
  const starts = [-Infinity]
  let now: HeardBlow[] = []
  sure.forEach((blow, i) => {
    const gap = blow.atS - (now.at(-1)?.atS ?? blow.atS)
    const before = gaps(now)
    const after = sure[i + 1] ? nth(sure, i + 1).atS - blow.atS : null
    const usual = before.length > 0 ? median(before) : 0
    const isMissed =
      (isTimes(gap, usual, 2) && (after === null || isTimes(after, usual, 1) || isTimes(after, usual, 2))) ||
      weakOnes(blows, blow.atS - gap, blow.atS, usual)
    if (before.length >= 2 && gap > Math.max(PAUSE_S, PAUSE * Math.max(...before)) && !isMissed) {
      starts.push(blow.atS)
      now = []
    }
    now.push(blow)
  })
  return starts.map((from, i) => blows.filter((b) => b.atS >= from && b.atS < (starts[i + 1] ?? Infinity)))
}

function isTimes(gap: number, usual: number, times: number): boolean {
  return Math.abs(gap / (times * usual) - 1) < DUE_WITHIN
}

/** Whether weak blows stand at every place of the rhythm within a pause: it is none. */
function weakOnes(blows: HeardBlow[], fromS: number, toS: number, usual: number): boolean {
  const places = Math.round((toS - fromS) / usual)
  if (places < 2 || places > MOST_WEAK || !isTimes(toS - fromS, usual, places)) return false
  const step = (toS - fromS) / places
  return Array.from({ length: places - 1 }, (_, i) => fromS + (i + 1) * step).every((due) =>
    blows.some((b) => Math.abs(b.atS - due) < DUE_WITHIN * step),
  )
}

function gaps(blows: HeardBlow[]): number[] {
  return blows.slice(1).map((b, i) => b.atS - nth(blows, i).atS)
}

/**
 * Moments of the blows of an even sequence, or null where there is none.
 *
 * Every pair of blows offers an interval; from there each next blow is looked for where it is due, the interval
 * following slowly. Blows gain by what they bring, places with nothing cost, and sure blows off the rhythm cost; the
 * best course is the sequence. One place in a row may stay empty, a rest between the phrases of a chime, and counts
 * for nothing; once in a long run of one pitch, just in time, it is a blow that the bell drowned.
 */
function rhythm(blows: HeardBlow[], doubtful: HeardBlow[]): number[] | null {
  const sure = blows.filter(isSure)
  const others = sure.length < FEW ? [] : doubtful
  const usual = median(sure.map((b) => b.sumDb))
  const worth = (b: HeardBlow) => Math.min(1, b.sumDb / usual)
  const all = sure.reduce((sum, b) => sum + worth(b), 0)
  let best: number[] | null = null
  let most = REGULAR * all
  blows.forEach((first, i) => {
    if (worth(first) < LEAST_OF_USUAL) return
    // The one between two may be the one that was drowned.
    for (const [second, steps] of blows.slice(i + 1, i + 4).flatMap((b) => [[b, 1] as const, [b, 2] as const])) {
      const { times, used } = follow(blows, others, first, (second.atS - first.atS) / steps)
      const gain = times.reduce((sum, t) => sum + gainOf(t.blow ? worth(t.blow) : null), 0)
      const left = sure.reduce((sum, b) => sum + (used.has(b) ? 0 : worth(b)), 0)
      if (times.length >= 2 && gain - left > most) {
        most = gain - left
        best = counted(times)
      }
    }
  })
  return best
}

/** Whether a place where nothing was heard is a blow: the only one, in a long row on one bell, exactly in time. */
function counted(times: { atS: number; blow: HeardBlow | null }[]): number[] {
  const heard = times.flatMap((t) => (t.blow ? [t.blow] : []))
  const between = gaps(heard)
  const usual = median(between)
  const drowned = times.length - heard.length === 1 && heard.length >= LONG_ROW && isOneBell(heard)
  return times.flatMap((t, i) => {
    if (t.blow) return [t.atS]
    const gap = nth(times, i + 1).atS - nth(times, i - 1).atS
    return drowned && Math.abs(gap / (2 * usual) - 1) < HOLE_WITHIN ? [t.atS] : []
  })
}

/** A chime’s neighbours differ, a bell’s are often alike: now and then another of its few partials is the loudest. */
function isOneBell(blows: HeardBlow[]): boolean {
  const alike = (a: HeardBlow, b: HeardBlow) => Math.abs(a.pitchHz / b.pitchHz - 1) < SAME_PITCH
  const same = blows.slice(1).filter((b, i) => alike(b, nth(blows, i)))
  const notes = blows.filter((b, i) => !blows.slice(0, i).some((before) => alike(before, b)))
  return same.length >= (blows.length - 1) / 4 || 3 * notes.length <= blows.length
}

function gainOf(worth: number | null): number {
  if (worth === null) return -HOLE
  return worth < LEAST_OF_USUAL ? worth - WEAK : worth
}

function follow(blows: HeardBlow[], doubtful: HeardBlow[], first: HeardBlow, stepS: number) {
  const times: { atS: number; blow: HeardBlow | null }[] = [{ atS: first.atS, blow: first }]
  const used = new Set<HeardBlow>([first])
  let step = stepS
  if (stepS < SHORTEST_S || stepS > LONGEST_GAP_S) return { times, used }
  let empty = 0
  while (empty < 2) {
    const last = nth(times, times.length - 1).atS
    const due = last + step
    const blow = most(blows, due, DUE_WITHIN * step) ?? most(doubtful, due, IN_TIME * step)
    empty = blow ? 0 : empty + 1
    times.push({ atS: blow?.atS ?? due, blow })
    if (blow) {
      used.add(blow)
      step += 0.3 * (blow.atS - last - step)
    }
  }
  // Nothing is added at the end but what was heard, and heard well enough.
  const fellows = blows.filter(isSure)
  while (times.length > 1) {
    const end = nth(times, times.length - 1)
    const before = nth(times, times.length - 2)
    // Of two alone the second makes the time itself.
    const steps = times.filter((t) => t.blow).length > 2 ? (end.atS - before.atS) / step : 0
    // Behind a place where nothing was heard only a sure one ends the row.
    const isLast = end.blow && (fellows.includes(end.blow) || (before.blow && isLikely(end.blow, steps, fellows)))
    if (isLast) break
    times.pop()
    if (end.blow) used.delete(end.blow)
  }
  if (times.length > 2) {
    const step = median(times.slice(1).map((t, i) => t.atS - nth(times, i).atS))
    for (const blow of [...blows, ...doubtful].filter((b) => b.atS < first.atS).sort((a, b) => b.atS - a.atS)) {
      const steps = (nth(times, 0).atS - blow.atS) / step
      if (!isInTime(blow, steps, fellows)) continue
      times.unshift({ atS: blow.atS, blow })
      used.add(blow)
    }
  }
  return { times, used }
}

/** What brings most near where a blow is due. */
function most(blows: HeardBlow[], dueS: number, withinS: number): HeardBlow | null {
  const near = blows.filter((b) => Math.abs(b.atS - dueS) < withinS)
  return near.reduce<HeardBlow | null>((a, b) => (a && a.sumDb > b.sumDb ? a : b), null)
}

/** Whether a weak blow may end a row. */
function isLikely(blow: HeardBlow, steps: number, fellows: HeardBlow[]): boolean {
  if (isInTime(blow, steps, fellows)) return true
  return blow.fallDb < RINGS_DB && isAsLoud(blow, fellows) && share(blow, fellows) > LEAST_OF_USUAL
}

/** A weak one ends or begins a row when it comes just in time, nearly as loud as its fellows. */
function isInTime(blow: HeardBlow, steps: number, fellows: HeardBlow[]): boolean {
  return Math.abs(steps - 1) < IN_TIME && isAsLoud(blow, fellows) && share(blow, fellows) > LEAST_IN_TIME
}

/** What it brings, of what its fellows do. */
function share(blow: HeardBlow, fellows: HeardBlow[]): number {
  return blow.sumDb / median(fellows.map((b) => b.sumDb))
}

function isAsLoud(blow: HeardBlow, fellows: HeardBlow[]): boolean {
  return loudness(blow) > median(fellows.map(loudness)) - WEAKER_DB
}

/** First notes of a bird's calls, or null where the sequence is none. */
function birdCalls(blows: HeardBlow[]): number[] | null {
  const calls: number[] = []
  for (let i = 0; i < blows.length; i += 2) {
    const high = nth(blows, i)
    const low = blows[i + 1]
    if (!low || low.atS - high.atS > PAIR_S || low.bands > PIPE_BANDS) return null
    const fall = high.pitchHz / low.pitchHz
    // With a gong on the first note its pitch is the gong's: then the second, of a pipe, tells.
    if (high.bands <= PIPE_BANDS && (fall < LEAST_FALL || fall > MOST_FALL)) return null
    const next = blows[i + 2]
    if (next && next.atS - low.atS < 0.8 * (low.atS - high.atS)) return null
    calls.push(high.atS)
  }
  return calls
}

function group(times: number[], bird: boolean): StrikeGroup {
  const intervalsS = times.slice(1).map((t, i) => t - nth(times, i))
  const middle = intervalsS.length > 0 ? median(intervalsS) : 0
  const off = intervalsS.map((s) => Math.abs(s / middle - 1))
  return {
    atS: nth(times, 0),
    blows: times.length,
    intervalsS,
    bird,
    unevenness: off.length === 0 ? 0 : quantile(off, 0.5),
  }
}
