import { eq } from 'drizzle-orm'
import type { Response } from 'express'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Database } from '../db/connect.ts'
import { files } from '../db/schema.ts'
import { Refused } from '../http/refusals.ts'
import { isKept } from './kinds.ts'
import { readFile } from './store.ts'

/** Whatever a browser makes of a file, it runs nothing and fetches nothing, and is of no origin. */
export const INERT = { 'Content-Security-Policy': "default-src 'none'; sandbox", 'X-Content-Type-Options': 'nosniff' }

/**
 * Sends a kept file; `saveAs` makes the browser keep it under that name. What is none of the kinds that are kept, from
 * before that was looked at, is bytes to be saved and nothing else.
 */
export async function sendFile(db: Database, res: Response, id: string, saveAs?: string): Promise<void> {
  const found = await db.select().from(files).where(eq(files.id, id))
  const file = found[0]
  if (!file) throw new Refused('no-such-file')
  if (saveAs !== undefined || !isKept(file.type)) res.attachment(saveAs ?? file.id)
  res.type(isKept(file.type) ? file.type : 'application/octet-stream').set({
    ...INERT,
    'Content-Length': String(file.size),
    'Cache-Control': 'private, max-age=31536000, immutable',
  })
  await pipeline(Readable.from(readFile(db, id)), res)
}
