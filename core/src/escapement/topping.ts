import { FieldError, requirePositive, requireWithin } from '../check/require.ts'

export interface Topping {
  /** the shortest tooth: all are brought down to it, mm */
  toRadiusMm: number
  /** what comes off each tooth, mm */
  takeOffMm: number[]
  /** the most that comes off one, mm */
  mostMm: number
  /** how far the pallets’ arbor must come nearer to have the drop it had, mm; null where their span is not told */
  palletsNearerMm: number | null
}

/**
 * What topping an escape wheel to its shortest tooth takes from each tip, and what it moves the pallets by, mm.
 *
 * Pallets set tangent to a wheel of radius r that span an angle 2a stand r/cos a from its centre, so a wheel smaller by
 * Δ wants them nearer by Δ/cos a; a span of k spaces is 360°·k/N, a half of it.
 *
 * @param tipRadiiMm - each tip from the arbor, mm, in the order of the teeth; 3 to 200, above 0
 * @param spannedSpaces - spaces from one pallet’s tooth to the other’s, above 0 and below half the teeth
 * @throws FieldError for figures that can’t be
 */
export function escapeTopping(tipRadiiMm: number[], spannedSpaces?: number | null): Topping {
  const teeth = tipRadiiMm.length
  if (teeth < 3 || teeth > 200) throw new FieldError('tipRadiiMm', teeth, 'give each of 3 to 200 teeth')
  tipRadiiMm.forEach((mm, i) => requirePositive(`tipRadiiMm[${i}]`, mm))
  const toRadiusMm = Math.min(...tipRadiiMm)
  const takeOffMm = tipRadiiMm.map((mm) => mm - toRadiusMm)
  const mostMm = Math.max(...takeOffMm)
  return { toRadiusMm, takeOffMm, mostMm, palletsNearerMm: nearer(mostMm, teeth, spannedSpaces) }
}

function nearer(byMm: number, teeth: number, spannedSpaces: number | null | undefined): number | null {
  if (spannedSpaces == null) return null
  requireWithin('spannedSpaces', spannedSpaces, 0.5, teeth / 2 - 0.5)
  return byMm / Math.cos((Math.PI * spannedSpaces) / teeth)
}

export interface LeaveSome {
  /** numbers of the teeth, from 1, that are left low */
  left: number[]
  /** what the others are brought down to, mm */
  toRadiusMm: number
  mostMm: number
  palletsNearerMm: number | null
  /** how much lower the lowest of them stays, mm */
  lowerMm: number
}

/**
 * Topping that leaves the lowest tip or two as they are instead of taking all down to them; null where that saves
 * nothing. What such a tooth then drops is asked of the escapement drawn, with a wheel as small as that tooth.
 *
 * @param most - how many may be left low
 */
export function leaveLow(tipRadiiMm: number[], most = 2, spannedSpaces?: number | null): LeaveSome | null {
  const all = escapeTopping(tipRadiiMm, spannedSpaces)
  const order = tipRadiiMm.map((mm, i) => ({ mm, tooth: i + 1 })).sort((a, b) => a.mm - b.mm)
  // Where the step from the low ones to the rest is widest: those below it are the odd ones out.
  let count = 0
  let step = 0
  for (let i = 1; i <= most && i < order.length; i++) {
    const wide = (order[i]?.mm ?? 0) - (order[i - 1]?.mm ?? 0)
    if (wide > step) [count, step] = [i, wide]
  }
  const lowest = order[0]
  const next = order[count]
  if (!lowest || !next || count === 0 || step < all.mostMm / 2) return null
  const mostMm = (order.at(-1)?.mm ?? 0) - next.mm
  return {
    left: order
      .slice(0, count)
      .map((o) => o.tooth)
      .sort((a, b) => a - b),
    toRadiusMm: next.mm,
    mostMm,
    palletsNearerMm: nearer(mostMm, tipRadiiMm.length, spannedSpaces),
    lowerMm: next.mm - lowest.mm,
  }
}
