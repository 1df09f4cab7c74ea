import { likelyStrike, type StrikeKind } from '../strike/kinds.ts'
import { addedPoint, oilPoints, type OiledWork, type OilPoint, type OilSideName } from './map.ts'
import type { OilPart } from './plan.ts'

/** What is ticked off of an oil map, and what was added to it. */
export interface OilTicks {
  added: { name: string; part: OilPart; side: OilSideName }[]
  sinks: { key: string; acrossMm: number; depthMm: number }[]
  done: string[]
  left: string[]
}

/** What a job knows of the work whose points are asked for; one train only where the visit is for one. */
export type OilFacts = Omit<OiledWork, 'strike' | 'pendulum'> & {
  work: { strikeWork: 'count-wheel' | 'rack' | null; strike?: { kind: StrikeKind } | undefined }
  pendulum: { beatsPerHour: number | null; lengthMm: number | null }
  scopeTrain: string
}

/** The oil map of a job: what its sheets know, what was added by hand, and the sinks that were measured for it. */
export function oilMapOf(sheet: OilTicks | undefined, facts: OilFacts): OilPoint[] {
  const known = oilPoints({
    ...facts,
    trains: facts.trains.filter((t) => facts.scopeTrain === '' || t.train === facts.scopeTrain),
    strike: facts.work.strike?.kind ?? likelyStrike({ strikeWork: facts.work.strikeWork, trains: facts.trains }),
    pendulum: facts.pendulum.beatsPerHour !== null || facts.pendulum.lengthMm !== null,
  })
  return [...known, ...(sheet?.added ?? []).map(addedPoint)].map((point) => {
    const measured = sheet?.sinks.find((s) => s.key === point.key)
    return measured ? { ...point, sink: { acrossMm: measured.acrossMm, depthMm: measured.depthMm } } : point
  })
}

/** Points of a map that was begun that are neither ticked off nor left out, by name; none while nothing is ticked. */
export function oilOpen(sheet: OilTicks | undefined, facts: OilFacts): string[] {
  if (!sheet || sheet.done.length === 0) return []
  return oilMapOf(sheet, facts)
    .filter((p) => !sheet.done.includes(p.key) && !sheet.left.includes(p.key))
    .map((p) => p.name)
}
