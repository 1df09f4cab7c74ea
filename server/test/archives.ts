import { createHash } from 'node:crypto'
import type { Readable } from 'node:stream'
import { buffer } from 'node:stream/consumers'
import yauzl from 'yauzl'
import yazl from 'yazl'
import type { Workshop } from './workshop.ts'

/** What an archive holds, by name. */
export type Entries = Map<string, Buffer>

/** Whatever a workshop gives at an address, byte by byte. */
export async function bytesAt(shop: Workshop, path: string): Promise<Buffer> {
  const answer = await shop.request
    .get(path)
    .buffer(true)
    .parse(binary as never)
    .expect(200)
  return answer.body as Buffer
}

function binary(res: Readable, done: (error: Error | null, body: Buffer) => void): void {
  const parts: Buffer[] = []
  res.on('data', (chunk: Buffer) => parts.push(chunk))
  res.on('end', () => done(null, Buffer.concat(parts)))
}

export const bring = (shop: Workshop, zip: Buffer, query = '') =>
  shop.request.post(`/api/archive${query}`).set('Content-Type', 'application/zip').send(zip)

/** Every entry of a zip, by its name. */
export async function contents(zip: Buffer): Promise<Entries> {
  const opened = await new Promise<yauzl.ZipFile>((resolve, reject) =>
    yauzl.fromBuffer(zip, { lazyEntries: true }, (error, z) => (error ? reject(error) : resolve(z))),
  )
  const all: Entries = new Map()
  await new Promise<void>((resolve, reject) => {
    opened.on('entry', (entry: yauzl.Entry) => {
      opened.openReadStream(entry, (error, stream) => {
        if (error) return reject(error)
        void buffer(stream).then((bytes) => {
          all.set(entry.fileName, bytes)
          opened.readEntry()
        }, reject)
      })
    })
    opened.on('end', () => resolve())
    opened.readEntry()
  })
  return all
}

/** A zip of these entries, as somebody else might make one. */
export async function zipped(entries: Entries | [string, Buffer][]): Promise<Buffer> {
  const zip = new yazl.ZipFile()
  for (const [name, bytes] of entries) zip.addBuffer(bytes, name, { compress: bytes.length > 0 })
  zip.end()
  return buffer(zip.outputStream)
}

interface Manifest {
  version: number
  of: string
  entries: { path: string; bytes: number; sha256: string }[]
}

/** A zip of these entries by a careful hand: its list names each of them, with the right digest. */
export async function sealed(entries: Entries, head: object = {}): Promise<Buffer> {
  const all = new Map(entries)
  const manifest = JSON.parse(all.get('treadle.json')!.toString()) as Manifest
  manifest.entries = [...all].flatMap(([path, bytes]) =>
    path === 'treadle.json'
      ? []
      : [{ path, bytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') }],
  )
  all.set('treadle.json', Buffer.from(JSON.stringify({ ...manifest, ...head })))
  return zipped(all)
}

export type Row = Record<string, unknown>

export const rowsOf = (entries: Entries, table: string): Row[] =>
  (entries.get(`tables/${table}.jsonl`)?.toString() ?? '')
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line) as Row)

export const withRows = (entries: Entries, table: string, rows: object[]): Entries =>
  new Map(entries).set(`tables/${table}.jsonl`, Buffer.from(rows.map((row) => `${JSON.stringify(row)}\n`).join('')))
