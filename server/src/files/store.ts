import { asc, eq } from 'drizzle-orm'
import type { Readable } from 'node:stream'
import type { Database, Queries } from '../db/connect.ts'
import { fileChunks, files } from '../db/schema.ts'
import { Refused } from '../http/problem.ts'

const CHUNK_BYTES = 1 << 20

/**
 * Writes a stream of bytes under `id`, a megabyte at a time; refuses one above `mostBytes` or that `checkStart` refuses.
 *
 * Run it inside a transaction: a refusal leaves nothing behind.
 */
export async function storeFile(
  queries: Queries,
  id: string,
  type: string,
  source: Readable | Buffer[],
  { mostBytes, checkStart }: { mostBytes: number; checkStart?: (start: Buffer) => void },
): Promise<number> {
  await queries.insert(files).values({ id, type, size: 0 })
  let held: Buffer[] = []
  let heldBytes = 0
  let size = 0
  let part = 0
  const flush = async () => {
    if (heldBytes === 0) return
    await queries.insert(fileChunks).values({ fileId: id, part: part++, bytes: Buffer.concat(held) })
    held = []
    heldBytes = 0
  }
  for await (const chunk of source as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > mostBytes)
      throw new Refused(413, 'too-large', `That file is larger than ${Math.round(mostBytes / 1e6)} MB.`)
    held.push(chunk)
    heldBytes += chunk.length
    if (part === 0 && checkStart && heldBytes >= 12) {
      checkStart(Buffer.concat(held))
      checkStart = undefined
    }
    if (heldBytes >= CHUNK_BYTES) await flush()
  }
  if (checkStart) checkStart(Buffer.concat(held))
  await flush()
  await queries.update(files).set({ size }).where(eq(files.id, id))
  return size
}

/** The bytes of a file, chunk by chunk. */
export async function* readFile(db: Database, id: string): AsyncGenerator<Buffer> {
  const parts = await db
    .select({ part: fileChunks.part })
    .from(fileChunks)
    .where(eq(fileChunks.fileId, id))
    .orderBy(asc(fileChunks.part))
  for (const { part } of parts) {
    const chunk = await db.query.fileChunks.findFirst({
      where: (c, { and: both }) => both(eq(c.fileId, id), eq(c.part, part)),
    })
    if (chunk) yield chunk.bytes
  }
}
