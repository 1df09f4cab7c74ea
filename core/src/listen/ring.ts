import { nth } from '../check/nth.ts'
import type { ToothReport } from './teeth.ts'

/** A tooth that drops out of time, by the first pallet's count. */
export interface RingTooth {
  tooth: number
  firstMs: number | null
  /** of the same tooth when it comes to the second pallet */
  secondMs: number | null
}

/** What the teeth's lateness tells of the escape wheel. */
export interface RingStory {
  kind: 'even' | 'teeth' | 'one pallet' | 'eccentric'
  teeth: RingTooth[]
  /** half of peak to peak of what comes and goes once a turn, ms; where the wheel is eccentric */
  eccentricMs: number | null
  /** teeth from a pallet to the other, as the bent ones come to both; null where that is not told */
  spanned: number | null
}

/** A wheel is called eccentric when its once-a-turn is so many errors, and so much. */
const CLEAR_ERRORS = 4
const LEAST_ECCENTRIC_MS = 0.25

/**
 * Which teeth drop out of time, whether on both pallets, and whether the whole wheel does once a turn.
 *
 * The same tooth comes to the second pallet some drops after (or before) the first: the shift at which most of the bad
 * ones of both pallets meet. A tooth bad on one pallet only is no length, but its tip or that pallet.
 *
 * @param reports - of every tooth on both pallets, as a listening tells them
 */
export function ringStory(reports: ToothReport[], teeth: number): RingStory {
  const bad = (pallet: ToothReport['pallet']) => reports.filter((r) => r.pallet === pallet && r.bent)
  const [first, second] = [bad('first'), bad('second')]
  const shift = bestShift(
    first.map((r) => r.tooth),
    second.map((r) => r.tooth),
    teeth,
  )
  const named: RingTooth[] = first.map((r) => ({
    tooth: r.tooth,
    firstMs: r.lateMs,
    secondMs: shift === null ? null : (second.find((s) => wrap(s.tooth - shift, teeth) === r.tooth)?.lateMs ?? null),
  }))
  for (const s of second) {
    const tooth = shift === null ? s.tooth : wrap(s.tooth - shift, teeth)
    if (!named.some((n) => n.tooth === tooth && n.secondMs !== null))
      named.push({ tooth, firstMs: null, secondMs: s.lateMs })
  }
  named.sort((a, b) => a.tooth - b.tooth)
  if (named.length > 0) {
    const both = named.some((n) => n.firstMs !== null && n.secondMs !== null)
    return { kind: both ? 'teeth' : 'one pallet', teeth: named, eccentricMs: null, spanned: both ? shift : null }
  }
  const eccentricMs = onceATurn(reports, teeth)
  return { kind: eccentricMs === null ? 'even' : 'eccentric', teeth: [], eccentricMs, spanned: null }
}

function wrap(tooth: number, teeth: number): number {
  return ((((tooth - 1) % teeth) + teeth) % teeth) + 1
}

/** By how many teeth the second pallet's bad ones follow the first's: where most of them meet; null where none do. */
function bestShift(first: number[], second: number[], teeth: number): number | null {
  let best: { shift: number; met: number } | null = null
  // A pallet spans less than half of the wheel.
  for (let shift = 0; shift < teeth / 2; shift++) {
    const met = first.filter((t) => second.includes(wrap(t + shift, teeth))).length
    if (met > (best?.met ?? 0)) best = { shift, met }
  }
  return best?.shift ?? null
}

/** Half of peak to peak of a sinusoid once a turn through both pallets, each with its own phase; null where there is none. */
function onceATurn(reports: ToothReport[], teeth: number): number | null {
  const of = (pallet: ToothReport['pallet']) => {
    const mine = reports.filter((r) => r.pallet === pallet)
    if (mine.length < teeth * 0.8) return null
    let [sine, cosine, error] = [0, 0, 0]
    for (const r of mine) {
      const angle = (2 * Math.PI * r.tooth) / teeth
      sine += (2 / mine.length) * r.lateMs * Math.sin(angle)
      cosine += (2 / mine.length) * r.lateMs * Math.cos(angle)
      error += r.standardErrorMs ** 2
    }
    return { ms: Math.hypot(sine, cosine), errorMs: (Math.sqrt(2) * Math.sqrt(error)) / mine.length }
  }
  const told = [of('first'), of('second')].flatMap((o) => (o ? [o] : []))
  const most = told.reduce((a, b) => (b.ms > a.ms ? b : a), nth([...told, { ms: 0, errorMs: 1 }], 0))
  return most.ms > Math.max(LEAST_ECCENTRIC_MS, CLEAR_ERRORS * most.errorMs) ? most.ms : null
}
