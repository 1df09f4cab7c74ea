import type { FileKind } from '@treadle/contract'
import { asc, eq } from 'drizzle-orm'
import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import type { Database, Queries } from '../db/connect.ts'
import { fileChunks, files } from '../db/schema.ts'

const CHUNK_BYTES = 1 << 20

/**
 * Keeps bytes under `id`, a megabyte a row: of a file by its path, in the hand, or as they come.
 *
 * @param staged - nothing shows it yet: what brings it may be broken off
 */
export async function storeFile(
  tx: Queries,
  id: string,
  type: FileKind,
  source: string | Buffer | AsyncIterable<Buffer>,
  staged = false,
): Promise<void> {
  await tx.insert(files).values({ id, type, size: 0, staged })
  let size = 0
  let part = 0
  const keep = async (bytes: Buffer) => {
    await tx.insert(fileChunks).values({ fileId: id, part: part++, bytes })
    size += bytes.length
  }
  if (typeof source === 'string')
    for await (const chunk of createReadStream(source, { highWaterMark: CHUNK_BYTES }) as AsyncIterable<Buffer>)
      await keep(chunk)
  else if (Buffer.isBuffer(source))
    for (let at = 0; at < source.length; at += CHUNK_BYTES) await keep(source.subarray(at, at + CHUNK_BYTES))
  else for await (const chunk of inMegabytes(source)) await keep(chunk)
  await tx.update(files).set({ size }).where(eq(files.id, id))
}

async function* inMegabytes(source: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
  let held: Buffer[] = []
  let size = 0
  for await (const chunk of source) {
    held.push(chunk)
    size += chunk.length
    if (size < CHUNK_BYTES) continue
    yield Buffer.concat(held)
    held = []
    size = 0
  }
  if (size > 0) yield Buffer.concat(held)
}

/** The bytes of a file, chunk by chunk. */
export async function* readFile(queries: Queries, id: string): AsyncGenerator<Buffer> {
  const parts = await queries
    .select({ part: fileChunks.part })
    .from(fileChunks)
    .where(eq(fileChunks.fileId, id))
    .orderBy(asc(fileChunks.part))
  for (const { part } of parts) {
    const chunk = await queries.query.fileChunks.findFirst({
      where: (c, { and: both }) => both(eq(c.fileId, id), eq(c.part, part)),
    })
    if (chunk) yield chunk.bytes
  }
}

/** SHA-256 of a kept file, in hexadecimal digits. */
export async function digestOf(db: Database | Queries, id: string): Promise<string> {
  const hash = createHash('sha256')
  for await (const chunk of readFile(db, id)) hash.update(chunk)
  return hash.digest('hex')
}
