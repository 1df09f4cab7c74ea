import { closeSync, fstatSync, openSync, readSync } from 'node:fs'
import { eachWavBlock, readWavHeader, type WavHeader } from '@treadle/core'

const HEAD_BYTES = 1 << 18
const BLOCK_FRAMES = 32_768

/**
 * Reads a WAV file of any length block by block, in the memory of one block; its header alone where nothing takes them.
 *
 * @throws WavError, or what the file system says
 */
export function readWavFile(
  path: string,
  open: (header: WavHeader) => ((block: Float32Array) => void) | null,
): WavHeader {
  const file = openSync(path, 'r')
  try {
    const { size } = fstatSync(file)
    const head = new Uint8Array(Math.min(HEAD_BYTES, size))
    readSync(file, head, 0, head.length, 0)
    const header = readWavHeader(head, size)
    const take = open(header)
    if (!take) return header
    const frameBytes = (header.channels * header.bits) / 8
    const bytes = new Uint8Array(BLOCK_FRAMES * frameBytes)
    for (let done = 0; done < header.frames; done += BLOCK_FRAMES) {
      const frames = Math.min(BLOCK_FRAMES, header.frames - done)
      readSync(file, bytes, 0, frames * frameBytes, header.dataOffset + done * frameBytes)
      eachWavBlock(bytes, { ...header, dataOffset: 0, frames }, take)
    }
    return header
  } finally {
    closeSync(file)
  }
}
