import { DonorChange, type DonorRow } from '@treadle/contract'
import { rankDonors, type DonorWanted } from '@treadle/core'
import { DONOR_KINDS, DONOR_SIDES } from '@treadle/core/choices'
import { and, asc, eq, gt, isNull, or } from 'drizzle-orm'
import type { Router, Request, RequestHandler } from 'express'
import { v7 as uuid, validate } from 'uuid'
import type { Database } from '../db/connect.ts'
import { donors, files, wheelSheets } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { shopChange } from '../door/shopChange.ts'
import type { Receive } from '../files/receive.ts'
import { sendFile } from '../files/send.ts'
import { storeFile } from '../files/store.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId } from '../http/ask.ts'
import { badField } from '../http/problem.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'
import { withPictures } from '../photos/pictures.ts'

const MOST_PHOTO_BYTES = 25_000_000
const MOST_LISTED = 5000

type Kept = typeof donors.$inferSelect

/** The donor ledger: used parts, the ones that fit a part, and their pictures. */
export function donorRoutes(db: Database, receive: Receive, aMinute: RequestHandler): Router {
  return apiRouter()
    .get('/donors', async (_req, res) => {
      const rows = await db
        .select()
        .from(donors)
        .orderBy(asc(donors.kind), asc(donors.count), asc(donors.id))
        .limit(MOST_LISTED)
      res.json(rows.map(shown))
    })
    .get('/donors/fitting', async (req, res) => {
      const wanted = wantedOf(req)
      const taken = req.query.taken === undefined ? undefined : eq(donors.id, idIn(req.query.taken))
      // The index finds the kind and the count; what is not counted may still fit.
      const counted = wanted.count === null ? undefined : or(eq(donors.count, wanted.count), isNull(donors.count))
      const rows = await db
        .select()
        .from(donors)
        // What the asking sheet has taken itself is not there any more, and still shown to it.
        .where(and(eq(donors.kind, wanted.kind), or(gt(donors.there, 0), taken), counted))
      res.json(rankDonors(wanted, rows.map(shown)))
    })
    .put('/donors/:row', async (req, res) => {
      const { id, version, ...row } = await bodyOf(DonorChange, req)
      sameId(idOf(req, 'row'), id)
      const saved = await shopChange(db, req, 'drawers', async ({ tx, write }) => {
        const [before] = await tx.select().from(donors).where(eq(donors.id, id)).for('no key update')
        const done = await saveVersioned(tx, donors, { id, version }, row)
        if (done.state !== 'same')
          await write(id, `${before ? 'Changed' : 'Put in'} the ledger: ${donorTitle(row)}, ${row.there}.`, {
            before,
            after: done.row,
          })
        return { ...done, row: shown(done.row) }
      })
      sendSaved(res, saved)
    })
    .delete('/donors/:row', async (req, res) => {
      const id = idOf(req, 'row')
      await shopChange(db, req, 'drawers', async ({ tx, write }) => {
        const [before] = await tx.select().from(donors).where(eq(donors.id, id)).for('no key update')
        if (!before) return
        const [used] = await tx
          .select({ id: wheelSheets.id })
          .from(wheelSheets)
          .where(eq(wheelSheets.donorId, id))
          .limit(1)
        if (used) throw new Refused('in-a-wheel-sheet')
        await tx.delete(donors).where(eq(donors.id, id))
        if (before.fileId !== null) await tx.delete(files).where(eq(files.id, before.fileId))
        await write(id, `Taken out of the ledger: ${donorTitle(before)}.`, { before })
      })
      res.status(204).end()
    })
    .put('/donors/:row/photo', aMinute, async (req, res) => {
      const id = idOf(req, 'row')
      await receive(req, res, MOST_PHOTO_BYTES, async ({ path }) => {
        await withPictures(path, false, ({ screen }) =>
          shopChange(db, req, 'drawers', async ({ tx, write }) => {
            const [donor] = await tx.select().from(donors).where(eq(donors.id, id)).for('no key update')
            if (!donor) throw new Refused('no-such-donor')
            const fileId = uuid()
            await storeFile(tx, fileId, 'image/webp', screen)
            await tx
              .update(donors)
              .set({ fileId, version: donor.version + 1 })
              .where(eq(donors.id, id))
            if (donor.fileId !== null) await tx.delete(files).where(eq(files.id, donor.fileId))
            await write(id, `Photo of a donor: ${donorTitle(donor)}.`)
          }),
        )
      })
      res.status(200).json({ id })
    })
    .get('/donors/:row/photo', async (req, res) => {
      const [donor] = await db
        .select()
        .from(donors)
        .where(eq(donors.id, idOf(req, 'row')))
      if (!donor?.fileId) throw new Refused('no-picture-of-donor')
      await sendFile(db, res, donor.fileId)
    })
}

/** The id of a donor in the address. */
function idIn(words: unknown): string {
  if (typeof words !== 'string' || !validate(words)) throw badField('taken', 'Taken: it must be a UUID')
  return words
}

function shown({ fileId, ...row }: Kept): DonorRow {
  return { ...row, hasPhoto: fileId !== null }
}

/** "Wheel of 64, module 0.52 mm" */
function donorTitle(d: Pick<DonorChange, 'kind' | 'count' | 'moduleMm' | 'from'>): string {
  return [
    `${d.kind}${d.count === null ? '' : ` of ${d.count}`}`,
    d.moduleMm === null ? '' : `module ${d.moduleMm} mm`,
    d.from === '' ? '' : `out of ${d.from}`,
  ]
    .filter((w) => w !== '')
    .join(', ')
}

/** What is asked for, from the address: kind and figures. */
function wantedOf(req: Request): DonorWanted {
  const words = (name: string) => {
    const value = req.query[name]
    return typeof value === 'string' ? value : ''
  }
  const figure = (name: string, whole = false) => {
    const said = words(name)
    if (said === '') return null
    const value = Number(said)
    if (!Number.isFinite(value) || value <= 0 || value > 10_000 || (whole && !Number.isInteger(value)))
      throw badField(name, `${name}: it must be a ${whole ? 'whole ' : ''}number above 0`)
    return value
  }
  const kind = DONOR_KINDS.find((k) => k === words('kind'))
  if (!kind) throw badField('kind', `Kind: it must be one of ${DONOR_KINDS.join(', ')}`)
  const side = DONOR_SIDES.find((s) => s === words('side'))
  if (side === undefined) throw badField('side', 'Side: it must be front or back')
  return {
    kind,
    side,
    count: figure('count', true),
    moduleMm: figure('moduleMm'),
    boreMm: figure('boreMm'),
    outsideMm: figure('outsideMm'),
    arborMm: figure('arborMm'),
  }
}
