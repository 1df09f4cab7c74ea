import { v7 as uuid } from 'uuid'
import type { Queries } from '../db/connect.ts'
import { journal } from '../db/schema.ts'
import type { Doer } from '../http/person.ts'

type Entry = Doer & {
  at: Date
  kind: string
  text: string
  figures?: Record<string, unknown> | undefined
} & ({ jobId: string } | { about: string; aboutId: string | null })

/** Writes one entry; it stays as it is for good. */
export async function writeJournal(tx: Queries, entry: Entry): Promise<void> {
  await tx.insert(journal).values({ ...entry, id: uuid(), figures: entry.figures ?? {} })
}
