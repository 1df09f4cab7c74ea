import { FieldError, requireCount, requirePositive, requireWithin } from '../check/require.ts'

export interface TrainCandidate {
  wheels: number[]
  pinions: number[]
  escapeTeeth: number
  beatsPerHour: number
  /** how far its beat is from the one asked for, %, + faster */
  offPercent: number
}

/** Counts that are met: wheels 24 to 160 teeth, cut and lantern pinions 5 to 20, escape wheels 12 to 60. */
const WHEELS = [24, 160] as const
const PINIONS = [5, 20] as const
const ESCAPES = [12, 60] as const
const MOST_LOST = 4
const MOST_SHOWN = 200

/**
 * All counts for the lost wheels and pinions of a train that give the beat asked for, nearest first, then the plainest.
 *
 * Beats = 2·E·∏(wheels)/∏(pinions), from the wheel that turns once an hour; null stands for a lost one. Plain counts
 * are those of common dividing plates (wheels divisible by 4, 6 or 10; pinions of 6, 7, 8, 10, 12).
 *
 * @param tolerancePercent - how far the beat may be off, above 0 to 20 %
 * @throws FieldError when more than four are lost, or counts and pinions do not pair
 */
export function missingCounts(
  wheels: (number | null)[],
  pinions: (number | null)[],
  escapeTeeth: number | null,
  beatsPerHour: number,
  tolerancePercent = 0.5,
): TrainCandidate[] {
  check(wheels, pinions, escapeTeeth, beatsPerHour, tolerancePercent)
  const known = [...wheels, escapeTeeth].reduce<number>((p, n) => p * (n ?? 1), 2)
  const under = pinions.reduce<number>((p, n) => p * (n ?? 1), 1)
  const slots: Slot[] = [
    ...wheels.flatMap((n, i) => (n === null ? [{ kind: 'wheel' as const, i, range: WHEELS }] : [])),
    ...(escapeTeeth === null ? [{ kind: 'escape' as const, i: 0, range: ESCAPES }] : []),
    ...pinions.flatMap((n, i) => (n === null ? [{ kind: 'pinion' as const, i, range: PINIONS }] : [])),
  ]
  const found: { counts: number[]; beats: number; off: number; plain: number }[] = []
  // The last lost count is solved for, the others are walked; a lost wheel comes first, so pinions are walked last.
  const [solved, ...walked] = slots
  const limit = tolerancePercent / 100
  const take = (counts: number[], beats: number) => {
    const off = beats / beatsPerHour - 1
    if (Math.abs(off) > limit + 1e-12) return
    found.push({ counts, beats, off, plain: counts.reduce((p, n, k) => p + plainness(slots[k], n), 0) })
    if (found.length > 20_000) keepBest(found, 5000)
  }
  walk(walked, [], known / under, (others, ratio) => {
    if (!solved) {
      take([], ratio)
      return
    }
    const aim = solved.kind === 'pinion' ? ratio / beatsPerHour : beatsPerHour / ratio
    const from = Math.max(solved.range[0], Math.floor(aim / (1 + limit)))
    const to = Math.min(solved.range[1], Math.ceil(aim * (1 + limit) + 1))
    for (let n = from; n <= to; n++) take([n, ...others], solved.kind === 'pinion' ? ratio / n : ratio * n)
  })
  keepBest(found, MOST_SHOWN)
  return found.map(({ counts, beats, off }) => {
    const at = (kind: Slot['kind'], i: number) => counts[slots.findIndex((s) => s.kind === kind && s.i === i)] ?? 0
    return {
      wheels: wheels.map((n, i) => n ?? at('wheel', i)),
      pinions: pinions.map((n, i) => n ?? at('pinion', i)),
      escapeTeeth: escapeTeeth ?? at('escape', 0),
      beatsPerHour: beats,
      offPercent: Math.abs(off) < 1e-12 ? 0 : 100 * off,
    }
  })
}

interface Slot {
  kind: 'wheel' | 'escape' | 'pinion'
  i: number
  range: readonly [number, number]
}

function check(
  wheels: (number | null)[],
  pinions: (number | null)[],
  escapeTeeth: number | null,
  beatsPerHour: number,
  tolerancePercent: number,
): void {
  requirePositive('beatsPerHour', beatsPerHour)
  requireWithin('tolerancePercent', tolerancePercent, 1e-9, 20)
  if (wheels.length === 0 || wheels.length > 8)
    throw new FieldError('wheels', wheels, 'give one to eight wheels, null for a lost one')
  if (wheels.length !== pinions.length)
    throw new FieldError('pinions', pinions, `each wheel drives one pinion: give ${wheels.length}, as many as wheels`)
  wheels.forEach((n, i) => n !== null && requireCount(`wheels[${i}]`, n, 6, 1000))
  pinions.forEach((n, i) => n !== null && requireCount(`pinions[${i}]`, n, 4, 100))
  if (escapeTeeth !== null) requireCount('escapeTeeth', escapeTeeth, 3, 500)
  const lost = [...wheels, ...pinions, escapeTeeth].filter((n) => n === null).length
  if (lost === 0) throw new FieldError('wheels', wheels, 'put null for the lost wheel or pinion; nothing is lost here')
  if (lost > MOST_LOST)
    throw new FieldError('wheels', wheels, `at most ${MOST_LOST} may be lost; with more, every count fits something`)
}

function walk(slots: Slot[], counts: number[], ratio: number, visit: (counts: number[], ratio: number) => void): void {
  const [slot, ...rest] = slots
  if (!slot) {
    visit(counts, ratio)
    return
  }
  for (let n = slot.range[0]; n <= slot.range[1]; n++)
    walk(rest, [...counts, n], slot.kind === 'pinion' ? ratio / n : ratio * n, visit)
}

function plainness(slot: Slot | undefined, n: number): number {
  if (slot?.kind === 'pinion') return [6, 7, 8, 10, 12].includes(n) ? 0 : 2
  if (slot?.kind === 'escape') return [30, 32, 36, 40].includes(n) ? 0 : n % 2
  return n % 10 === 0 || n % 12 === 0 ? 0 : n % 4 === 0 || n % 6 === 0 ? 1 : n % 2 === 0 ? 2 : 3
}

function keepBest(found: { counts: number[]; off: number; plain: number }[], most: number): void {
  const sum = (counts: number[]) => counts.reduce((a, b) => a + b, 0)
  found.sort(
    (a, b) =>
      Math.round(Math.abs(a.off) * 1e10) - Math.round(Math.abs(b.off) * 1e10) ||
      a.plain - b.plain ||
      sum(a.counts) - sum(b.counts),
  )
  found.length = Math.min(found.length, most)
}
