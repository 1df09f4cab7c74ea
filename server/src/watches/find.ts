import { and, eq } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import { watches } from '../db/schema.ts'
import { Refused } from '../http/refusals.ts'

export async function watchOf(tx: Queries, jobId: string, id: string) {
  const [watch] = await tx
    .select()
    .from(watches)
    .where(and(eq(watches.id, id), eq(watches.jobId, jobId)))
  if (!watch) throw new Refused('no-such-watch-of-clock')
  return watch
}
