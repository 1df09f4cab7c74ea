import { v7 as uuid } from 'uuid'
import type { Queries } from '../db/connect.ts'
import { journal } from '../db/schema.ts'

export interface Entry {
  jobId: string
  at: Date
  who: string
  kind: string
  text: string
  figures?: Record<string, unknown>
  corrects?: string | null
  id?: string
}

/** Writes one entry; it stays as it is for good. A repeated one (same id) is written once. */
export async function writeJournal(queries: Queries, entry: Entry): Promise<void> {
  await queries
    .insert(journal)
    .values({
      id: entry.id ?? uuid(),
      jobId: entry.jobId,
      at: entry.at,
      who: entry.who,
      kind: entry.kind,
      text: entry.text,
      figures: entry.figures ?? {},
      corrects: entry.corrects ?? null,
    })
    .onConflictDoNothing()
}
