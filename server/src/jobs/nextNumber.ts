import { max, sql } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import { jobs } from '../db/schema.ts'

/** Whoever counts visits holds this until his change is kept or undone, so that no number is ever left out or given twice. */
const COUNTING = 7_262_337

/** The number of the next visit; nobody else counts until this change is kept or undone. */
export async function nextNumber(tx: Queries): Promise<number> {
  await tx.execute(sql`select pg_advisory_xact_lock(${COUNTING})`)
  const [highest] = await tx.select({ number: max(jobs.number) }).from(jobs)
  return (highest?.number ?? 0) + 1
}
