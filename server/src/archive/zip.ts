import { createHash } from 'node:crypto'
import { stat } from 'node:fs/promises'
import type { Readable } from 'node:stream'
import yauzl from 'yauzl'
import { Refused } from '../http/refusals.ts'

/** What an archive may hold, by name. */
const NAMES =
  /^(treadle\.json|schema\.json|about\.txt|tables\/[a-z_]{1,60}\.jsonl|files\/[0-9a-f-]{36}\.(jpg|png|webp|wav)|drawings\/[\w-]{1,80}\.(svg|dxf))$/
const MOST_ENTRIES = 300_000
const MOST_BYTES = 20e9
/** No entry is packed more than so many times smaller than it is; small ones may. */
const MOST_PACKED = 200
const SMALL_BYTES = 2_000_000
const MOST_LINE = 20_000_000

/** An archive that is refused: nothing of it was brought in. */
export function unreadable(title: string, detail?: string): Refused {
  return new Refused('archive', detail === undefined ? { title } : { title, detail })
}

/** A zip, opened and its list of contents looked through; what it holds is read when it is asked for. */
export class OpenZip {
  readonly #zip: yauzl.ZipFile
  readonly #entries: Map<string, yauzl.Entry>

  private constructor(zip: yauzl.ZipFile, entries: Map<string, yauzl.Entry>) {
    this.#zip = zip
    this.#entries = entries
  }

  /** @throws Refused what is no zip, cut short, far too large once unpacked, or holds what no archive holds */
  static async open(path: string): Promise<OpenZip> {
    const { size } = await stat(path)
    const zip = await new Promise<yauzl.ZipFile>((resolve, reject) => {
      yauzl.open(path, { lazyEntries: true, autoClose: false, strictFileNames: true }, (error, opened) => {
        if (error) reject(unreadable('This is no zip file, or it was cut short.', error.message))
        else resolve(opened)
      })
    })
    try {
      return new OpenZip(zip, await listed(zip, size))
    } catch (error) {
      zip.close()
      throw error
    }
  }

  close(): void {
    this.#zip.close()
  }

  has(name: string): boolean {
    return this.#entries.has(name)
  }

  names(): IterableIterator<string> {
    return this.#entries.keys()
  }

  /** How long a thing is once it is unpacked; nothing more of it is ever given. */
  bytesOf(name: string): number {
    return this.#entries.get(name)?.uncompressedSize ?? 0
  }

  /** The bytes of an entry, as they come. */
  async *read(name: string): AsyncGenerator<Buffer> {
    const entry = this.#entries.get(name)
    if (!entry) throw unreadable(`It lacks ${name}.`)
    // Most tables of a clock are empty: there is nothing to unpack.
    if (entry.uncompressedSize === 0) return
    const broken = (error: Error) =>
      unreadable(`${name} can’t be read: the file was changed or cut short.`, error.message)
    const stream = await new Promise<Readable>((resolve, reject) => {
      this.#zip.openReadStream(entry, (error, opened) => {
        if (error) reject(broken(error))
        else resolve(opened)
      })
    })
    const chunks = (stream as AsyncIterable<Buffer>)[Symbol.asyncIterator]()
    try {
      for (;;) {
        const next = await chunks.next().catch((error: unknown) => {
          throw broken(error as Error)
        })
        if (next.done === true) return
        yield next.value
      }
    } finally {
      // Whoever broke off reading is done with it.
      stream.on('error', () => undefined)
      stream.destroy()
    }
  }

  async text(name: string): Promise<string> {
    const parts: Buffer[] = []
    for await (const chunk of this.read(name)) parts.push(chunk)
    return Buffer.concat(parts).toString('utf8')
  }

  /** The lines of an entry that are not empty. */
  async *lines(name: string): AsyncGenerator<string> {
    let rest: Buffer = Buffer.alloc(0)
    for await (const chunk of this.read(name)) {
      rest = rest.length === 0 ? chunk : Buffer.concat([rest, chunk])
      let from = 0
      for (let end = rest.indexOf(10, from); end >= 0; end = rest.indexOf(10, from)) {
        if (end > from) yield rest.toString('utf8', from, end)
        from = end + 1
      }
      rest = rest.subarray(from)
      if (rest.length > MOST_LINE) throw unreadable('It holds a row that is far too long.')
    }
    if (rest.length > 0) yield rest.toString('utf8')
  }
}

/** SHA-256 of bytes as they pass, in hexadecimal digits, and the bytes. */
export function hashed(bytes: AsyncIterable<Buffer>): { bytes: AsyncGenerator<Buffer>; sha256: () => string } {
  const hash = createHash('sha256')
  const passing = async function* () {
    for await (const chunk of bytes) {
      hash.update(chunk)
      yield chunk
    }
  }
  return { bytes: passing(), sha256: () => hash.digest('hex') }
}

function listed(zip: yauzl.ZipFile, fileBytes: number): Promise<Map<string, yauzl.Entry>> {
  return new Promise((resolve, reject) => {
    const entries = new Map<string, yauzl.Entry>()
    let bytes = 0
    let packedBytes = 0
    if (zip.entryCount > MOST_ENTRIES) {
      reject(unreadable('It holds more files than any workshop has.'))
      return
    }
    const refuse = (entry: yauzl.Entry): Refused | null => {
      const { fileName: name, uncompressedSize: size, compressedSize: packed } = entry
      bytes += size
      packedBytes += packed
      if (!NAMES.test(name)) return unreadable(`It holds “${name.slice(0, 80)}”, which is no part of an archive.`)
      if (entries.has(name)) return unreadable(`It holds ${name} twice.`)
      if (entry.isEncrypted()) return unreadable(`${name} is encrypted.`)
      // Two entries that share their bytes: so little would unpack into so much.
      if (packedBytes > fileBytes) return unreadable('Its entries lie over one another.')
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
