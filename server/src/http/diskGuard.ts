import type { RequestHandler } from 'express'
import { statfs } from 'node:fs/promises'
import { diskFull } from './problem.ts'

/** While less than this is free nothing is changed: the database keeps room to go on reading, and to come back. */
const LEAST_FREE_BYTES = 100_000_000
const CHANGING = new Set(['POST', 'PUT', 'PATCH', 'DELETE'])
const LOOK_MS = 1000

/** Free bytes of the disk that holds a folder. */
export async function freeBytesOf(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder)
  return bavail * bsize
}

/**
 * Refuses changes while the disk is full, before the database has to: one that can't write its own log stops altogether,
 * and then nobody can read either. It is looked at once a second at the most.
 */
export function diskGuard(freeBytes: () => Promise<number>, leastBytes = LEAST_FREE_BYTES): RequestHandler {
  let lookedAt = -Infinity
  let free = Promise.resolve(Infinity)
  return async (req, _res, next) => {
    if (CHANGING.has(req.method)) {
      const now = performance.now()
      if (now - lookedAt > LOOK_MS) {
        lookedAt = now
        // A disk that can't be asked is not known to be full.
        free = freeBytes().catch(() => Infinity)
      }
      if ((await free) < leastBytes) throw diskFull()
    }
    next()
  }
}
