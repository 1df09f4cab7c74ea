import type { ArchiveTold, Brought } from '@treadle/contract'
import { and, eq, inArray, max, sql, type SQL } from 'drizzle-orm'
import type { PgColumn } from 'drizzle-orm/pg-core'
import type { Queries } from '../db/connect.ts'
import { files, jobs } from '../db/schema.ts'
import { Refused } from '../http/refusals.ts'
import { nextNumber } from '../jobs/nextNumber.ts'
import type { Row } from './checkRow.ts'
import type { Coming } from './compare.ts'
import type { LaidBy, LaidRow } from './laidBy.ts'
import type { Progress } from './progress.ts'
import { carriedBy, parentOf, type Carried, type CarriedName } from './tables.ts'
import { unreadable } from './zip.ts'

const AT_ONCE = 200
/** What says by which archive it was brought. */
const MARKED: ReadonlySet<CarriedName> = new Set<CarriedName>(['gate_overrides', 'journal'])
/** No workshop has had so many visits; and none leaves so many numbers out. */
const MOST_NUMBER = 1_000_000
const MOST_AHEAD = 10_000

/**
 * Puts in what was laid by, all of it or nothing: the caller holds the transaction. What stands here otherwise by now than
 * when it was compared is not written over.
 *
 * @throws Refused where what is here was changed meanwhile, or does not fit
 */
export async function putIn(
  tx: Queries,
  { laidBy, coming, staged }: { laidBy: LaidBy; coming: Coming; staged: string[] },
  brought: Brought,
  told: ArchiveTold,
  progress: Progress,
): Promise<void> {
  const numbers = await numbersFor(tx, coming)
  for (const { id, was, now } of numbers)
    if (was !== now) told.renumbered.push({ clock: coming.numbers.get(id)?.complaint ?? '', was, now })
  const numberOf = new Map(numbers.map((n) => [n.id, n]))
  await showStaged(tx, staged)
  progress.begin('rows', laidBy.count)
  for await (const batch of laidBy.batches(AT_ONCE)) {
    const [first] = batch
    const one = first && carriedBy(first.table)
    if (!first || !one) continue
    if (first.over) await takeOver(tx, one, first)
    else
      await insertRows(
        tx,
        one,
        batch.map(({ row }) => asHere(one, row, numberOf.get(String(row.id)), brought)),
      )
    progress.by(batch.length)
  }
}

/** A row as it stands here: by its own number, and marked where it says what was decided elsewhere. */
function asHere(one: Carried, row: Row, number: Numbered | undefined, brought: Brought): Row {
  if (MARKED.has(one.name)) return { ...row, brought }
  if (one.name !== 'jobs' || !number) return row
  return { ...row, number: number.now, numberElsewhere: number.now === number.was ? null : number.was }
}

interface Numbered {
  id: string
  was: number
  now: number
}

/** What a visit may be numbered here: its own number where that is nobody’s and can be one, else the next. */
async function numbersFor(tx: Queries, { numbers }: Coming): Promise<Numbered[]> {
  if (numbers.size === 0) return []
  const next = await nextNumber(tx)
  const { free } = await freeNumbers(tx, numbers, next)
  let highest = Math.max(next - 1, ...free)
  return [...numbers]
    .sort(([, a], [, b]) => a.number - b.number)
    .map(([id, { number: was }]) => {
      if (free.delete(was)) return { id, was, now: was }
      highest++
      return { id, was, now: highest }
    })
}

/** Visits whose number will be another here, as far as it can be told before they come in. */
export async function renumberedIn(tx: Queries, { numbers }: Coming): Promise<ArchiveTold['renumbered']> {
  if (numbers.size === 0) return []
  const [highest] = await tx.select({ number: max(jobs.number) }).from(jobs)
  const { free } = await freeNumbers(tx, numbers, (highest?.number ?? 0) + 1)
  return [...numbers.values()].flatMap(({ number, complaint }) =>
    free.delete(number) ? [] : [{ clock: complaint, was: number, now: null }],
  )
}

/** Of the numbers that visits come with, those that can be theirs here. */
async function freeNumbers(tx: Queries, numbers: Coming['numbers'], next: number): Promise<{ free: Set<number> }> {
  const most = Math.min(MOST_NUMBER, next === 1 ? MOST_NUMBER : next + MOST_AHEAD)
  const free = new Set([...numbers.values()].map((n) => n.number).filter((n) => n >= 1 && n <= most))
  const asked = [...free]
  for (let i = 0; i < asked.length; i += 5000) {
    const taken = await tx
      .select({ number: jobs.number })
      .from(jobs)
      .where(inArray(jobs.number, asked.slice(i, i + 5000)))
    for (const { number } of taken) free.delete(number)
  }
  return { free }
}

/** Files that were kept for this are shown from now on; all of them are still there. */
async function showStaged(tx: Queries, staged: string[]): Promise<void> {
  for (let i = 0; i < staged.length; i += 5000) {
    const ids = staged.slice(i, i + 5000)
    const shown = await tx
      .update(files)
      .set({ staged: false })
      .where(and(inArray(files.id, ids), eq(files.staged, true)))
      .returning({ id: files.id })
    if (shown.length !== ids.length) throw changedMeanwhile()
  }
}

const changedMeanwhile = () => new Refused('changed-meanwhile')

/** One statement a batch: the database reads the rows’ JSON itself, and tells how many there was place for. */
async function insertRows(tx: Queries, one: Carried, rows: Row[]): Promise<void> {
  const fields = Object.keys(rows[0] ?? {})
  const columns = sql.join(
    fields.map((key) => sql.identifier((one.columns[key] as PgColumn).name)),
    sql`, `,
  )
  const json = JSON.stringify(
    rows.map((row) => Object.fromEntries(fields.map((key) => [(one.columns[key] as PgColumn).name, row[key]]))),
  )
  const from = sql`jsonb_populate_recordset(null::${one.table}, ${json}::jsonb)`
  const done = await tx.execute(
    sql`insert into ${one.table} (${columns}) select ${columns} from ${from} on conflict do nothing`,
  )
  if (done.rowCount !== rows.length)
    throw unreadable(
      'It does not fit what is here.',
      `In ${one.name.replaceAll('_', ' ')} a place of its rows is taken.`,
    )
}

/** The row as the archive has it, as a change of what is here: pages that show it then see that it was changed. */
async function takeOver(tx: Queries, one: Carried, { row, over }: LaidRow): Promise<void> {
  const stays = new Set(['version', 'number', 'numberElsewhere', 'brought', ...one.keys])
  for (const { column, of } of one.refs)
    if (of === 'files' || of === 'owners' || column === parentOf(one)?.column) stays.add(column)
  const version = over?.version ?? null
  const set: Row = version === null ? {} : { version: version + 1 }
  for (const [key, value] of Object.entries(row))
    if (!stays.has(key))
      set[key] = one.columns[key]?.columnType === 'PgTimestamp' && value !== null ? new Date(value as string) : value
  const where: SQL[] = one.keys.map((key) => eq(one.columns[key]!, row[key]))
  if (version !== null) where.push(eq(one.columns.version!, version))
  const done = await tx
    .update(one.table)
    .set(set)
    .where(and(...where))
  if (done.rowCount !== 1) throw changedMeanwhile()
}
