import { eq } from 'drizzle-orm'
import type { Response } from 'express'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Database } from '../db/connect.ts'
import { files } from '../db/schema.ts'
import { Refused } from '../http/problem.ts'
import { readFile } from './store.ts'

/** Sends a kept file; `saveAs` makes the browser keep it under that name. */
export async function sendFile(db: Database, res: Response, id: string, saveAs?: string): Promise<void> {
  const found = await db.select().from(files).where(eq(files.id, id))
  const file = found[0]
  if (!file) throw new Refused(404, 'not-found', 'There is no such file.')
  res.type(file.type).set({
    'Content-Length': String(file.size),
    'Cache-Control': 'private, max-age=31536000, immutable',
    'X-Content-Type-Options': 'nosniff',
  })
  if (saveAs !== undefined) res.attachment(saveAs)
  await pipeline(Readable.from(readFile(db, id)), res)
}
