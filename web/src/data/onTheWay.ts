import type { JobPage } from '@treadle/contract'
import { useMutationState } from '@tanstack/react-query'
import { useMemo } from 'react'
import type { Change } from './queries.ts'
import { laidOver } from './withRow.ts'

/**
 * Rows of one kind of a job, as the page has them, with what was said of them and the server has not answered yet: what
 * was pressed shows at once, and goes again where it is refused.
 */
export function useRowsSaid<R extends { id: string; version: number }>(page: JobPage, kind: string, kept: R[]): R[] {
  const place = `/jobs/${page.job.id}/${kind}/`
  const said = useMutationState({
    filters: { status: 'pending', predicate: ({ state }) => isAt(place, state.variables) },
    select: ({ state }) => state.variables as Change,
  })
  return useMemo(() => laidOver(kind, kept, said), [kind, kept, said])
}

function isAt(place: string, change: unknown): boolean {
  return (change as Change | undefined)?.path?.startsWith(place) === true
}
