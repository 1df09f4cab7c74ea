import { number, object, string, type InferType } from 'yup'
import { unreadable, type OpenZip } from './zip.ts'

export const ARCHIVE_FORMAT = 'treadle-archive'
/**
 * Of the format; every version up to this one is read. The first carried with a clock what its rows point at of the shop:
 * people, oils, what the drawers hold. That is left out when one is read.
 */
export const ARCHIVE_VERSION = 2

const MOST_MANIFEST = 64_000_000

const Head = object({
  format: string()
    .oneOf([ARCHIVE_FORMAT] as const)
    .required(),
  version: number().integer().min(1).required(),
  of: string()
    .oneOf(['clock', 'workshop'] as const)
    .required(),
  workshop: string().max(200).defined(),
  at: string()
    .required()
    .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,9})?Z$/),
  treadle: string().max(60).defined(),
})
  .noUnknown()
  .required()

interface Entry {
  path: string
  bytes: number
  /** hexadecimal digits */
  sha256: string
  rows?: number
}

/** What an archive says of itself: what it is of, and the digest of each thing in it. */
export type ArchiveManifest = InferType<typeof Head> & { entries: Entry[] }

/**
 * What an archive says of itself, with an entry for each thing that is in it, and for each one only.
 *
 * @throws Refused what is no archive, of a newer Treadle, or speaks of other things than it holds
 */
export async function readManifest(zip: OpenZip): Promise<ArchiveManifest> {
  if (!zip.has('treadle.json')) throw unreadable('This zip is no Treadle archive: it has no treadle.json.')
  if (zip.bytesOf('treadle.json') > MOST_MANIFEST) throw unreadable('Its treadle.json is far too long.')
  const said = parsed(await zip.text('treadle.json'))
  if (typeof said !== 'object' || said === null) throw unreadable('Its treadle.json is not what it must be.')
  const { entries, ...head } = said as { version?: unknown; entries?: unknown }
  // Of a newer one nobody knows what its fields are.
  if (typeof head.version === 'number' && head.version > ARCHIVE_VERSION)
    throw unreadable('It is of a newer Treadle. Bring this one up to date first.')
  try {
    const checked = Head.validateSync(head, { strict: true })
    return { ...checked, entries: entriesOf(zip, entries) }
  } catch (error) {
    if (error instanceof Error && error.name === 'ValidationError')
      throw unreadable('Its treadle.json is not what it must be.', error.message)
    throw error
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    throw unreadable('Its treadle.json can’t be read.')
  }
}

function entriesOf(zip: OpenZip, said: unknown): Entry[] {
  if (!Array.isArray(said)) throw unreadable('Its treadle.json is not what it must be.', 'It lists nothing.')
  const seen = new Set<string>(['treadle.json'])
  for (const one of said as unknown[]) {
    const { path, sha256 } = (typeof one === 'object' && one !== null ? one : {}) as Partial<Entry>
    if (typeof path !== 'string' || typeof sha256 !== 'string' || !/^[0-9a-f]{64}$/.test(sha256))
      throw unreadable('Its treadle.json is not what it must be.', 'An entry lacks its path or its digest.')
    if (seen.has(path)) throw unreadable(`It speaks of ${path.slice(0, 80)} twice.`)
    if (!zip.has(path)) throw unreadable(`It lacks ${path.slice(0, 80)}.`)
    seen.add(path)
  }
  for (const name of zip.names()) if (!seen.has(name)) throw unreadable(`It holds ${name}, of which it says nothing.`)
  return said as Entry[]
}
