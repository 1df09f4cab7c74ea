import type { JobPage } from '@treadle/contract'
import type { QueryClient } from '@tanstack/react-query'
import { withRow } from './withRow.ts'

interface Sent {
  method: string
  path: string
  /** ms */
  sentAt: number
}

/**
 * Puts a row that was kept into its job's page, with what hangs on it; says whether the page is up to date by that.
 *
 * It is not, and must be fetched, where the answer may be older than what the page shows or is about to show: of two
 * changes under way the later may be answered first.
 */
export function keepInPage(client: QueryClient, { method, path, sentAt }: Sent, answer: unknown): boolean {
  const [, place, id = ''] = path.split('/')
  const queryKey = ['job', id]
  const page = client.getQueryState<JobPage>(queryKey)
  if (place !== 'jobs' || method === 'DELETE' || !page?.data) return false
  if (page.fetchStatus !== 'idle' || page.dataUpdatedAt >= sentAt) return false
  const now = withRow(page.data, path, answer)
  if (!now) return false
  client.setQueryData(queryKey, now)
  return true
}
