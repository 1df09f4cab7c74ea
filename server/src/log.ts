import { chmodSync, existsSync, mkdirSync } from 'node:fs'
import { basename, dirname } from 'node:path'
import type { Writable } from 'node:stream'
import { pino, type Logger } from 'pino'
import { createStream } from 'rotating-file-stream'

const MOST_BYTES = '10M'
const KEPT = 4
/** So long after it could not be written the log is tried again. */
const AGAIN_MS = 5000

/** The log of requests: read by its owner only, turned over by size; without a file, on standard error. */
export function openLog(level: string, file?: string): Logger {
  if (file === undefined) {
    const out = pino.destination({ dest: 2 })
    // Whoever read it has gone.
    out.on('error', () => undefined)
    return pino({ level }, out)
  }
  return pino(
    { level },
    lasting(() => {
      mkdirSync(dirname(file), { recursive: true, mode: 0o700 })
      // From before, others could read it.
      if (existsSync(file)) chmodSync(file, 0o600)
      return createStream(basename(file), { path: dirname(file), size: MOST_BYTES, maxFiles: KEPT, mode: 0o600 })
    }),
  )
}

/**
 * Lines to a stream that may fail, as a log's does on a full disk: what can't be written is let go, and after a while the
 * stream is opened anew. The workshop goes on without its log.
 */
export function lasting(
  open: () => Writable,
  { againMs = AGAIN_MS, now = Date.now } = {},
): { write: (line: string) => void } {
  let stream: Writable | null = null
  let notBefore = -Infinity
  const failed = (which: Writable | null) => {
    if (which !== stream) return
    stream = null
    notBefore = now() + againMs
  }
  const opened = (): Writable | null => {
    if (stream || now() < notBefore) return stream
    try {
      const fresh = open()
      fresh.on('error', () => failed(fresh))
      stream = fresh
    } catch {
      failed(null)
    }
    return stream
  }
  return { write: (line) => void opened()?.write(line) }
}
