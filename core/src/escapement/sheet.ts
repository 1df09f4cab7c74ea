import { FieldError } from '../check/require.ts'
import { unlessRefused } from '../check/unlessRefused.ts'
import { escapementAction, type EscapementAction, type EscapementGeometry } from './action.ts'
import { movedBy, type Moved } from './cure.ts'
import { openedTo, palletOutlines, type DrawnKind } from './shapes.ts'

/** What a sheet of the escapement says, as far as its drawing asks. */
export interface EscapementFacts extends Moved {
  kind: DrawnKind | 'verge' | 'platform' | ''
  teeth: number | null
  tipRadiusMm: number | null
  centreDistanceMm: number | null
  spannedSpaces: number | null
  palletMm: number | null
  /** as measured across the two edges that let go; as drawn for these arbors where not */
  acrossMm: number | null
  liftDeg: number | null
  lockDeg: number | null
  swingDeg: number | null
  palletEntry: EscapementGeometry['palletEntry']
  palletExit: EscapementGeometry['palletExit']
}

/** How far the pallets swing either way where nobody has said, degrees. */
export const USUAL_SWING_DEG = 4

/** The measures a kind is drawn from that are still missing, by their fields. */
export function missingMeasures(facts: EscapementFacts): (keyof EscapementFacts)[] {
  const always = ['teeth', 'tipRadiusMm', 'centreDistanceMm'] as const
  const drawn = ['spannedSpaces', 'palletMm', 'liftDeg'] as const
  const asked: (keyof EscapementFacts)[] =
    facts.kind === 'points'
      ? [...always]
      : facts.kind === 'dead-beat'
        ? [...always, ...drawn, 'lockDeg']
        : [...always, ...drawn]
  return asked.filter((key) => facts[key] === null)
}

/**
 * The escapement of a sheet as it is drawn, before it was set on this visit; null where measures are missing, a refusal
 * where they can’t be drawn.
 */
export function drawnEscapement(facts: EscapementFacts): EscapementGeometry | FieldError | null {
  const { kind, teeth, tipRadiusMm, centreDistanceMm } = facts
  if (kind === '' || kind === 'verge' || kind === 'platform' || missingMeasures(facts).length > 0) return null
  if (teeth === null || tipRadiusMm === null || centreDistanceMm === null) return null
  const wheel = { teeth, tipRadiusMm, centreDistanceMm }
  if (kind === 'points') {
    const { palletEntry, palletExit } = facts
    return palletEntry.length < 2 || palletExit.length < 2 ? null : { ...wheel, palletEntry, palletExit }
  }
  return unlessRefused(() => {
    const pallets = palletOutlines({
      ...wheel,
      kind,
      spannedSpaces: facts.spannedSpaces ?? 0,
      palletMm: facts.palletMm ?? 0,
      liftDeg: facts.liftDeg ?? 0,
      lockDeg: facts.lockDeg ?? 0,
    })
    return { ...wheel, ...(facts.acrossMm === null ? pallets : openedTo({ ...wheel, ...pallets }, facts.acrossMm)) }
  })
}

/** What the escapement of a sheet does as it is set; null where it can’t be told. */
export function actionOfSheet(facts: EscapementFacts, by: Moved = facts): EscapementAction | null {
  const geometry = drawnEscapement(facts)
  if (geometry === null || geometry instanceof FieldError) return null
  const action = unlessRefused(() => escapementAction(movedBy(geometry, by), facts.swingDeg ?? USUAL_SWING_DEG))
  return action instanceof FieldError ? null : action
}

/** The release angle that the drawing gives the beat, to a hundredth of a degree; null where it does not work. */
export function releaseOfSheet(facts: EscapementFacts): number | null {
  const action = actionOfSheet(facts)
  if (action?.verdict !== 'works' || action.releaseHalfDeg === null) return null
  return Math.round(action.releaseHalfDeg * 100) / 100
}

/** The release angle of a clock once its drawing says `now`: the drawing’s, unless a person typed another. */
export function releaseToKeep(kept: number | null, was: number | null, now: number | null): number | null {
  if (now === null) return kept
  return kept === null || (was !== null && Math.abs(kept - was) < 0.006) ? now : kept
}

/** What a tooth so much lower than the others does on the same pallets; null where it can’t be told. */
export function actionOfLowTooth(facts: EscapementFacts, lowerMm: number): EscapementAction | null {
  const geometry = drawnEscapement(facts)
  if (geometry === null || geometry instanceof FieldError) return null
  const low = { ...movedBy(geometry, facts), tipRadiusMm: geometry.tipRadiusMm - lowerMm }
  const action = unlessRefused(() => escapementAction(low, facts.swingDeg ?? USUAL_SWING_DEG))
  return action instanceof FieldError ? null : action
}
