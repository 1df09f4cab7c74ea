import type { ArchiveTold, Brought } from '@treadle/contract'
import { eq, inArray } from 'drizzle-orm'
import { rm, writeFile } from 'node:fs/promises'
import { createWriteStream } from 'node:fs'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import pg from 'pg'
import type { Database } from '../db/connect.ts'
import { errorsWithin } from '../db/errors.ts'
import { files } from '../db/schema.ts'
import type { ShopDoing } from '../door/shopChange.ts'
import { inTransaction } from '../door/transaction.ts'
import { digestOf, storeFile } from '../files/store.ts'
import { Refused } from '../http/refusals.ts'
import { writeJournal } from '../journal/write.ts'
import { wholePicture } from '../photos/pictures.ts'
import { readSettings } from '../settings/store.ts'
import { compareRows, type Asked, type Coming } from './compare.ts'
import { LaidBy } from './laidBy.ts'
import { readManifest } from './manifest.ts'
import type { Progress } from './progress.ts'
import { putIn, renumberedIn } from './putIn.ts'
import { requireWhole, type FoundFile } from './wholeFiles.ts'
import { OpenZip, unreadable } from './zip.ts'

/** Whoever takes an archive in holds this; it is gone with its connection. */
const TAKING_IN = 7_262_338
const AT_ONCE = 20

export interface Intake {
  db: Database
  /** of the archive */
  path: string
  /** a folder of this intake alone, for what is read on the way */
  folder: string
  asked: Asked
  progress: Progress
}

/** Reads an archive against this workshop: what would come in. Nothing is written. */
export async function lookAtArchive(intake: Intake): Promise<ArchiveTold> {
  return withRead(intake, async ({ told, coming }) => {
    told.renumbered = await renumberedIn(intake.db, coming)
    return told
  })
}

/**
 * Takes an archive in. Its files are kept first, one by one, shown by nothing; then `change` opens the transaction in which
 * all rows go in and the files are shown. Whatever breaks it off before, nothing of it stands.
 *
 * @throws Refused an archive that was changed, cut, is too large, of a newer Treadle, or whose rows are not what they must be
 */
export async function takeArchiveIn(
  intake: Intake,
  change: (work: (doing: ShopDoing) => Promise<void>) => Promise<void>,
): Promise<ArchiveTold> {
  const { db, progress } = intake
  return alone(db, () =>
    withRead(intake, async ({ zip, told, coming, laidBy, found }) => {
      const staged = [...coming.files]
      try {
        await stageFiles(intake, zip, staged, found)
        await change(async (doing) => {
          told.renumbered = []
          const { tx, person, at, write } = doing
          const brought: Brought = {
            ...{ from: told.workshop, writtenOn: told.at.slice(0, 10) },
            ...{ at: at.toISOString(), by: person.who },
          }
          await putIn(tx, { laidBy, coming, staged }, brought, told, progress)
          await tellVisits(doing, coming, told)
          await write(null, inWords(told), {
            after: { fresh: told.fresh, taken: told.taken, renumbered: told.renumbered },
          })
          progress.by(0)
        }).catch((error: unknown) => {
          throw doesNotFit(error) ?? error
        })
        return { ...told, kept: true }
      } catch (error) {
        // The server may be without its database by now; whoever takes in the next archive clears what is left.
        await clearStaged(db).catch(() => undefined)
        throw error
      }
    }),
  )
}

/** Clears away the files of archives whose taking in was broken off; not while one is taken in. */
export async function clearLeftovers(db: Database): Promise<void> {
  await alone(db, () => Promise.resolve()).catch((error: unknown) => {
    if (!(error instanceof Refused)) throw error
  })
}

interface Reading {
  zip: OpenZip
  told: ArchiveTold
  coming: Coming
  laidBy: LaidBy
  found: Map<string, FoundFile>
}

async function withRead<T>(
  { db, path, folder, asked, progress }: Intake,
  use: (reading: Reading) => Promise<T>,
): Promise<T> {
  const zip = await OpenZip.open(path)
  try {
    const manifest = await readManifest(zip)
    const found = await requireWhole(zip, manifest, folder, progress)
    const told: ArchiveTold = {
      ...{ of: manifest.of, workshop: manifest.workshop, at: manifest.at, kept: false },
      ...{ fresh: [], same: 0, freshFiles: 0, sameFiles: 0, clashes: [], moreClashes: 0, taken: [] },
      ...{ shop: [], leftOut: [], renumbered: [], setAside: 0 },
    }
    const laid = join(folder, 'rows')
    await writeFile(laid, '', { mode: 0o600 })
    const laidBy = new LaidBy(laid)
    const coming = await compareRows(db, zip, { manifest, files: found }, asked, laidBy, told, progress)
    await settleFilesHere(db, coming, found)
    told.freshFiles = coming.files.size
    told.sameFiles = found.size - coming.files.size
    return await use({ zip, told, coming, laidBy, found })
  } finally {
    zip.close()
  }
}

/** Files that are here already need not come; one that is another's here under the same id is refused. */
async function settleFilesHere(db: Database, coming: Coming, found: Map<string, FoundFile>): Promise<void> {
  const ids = [...coming.files]
  for (let i = 0; i < ids.length; i += 5000) {
    const here = await db
      .select({ id: files.id, staged: files.staged })
      .from(files)
      .where(inArray(files.id, ids.slice(i, i + 5000)))
    for (const { id, staged } of here) {
      // Of one that was broken off: it goes before the files of this come.
      if (staged) continue
      if ((await digestOf(db, id)) !== found.get(id)?.sha256)
        throw unreadable(`${found.get(id)?.entry ?? id} is another’s here, under the same name.`)
      coming.files.delete(id)
    }
  }
}

/** Keeps the files that are to come in, each in a change of its own: as a photo that is sent, without its camera's data unless the workshop keeps it. */
async function stageFiles(
  { db, folder, progress }: Intake,
  zip: OpenZip,
  ids: string[],
  found: Map<string, FoundFile>,
): Promise<void> {
  const { keepPhotoData } = await readSettings(db)
  progress.begin(
    'files',
    ids.reduce((sum, id) => sum + (found.get(id)?.size ?? 0), 0),
  )
  for (const id of ids) {
    const file = found.get(id)
    if (!file) throw unreadable(`It lacks the file ${id}.`)
    if (file.kind === 'audio/wav' || keepPhotoData)
      await inTransaction(db, (tx) => storeFile(tx, id, file.kind, zip.read(file.entry), true))
    else {
      const bytes = await withoutCamera(zip, file, join(folder, 'picture'))
      await inTransaction(db, (tx) => storeFile(tx, id, file.kind, bytes, true))
    }
    progress.by(file.size)
  }
}

async function withoutCamera(zip: OpenZip, file: FoundFile, path: string): Promise<Buffer> {
  try {
    await pipeline(zip.read(file.entry), createWriteStream(path, { mode: 0o600 }))
    const picture = await wholePicture(path)
    if (!picture) throw unreadable(`${file.entry} is not what its name says.`)
    return await picture.bare()
  } finally {
    await rm(path, { force: true })
  }
}

/** One archive at a time, over all servers of this database; what one that died has left is cleared away first. */
async function alone<T>(db: Database, work: () => Promise<T>): Promise<T> {
  const client = await db.$client.connect()
  let lost: Error | undefined
  try {
    const { rows } = await client.query<{ mine: boolean }>('select pg_try_advisory_lock($1) as mine', [TAKING_IN])
    if (rows[0]?.mine !== true) throw new Refused('taking-in')
    try {
      await clearStaged(db)
      return await work()
    } finally {
      // With its connection the lock is gone too.
      await client.query('select pg_advisory_unlock($1)', [TAKING_IN]).catch((error: Error) => (lost = error))
    }
  } finally {
    client.release(lost)
  }
}

async function clearStaged(db: Database): Promise<void> {
  for (;;) {
    const some = await db.select({ id: files.id }).from(files).where(eq(files.staged, true)).limit(AT_ONCE)
    if (some.length === 0) return
    await db.delete(files).where(
      inArray(
        files.id,
        some.map((f) => f.id),
      ),
    )
  }
}

/** A visit that stood here already says in its own journal what an archive brought to it. */
async function tellVisits({ tx, person, at }: ShopDoing, { toVisits }: Coming, told: ArchiveTold): Promise<void> {
  for (const [jobId, tables] of toVisits) {
    const what = [...tables].map(([table, rows]) => `${table.replaceAll('_', ' ')} ${rows}`).join(', ')
    const text = `An archive of ${told.workshop || 'another workshop'}, written on ${told.at.slice(0, 10)}, brought to this visit: ${what}.`
    await writeJournal(tx, { jobId, at, ...person, kind: 'archive', text })
  }
}

/** What the database refuses of rows that are each right by themselves. */
function doesNotFit(error: unknown): Error | null {
  for (const e of errorsWithin(error)) {
    if (!(e instanceof pg.DatabaseError)) continue
    if (e.code === '23503') return unreadable('It is not whole: a row points at one that is not in it.', e.detail)
    if (e.code === '23505' || e.code?.startsWith('22'))
      return unreadable('It does not fit what is here.', e.detail ?? e.message)
  }
  return null
}

function inWords({ of, workshop, at, fresh, freshFiles, same, taken, clashes, moreClashes }: ArchiveTold): string {
  const rows = fresh.reduce((n, f) => n + f.rows, 0)
  const what = of === 'clock' ? 'a clock' : 'a workshop'
  return `Brought in ${what} from ${workshop || 'another workshop'}, as of ${at.slice(0, 10)}: ${rows} rows and ${freshFiles} files new, ${same} as they are here, ${taken.length} taken as they are there, ${clashes.length + moreClashes} otherwise and left.`
}
