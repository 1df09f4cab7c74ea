import { eq } from 'drizzle-orm'
import { Router, type Request } from 'express'
import { fileTypeFromBuffer } from 'file-type'
import sharp from 'sharp'
import { v7 as uuid } from 'uuid'
import type { Database } from '../db/connect.ts'
import { photos } from '../db/schema.ts'
import { sendFile } from '../files/send.ts'
import { storeFile } from '../files/store.ts'
import { idOf, whoOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { Refused } from '../http/problem.ts'
import { openJob } from '../jobs/find.ts'
import { writeJournal } from '../journal/write.ts'

const MOST_PHOTO_BYTES = 25_000_000
const SCREEN_PIXELS = 1600
const THUMB_PIXELS = 320
const KINDS = new Set(['image/jpeg', 'image/png', 'image/webp'])

export function photoRoutes(db: Database): Router {
  return Router()
    .put('/jobs/:id/photos/:photo', async (req, res) => {
      const job = await openJob(db, idOf(req))
      const id = idOf(req, 'photo')
      const known = await db.select({ id: photos.id }).from(photos).where(eq(photos.id, id))
      if (known[0]) {
        req.resume()
        res.json({ id })
        return
      }
      const original = await bytesOf(req)
      const kind = await fileTypeFromBuffer(original)
      if (!kind || !KINDS.has(kind.mime))
        throw new Refused(415, 'not-photo', 'A photo must be a JPEG, PNG or WebP picture; this is none of them.')
      const screen = await forTheScreen(original)
      const thumb = await smaller(screen.data)
      const caption = typeof req.query.caption === 'string' ? req.query.caption.slice(0, 200) : ''
      await db.transaction(async (tx) => {
        const originalId = uuid()
        const screenId = uuid()
        const thumbId = uuid()
        await storeFile(tx, originalId, kind.mime, [original], { mostBytes: MOST_PHOTO_BYTES })
        await storeFile(tx, screenId, 'image/webp', [screen.data], { mostBytes: MOST_PHOTO_BYTES })
        await storeFile(tx, thumbId, 'image/webp', [thumb], { mostBytes: MOST_PHOTO_BYTES })
        const made = await tx
          .insert(photos)
          .values({
            id,
            jobId: job.id,
            caption,
            width: screen.info.width,
            height: screen.info.height,
            takenAt: nowOf(req),
            originalId,
            screenId,
            thumbId,
          })
          .onConflictDoNothing()
          .returning()
        if (made[0])
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who: whoOf(req),
            kind: 'photo',
            text: `Photo${caption === '' ? '' : `: ${caption}`}.`,
            figures: { photo: id },
          })
      })
      res.status(201).json({ id })
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
      if (!file || (size !== 'screen' && size !== 'original' && size !== 'thumb'))
        throw new Refused(404, 'not-found', 'There is no such photo.')
      await sendFile(db, res, file[size])
    })
}

async function bytesOf(req: Request): Promise<Buffer> {
  const held: Buffer[] = []
  let size = 0
  for await (const chunk of req as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > MOST_PHOTO_BYTES)
      throw new Refused(413, 'too-large', `A photo may be ${MOST_PHOTO_BYTES / 1e6} MB at most.`)
    held.push(chunk)
  }
  return Buffer.concat(held)
}

async function forTheScreen(original: Buffer) {
  try {
    // rotate() without an angle turns it upright as its camera noted; no metadata is carried over, so no place either.
    return await sharp(original, { limitInputPixels: 80_000_000 })
      .rotate()
      .resize(SCREEN_PIXELS, SCREEN_PIXELS, { fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 82 })
      .toBuffer({ resolveWithObject: true })
  } catch {
    throw new Refused(415, 'not-photo', 'That picture is broken and can’t be read.')
  }
}

async function smaller(screen: Buffer): Promise<Buffer> {
  return sharp(screen).resize(THUMB_PIXELS, THUMB_PIXELS, { fit: 'inside', withoutEnlargement: true }).webp().toBuffer()
}
