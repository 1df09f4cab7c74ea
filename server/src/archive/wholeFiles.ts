import type { FileKind } from '@treadle/contract'
import { createWriteStream } from 'node:fs'
import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { ENDINGS } from '../files/kinds.ts'
import { HEAD_BYTES, whyNoWave } from '../listenings/requireWave.ts'
import { wholePicture } from '../photos/pictures.ts'
import type { ArchiveManifest } from './manifest.ts'
import type { Progress } from './progress.ts'
import { hashed, unreadable, type OpenZip } from './zip.ts'

/** No picture or sound that we keep is larger. */
const MOST_FILE_BYTES = 100_000_000

/** A picture or a sound in an archive, decoded and found to be what its bytes say. */
export interface FoundFile {
  entry: string
  kind: FileKind
  size: number
  sha256: string
}

/**
 * Reads every entry once to its end: it is as it was written, and each picture and sound is one. Gives those by their ids.
 *
 * @throws Refused naming the entry that was changed, or is not what its name says
 */
export async function requireWhole(
  zip: OpenZip,
  { entries }: ArchiveManifest,
  folder: string,
  progress: Progress,
): Promise<Map<string, FoundFile>> {
  const found = new Map<string, FoundFile>()
  progress.begin(
    'read',
    entries.reduce((sum, e) => sum + zip.bytesOf(e.path), 0),
  )
  for (const { path: entry, sha256: said } of entries) {
    const size = zip.bytesOf(entry)
    const { bytes, sha256 } = hashed(counted(zip.read(entry), progress))
    const isFile = entry.startsWith('files/')
    if (isFile && size > MOST_FILE_BYTES) throw unreadable(`${entry} is larger than any picture or sound that is kept.`)
    const kind = isFile ? await decoded(bytes, join(folder, 'one'), entry) : await headOf(bytes).then(() => null)
    if (sha256() !== said) throw unreadable(`${entry} was changed after it was written.`)
    if (kind !== null)
      found.set(entry.slice('files/'.length, entry.lastIndexOf('.')), { entry, kind, size, sha256: said })
  }
  return found
}

async function* counted(bytes: AsyncIterable<Buffer>, progress: Progress): AsyncGenerator<Buffer> {
  for await (const chunk of bytes) {
    progress.by(chunk.length)
    yield chunk
  }
}

/** Reads to the end, and gives how it began. */
async function headOf(bytes: AsyncIterable<Buffer>): Promise<Buffer> {
  const head: Buffer[] = []
  let held = 0
  for await (const chunk of bytes) {
    if (held < HEAD_BYTES) head.push(chunk)
    held += chunk.length
  }
  return Buffer.concat(head).subarray(0, HEAD_BYTES)
}

/** Looks at a file by itself, as at one that is sent: its kind is what its bytes say. */
async function decoded(bytes: AsyncIterable<Buffer>, path: string, entry: string): Promise<FileKind> {
  const otherwise = () => unreadable(`${entry} is not what its name says.`)
  if (entry.endsWith(`.${ENDINGS['audio/wav']}`)) {
    if (whyNoWave(await headOf(bytes)) !== null) throw otherwise()
    return 'audio/wav'
  }
  try {
    await pipeline(bytes, createWriteStream(path, { mode: 0o600 }))
    const picture = await wholePicture(path)
    if (!picture || !entry.endsWith(`.${ENDINGS[picture.kind]}`)) throw otherwise()
    return picture.kind
  } finally {
    await rm(path, { force: true })
  }
}
