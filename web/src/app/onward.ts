import type { JobPage } from '@treadle/contract'
import { SURFACES, whereOwed } from '../surfaces/index.ts'

/** Where a press leads from a surface that has nothing for the foot: to what is owed to the clock, or the next surface. */
export function onwardFrom(
  { job, clock, owed }: Pick<JobPage, 'job' | 'clock' | 'owed'>,
  path: string,
): { path: string; label: string; hint?: string } | null {
  if (job.closedAt !== null) return null
  const elsewhere = owed.find((o) => whereOwed(o.kind) !== path && o.kind !== 'promise')
  if (elsewhere)
    return { path: whereOwed(elsewhere.kind), label: `Press to go on: ${elsewhere.title}`, hint: elsewhere.why }
  const ofBay = SURFACES.filter((s) => s.bay === job.bay && (s.of?.(clock) ?? true))
  const here = ofBay.findIndex((s) => s.path === path)
  const next = ofBay[here + 1]
  return next && next.path !== path ? { path: next.path, label: `Press to go on: ${next.title}` } : null
}
