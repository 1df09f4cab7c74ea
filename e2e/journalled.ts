import { TABLES } from '../scripts/lib/archive.mjs'
import type { Workshop } from './workshop.ts'

/**
 * Tables whose rows come and go without a line in the journal: the journal itself, marks of what a person has seen, the
 * bytes of files, whose photo or listening has the line, and the minutes of a watch, whose beginning and end have theirs.
 */
const WITHOUT_LINE = ['journal', 'files', 'file_chunks', 'now_marks', 'watch_minutes']
/**
 * Of these only some changes want a line: the calendar's secret is made when it is first looked for, a sound follows the
 * row that it is of, and a watch's rate follows its minutes.
 */
const SOME: Record<string, string> = {
  calendar_keys: 'update or delete',
  listenings: 'insert or delete',
  watch_marks: 'insert or delete',
  watches: 'insert or delete or update of ended_at, temperatures',
}

/** From now on the database itself notes each transaction that changes a row, and each that writes a journal line. */
export async function noteChanges(shop: Workshop): Promise<void> {
  const tables = TABLES.filter((table) => !WITHOUT_LINE.includes(table))
  const when = (table: string) => SOME[table] ?? 'insert or update or delete'
  await shop.sql(
    [
      'create table noted (tx xid8, of text)',
      `create function note_change() returns trigger language plpgsql security definer as
         'begin insert into noted values (pg_current_xact_id(), tg_table_name); return null; end'`,
      ...[...tables, 'journal'].map(
        (table) => `create trigger noted after ${when(table)} on ${table} for each row execute function note_change()`,
      ),
    ].join(';'),
  )
}

/** The tables of which a row was changed without a line in the journal. */
export async function changedInSilence(shop: Workshop): Promise<string[]> {
  const rows = await shop.sql<{ of: string }>(
    "select distinct of from noted n where not exists (select 1 from noted j where j.tx = n.tx and j.of = 'journal')",
  )
  return rows.map((row) => row.of).sort()
}
