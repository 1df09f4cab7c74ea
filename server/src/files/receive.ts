import { rateLimit } from 'express-rate-limit'
import type { Request, RequestHandler, Response } from 'express'
import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { mkdir, mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { freeBytesOf } from '../http/diskGuard.ts'
import { Refused } from '../http/refusals.ts'

/** What may be sent to be kept, and how. */
export interface UploadLimits {
  /** where it is gathered until it is there whole */
  folder: string
  /** in each so many ms at least so many bytes must come */
  windowMs: number
  leastBytes: number
  /** from one address */
  perMinute: number
  leastFreeBytes: number
}

export const UPLOAD_LIMITS: UploadLimits = {
  folder: tmpdir(),
  windowMs: 10_000,
  leastBytes: 20_000,
  perMinute: 120,
  leastFreeBytes: 300_000_000,
}

interface Received {
  path: string
  size: number
  /** SHA-256, in hexadecimal digits */
  digest: string
}

export type Receive = <T>(
  req: Request,
  res: Response,
  mostBytes: number,
  use: (file: Received) => Promise<T>,
) => Promise<T>

/** Refuses more uploads in a minute than anybody makes by hand. */
export function uploadsAMinute({ perMinute }: UploadLimits): RequestHandler {
  return rateLimit({
    windowMs: 60_000,
    limit: perMinute,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_req, _res, next) => next(new Refused('too-many')),
  })
}

/**
 * Gathers a body in a file, whole, before anything is done with it: whoever sends slowly, or stops, holds nothing but
 * a connection of his own, and that not for long. The file is gone once `use` is done with it.
 */
export function receiver(limits: UploadLimits): Receive {
  return async (req, res, mostBytes, use) => {
    // What is left of a refused body is not read on: the connection is closed behind the answer.
    const refuse = (refused: Refused): never => {
      res.set('Connection', 'close')
      throw refused
    }
    const tooLarge = new Refused('file-too-large', {
      title: `That file is larger than ${Math.round(mostBytes / 1e6)} MB.`,
    })
    if (Number(req.headers['content-length'] ?? 0) > mostBytes) refuse(tooLarge)
    await mkdir(limits.folder, { recursive: true })
    if ((await freeBytesOf(limits.folder)) < limits.leastFreeBytes)
      refuse(
        new Refused('disk-nearly-full', {
          detail: 'Make room on it; all else goes on.',
        }),
      )
    const folder = await mkdtemp(join(limits.folder, 'treadle-upload-'))
    const path = join(folder, 'body')
    try {
      const got = await gather(req, path, { mostBytes, tooLarge }, limits).catch((error: unknown) => {
        if (error instanceof Refused) return refuse(error)
        throw error
      })
      return await use({ path, ...got })
    } finally {
      await rm(folder, { recursive: true, force: true })
    }
  }
}

const tooSlow = () => new Refused('file-too-slow')

function gather(
  req: Request,
  path: string,
  { mostBytes, tooLarge }: { mostBytes: number; tooLarge: Refused },
  { windowMs, leastBytes }: UploadLimits,
): Promise<Omit<Received, 'path'>> {
  return new Promise((resolve, reject) => {
    const hash = createHash('sha256')
    const out = createWriteStream(path, { mode: 0o600 })
    let size = 0
    let before = 0
    const pace = setInterval(() => {
      if (size - before < leastBytes && !req.isPaused()) fail(tooSlow())
      before = size
    }, windowMs)
    const over = () => {
      clearInterval(pace)
      req.off('data', take)
      req.off('end', end)
      req.off('close', dropped)
    }
    const fail = (why: Error) => {
      over()
      req.pause()
      out.destroy()
      reject(why)
    }
    const take = (chunk: Buffer) => {
      size += chunk.length
      if (size > mostBytes) {
        fail(tooLarge)
        return
      }
      hash.update(chunk)
      if (out.write(chunk)) return
      req.pause()
      out.once('drain', () => req.resume())
    }
    const end = () => {
      over()
      // Only what is on the disk whole has come: a disk that is full says so at the last write.
      out.once('finish', () => resolve({ size, digest: hash.digest('hex') }))
      out.end()
    }
    const dropped = () => {
      if (!req.complete) fail(new Refused('dropped'))
    }
    out.on('error', fail)
    req.on('data', take)
    req.on('end', end)
    req.on('close', dropped)
  })
}
