import { and, eq } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import { watches } from '../db/schema.ts'
import { Refused } from '../http/problem.ts'

export async function watchOf(tx: Queries, jobId: string, id: string) {
  const [watch] = await tx
    .select()
    .from(watches)
    .where(and(eq(watches.id, id), eq(watches.jobId, jobId)))
  if (!watch) throw new Refused(404, 'not-found', 'There is no such watch of this clock.')
  return watch
}
