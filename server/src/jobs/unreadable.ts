import type { UnreadableChoice } from '@treadle/contract'
import { and, eq } from 'drizzle-orm'
import { clocks, jobs } from '../db/schema.ts'
import { carriedBy, parentOf, type Carried } from '../archive/tables.ts'
import { blankOf, unreadableField } from '../db/readable.ts'
import { holdClock, type JobDoing } from '../door/jobChange.ts'
import { Refused } from '../http/refusals.ts'

type Row = Record<string, unknown>

/**
 * Sees to a row that can’t be read: of the clock and the visit the field is made blank, any other row is taken out. As it was
 * it stands in the journal, so that nothing of it is lost.
 */
export async function setAsideUnreadable(doing: JobDoing, { table, id, field }: UnreadableChoice): Promise<void> {
  const one = carriedBy(table)
  if (!one || table === 'journal') throw new Refused('no-such-row')
  await holdClock(doing)
  const found = (await rowsOf(doing, one)).filter((row) => row.id === undefined || row.id === id)
  const row = found.find((r) => unreadableField(one.name, one.table, r) !== null)
  if (!row) throw new Refused('readable')
  const whole = `${table.replaceAll('_', ' ')}: ${field}`
  if (one.name === 'clocks' || one.name === 'jobs') await makeBlank(doing, one.name, row)
  else await doing.tx.delete(one.table).where(and(...one.keys.map((key) => eq(one.columns[key]!, row[key]))))
  await doing.write(`Could not be read, and is set aside as it was: ${whole}.`, { before: row })
}

async function rowsOf({ tx, job }: JobDoing, one: Carried): Promise<Row[]> {
  if (one.name === 'jobs') return tx.select().from(jobs).where(eq(jobs.id, job.id))
  if (one.name === 'clocks') return tx.select().from(clocks).where(eq(clocks.id, job.clockId))
  const parent = parentOf(one)
  if (parent?.of !== 'jobs' && parent?.of !== 'clocks') return []
  const mine = eq(one.columns[parent.column]!, parent.of === 'jobs' ? job.id : job.clockId)
  return tx.select().from(one.table).where(mine)
}

async function makeBlank({ tx, job }: JobDoing, name: 'clocks' | 'jobs', row: Row): Promise<void> {
  const one = carriedBy(name)
  const fault = one && unreadableField(name, one.table, row)
  const key = fault?.split(/[.[]/)[0]
  if (!one || key === undefined) return
  const version = Number(row.version) + 1
  await tx
    .update(one.table)
    .set({ [key]: blankOf(name, key), version })
    .where(eq(one.columns.id!, name === 'jobs' ? job.id : job.clockId))
}
