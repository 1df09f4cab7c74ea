import { mean } from 'simple-statistics'
import type { SpringSheetChange, StockRow, Train } from '@treadle/contract'
import { FieldError, lengthFromCoils, unlessRefused, type Barrel, type Strip } from '@treadle/core'

/** What is already known of the clock’s spring, to begin with. */
export function withKnown(blank: SpringSheetChange, { spring }: Train): SpringSheetChange {
  if (!spring) return blank
  const { widthMm, thicknessMm, lengthMm, barrelInsideMm, arborMm } = spring
  return { ...blank, widthMm, middleMm: thicknessMm, lengthMm, barrelInsideMm, arborMm }
}

/** The strips and the barrel of a sheet, as far as they are measured. */
export function stripsOf(s: SpringSheetChange): { old: Strip | null; barrel: Barrel | null; fitted: Strip | null } {
  const thick = [s.innerMm, s.middleMm, s.outerMm].filter((t): t is number => t !== null)
  const thicknessMm = thick.length === 0 ? null : mean(thick)
  const barrel =
    s.barrelInsideMm !== null && s.arborMm !== null ? { barrelInsideMm: s.barrelInsideMm, arborMm: s.arborMm } : null
  const byCoils =
    s.coils !== null && thicknessMm !== null && s.barrelInsideMm !== null
      ? unlessRefused(() => lengthFromCoils(s.coils ?? 0, thicknessMm, s.barrelInsideMm ?? 0))
      : null
  const lengthMm = s.lengthMm ?? (byCoils instanceof FieldError ? null : byCoils)
  const old =
    s.widthMm !== null && thicknessMm !== null && lengthMm !== null
      ? { widthMm: s.widthMm, thicknessMm, lengthMm }
      : null
  const fitted =
    (s.choice === 'stock' || s.choice === 'order') &&
    s.fittedWidthMm !== null &&
    s.fittedThickMm !== null &&
    s.fittedLengthMm !== null
      ? { widthMm: s.fittedWidthMm, thicknessMm: s.fittedThickMm, lengthMm: s.fittedLengthMm }
      : null
  return { old, barrel, fitted }
}

/** The mainsprings of the drawers, as the choice asks for them; the one in hand counts as there. */
export function springsOf(stock: StockRow[], inHand: string | null) {
  return stock.flatMap((s) =>
    s.kind === 'mainspring' && s.widthMm !== null && s.thickMm !== null && s.lengthMm !== null
      ? [
          {
            id: s.id,
            widthMm: s.widthMm,
            thicknessMm: s.thickMm,
            lengthMm: s.lengthMm,
            count: s.count - s.reserved + (s.id === inHand ? 1 : 0),
          },
        ]
      : [],
  )
}
