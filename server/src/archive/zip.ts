import { createHash } from 'node:crypto'
import type { Readable } from 'node:stream'
import yauzl from 'yauzl'
import { Refused } from '../http/problem.ts'

/** What an archive may hold, by name. */
const NAMES =
  /^(treadle\.json|schema\.json|about\.txt|tables\/[a-z_]{1,60}\.jsonl|files\/[0-9a-f-]{36}\.(jpg|png|webp|wav)|drawings\/[\w-]{1,80}\.(svg|dxf))$/
const MOST_ENTRIES = 1_000_000
const MOST_BYTES = 40e9
/** No entry is packed more than so many times smaller than it is; small ones may. */
const MOST_PACKED = 200
const SMALL_BYTES = 2_000_000

/** An archive that is refused: nothing of it was brought in. */
export function unreadable(title: string, detail?: string): Refused {
  return new Refused(422, 'archive', title, detail === undefined ? {} : { detail })
}

/** A zip, opened and its list of contents looked through; what it holds is read when it is asked for. */
export class OpenZip {
  readonly #zip: yauzl.ZipFile
  readonly entries: Map<string, yauzl.Entry>

  private constructor(zip: yauzl.ZipFile, entries: Map<string, yauzl.Entry>) {
    this.#zip = zip
    this.entries = entries
  }

  /** @throws Refused what is no zip, cut short, far too large once unpacked, or holds what no archive holds */
  static async open(path: string): Promise<OpenZip> {
    const zip = await new Promise<yauzl.ZipFile>((resolve, reject) => {
      yauzl.open(path, { lazyEntries: true, autoClose: false, strictFileNames: true }, (error, opened) => {
        if (error) reject(unreadable('This is no zip file, or it was cut short.', error.message))
        else resolve(opened)
      })
    })
    try {
      return new OpenZip(zip, await listed(zip))
    } catch (error) {
      zip.close()
      throw error
    }
  }

  close(): void {
    this.#zip.close()
  }

  /** The bytes of an entry, and their digest once they are all read. */
  async read(name: string): Promise<{ bytes: AsyncIterable<Buffer>; sha256: () => string }> {
    const entry = this.entries.get(name)
    if (!entry) throw unreadable(`It lacks ${name}.`)
    const stream = await new Promise<Readable>((resolve, reject) => {
      this.#zip.openReadStream(entry, (error, opened) => {
        if (error) reject(unreadable(`${name} can’t be read: the file was changed or cut short.`, error.message))
        else resolve(opened)
      })
    })
    const hash = createHash('sha256')
    const bytes = async function* (): AsyncGenerator<Buffer> {
      try {
        for await (const chunk of stream as AsyncIterable<Buffer>) {
          hash.update(chunk)
          yield chunk
        }
      } catch (error) {
        if (error instanceof Error && !(error instanceof Refused))
          throw unreadable(`${name} can’t be read: the file was changed or cut short.`, error.message)
        throw error
      }
    }
    return { bytes: bytes(), sha256: () => hash.digest('hex') }
  }
}

function listed(zip: yauzl.ZipFile): Promise<Map<string, yauzl.Entry>> {
  return new Promise((resolve, reject) => {
    const entries = new Map<string, yauzl.Entry>()
    let bytes = 0
    if (zip.entryCount > MOST_ENTRIES) {
      reject(unreadable('It holds more files than any workshop has.'))
      return
    }
    const refuse = (entry: yauzl.Entry): Refused | null => {
      const { fileName: name, uncompressedSize: size, compressedSize: packed } = entry
      bytes += size
      if (!NAMES.test(name)) return unreadable(`It holds “${name.slice(0, 80)}”, which is no part of an archive.`)
      if (entries.has(name)) return unreadable(`It holds ${name} twice.`)
      if (entry.isEncrypted()) return unreadable(`${name} is encrypted.`)
      if (bytes > MOST_BYTES || (size > SMALL_BYTES && size > MOST_PACKED * packed))
        return unreadable('Unpacked it would be far too large.')
      return null
    }
    zip.on('entry', (entry: yauzl.Entry) => {
      const refused = refuse(entry)
      if (refused) {
        reject(refused)
        return
      }
      entries.set(entry.fileName, entry)
      zip.readEntry()
    })
    zip.on('end', () => resolve(entries))
    zip.on('error', (error: Error) => reject(unreadable('This zip file is damaged.', error.message)))
    zip.readEntry()
  })
}
