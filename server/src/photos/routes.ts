import { eq, getTableColumns } from 'drizzle-orm'
import type { Router, RequestHandler } from 'express'
import { v7 as uuid } from 'uuid'
import type { Database, Queries } from '../db/connect.ts'
import { photos } from '../db/schema.ts'
import { stale } from '../db/versioned.ts'
import { jobChange } from '../door/jobChange.ts'
import type { Receive } from '../files/receive.ts'
import { sendFile } from '../files/send.ts'
import { digestOf, storeFile } from '../files/store.ts'
import { idOf, oneLineOf } from '../http/ask.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'
import { findOpenJob } from '../jobs/find.ts'
import { readSettings } from '../settings/store.ts'
import { withPictures } from './pictures.ts'

const MOST_PHOTO_BYTES = 25_000_000

export function photoRoutes(db: Database, receive: Receive, aMinute: RequestHandler): Router {
  return apiRouter()
    .put('/jobs/:id/photos/:photo', aMinute, async (req, res) => {
      const jobId = idOf(req)
      const sent = { id: idOf(req, 'photo'), caption: oneLineOf(req.query.caption, 200) }
      await findOpenJob(db, jobId)
      const made = await receive(req, res, MOST_PHOTO_BYTES, async ({ path, digest }) => {
        if (await isThere(db, jobId, sent, digest)) return false
        const { keepPhotoData } = await readSettings(db)
        return withPictures(path, keepPhotoData, ({ kind, width, height, original, screen, thumb }) =>
          jobChange(db, req, jobId, { kind: 'photo' }, async ({ tx, job, person, at, write }) => {
            // Sent twice at once, it came in while this one was worked on.
            if (await isThere(tx, jobId, sent, digest)) return false
            const [originalId, screenId, thumbId] = [uuid(), uuid(), uuid()]
            await storeFile(tx, originalId, kind, original)
            await storeFile(tx, screenId, 'image/webp', screen)
            await storeFile(tx, thumbId, 'image/webp', thumb)
            const kept = { ...sent, jobId: job.id, width, height, takenAt: at, digest, ...person }
            await tx.insert(photos).values({ ...kept, originalId, screenId, thumbId })
            await write(`Photo${sent.caption === '' ? '' : `: ${sent.caption}`}.`, { photo: sent.id })
            return true
          }),
        )
      })
      res.status(made ? 201 : 200).json({ id: sent.id })
    })
    .get('/photos/:photo/:size', async (req, res) => {
      const found = await db
        .select()
        .from(photos)
        .where(eq(photos.id, idOf(req, 'photo')))
      const { size } = req.params
      const photo = found[0]
      const file = photo && {
        original: photo.originalId,
        screen: photo.screenId,
        thumb: photo.thumbId ?? photo.screenId,
      }
      if (!file || (size !== 'screen' && size !== 'original' && size !== 'thumb')) throw new Refused('no-such-photo')
      await sendFile(db, res, file[size])
    })
}

/** Whether just this photo is kept already; refuses one that has the id of another. */
async function isThere(
  queries: Queries,
  jobId: string,
  sent: { id: string; caption: string },
  digest: string,
): Promise<boolean> {
  const { screenId: _s, thumbId: _t, ...columns } = getTableColumns(photos)
  const [there] = await queries.select(columns).from(photos).where(eq(photos.id, sent.id))
  if (!there) return false
  const { originalId, digest: kept, ...shown } = there
  // Photos from before were kept as they were sent.
  const same = (kept ?? (await digestOf(queries, originalId))) === digest
  if (same && there.jobId === jobId && there.caption === sent.caption) return true
  throw stale(shown, 'Another photo has this id already.')
}
