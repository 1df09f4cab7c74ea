import { chmodSync, existsSync, mkdirSync } from 'node:fs'
import { basename, dirname } from 'node:path'
import { pino, type Logger } from 'pino'
import { createStream } from 'rotating-file-stream'

const MOST_BYTES = '10M'
const KEPT = 4

/** The log of requests: read by its owner only, turned over by size; without a file, on standard error. */
export function openLog(level: string, file?: string): Logger {
  if (file === undefined) return pino({ level }, pino.destination({ dest: 2 }))
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 })
  // From before, others could read it.
  if (existsSync(file)) chmodSync(file, 0o600)
  const stream = createStream(basename(file), {
    path: dirname(file),
    size: MOST_BYTES,
    maxFiles: KEPT,
    mode: 0o600,
  })
  return pino({ level }, stream)
}
