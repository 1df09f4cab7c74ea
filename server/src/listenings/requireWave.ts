import { readWavHeader, WavError } from '@treadle/core'
import { open } from 'node:fs/promises'
import { Refused } from '../http/refusals.ts'

/** Within so much of a file its sound must begin, whatever words a recorder puts before it. */
export const HEAD_BYTES = 1 << 20

/** A recording is looked at as far as its sound begins: its format, and that there is any. */
export async function requireWave(path: string): Promise<void> {
  const file = await open(path)
  try {
    const start = Buffer.alloc(HEAD_BYTES)
    const { bytesRead } = await file.read(start, 0, HEAD_BYTES, 0)
    const why = whyNoWave(start.subarray(0, bytesRead))
    if (why !== null) throw new Refused('broken-sound', { title: why })
  } finally {
    await file.close()
  }
}

/** Why bytes do not begin a recording, in words; null: they do. */
export function whyNoWave(start: Buffer): string | null {
  try {
    readWavHeader(start)
    return null
  } catch (error) {
    if (!(error instanceof WavError)) throw error
    return error.message
  }
}
