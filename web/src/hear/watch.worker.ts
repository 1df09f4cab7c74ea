import { minuteFrom, type WatchMark, type WatchMinuteKept } from '@treadle/contract'
import {
  eachWavBlock,
  encodeWav,
  readWavHeader,
  Watch,
  WavError,
  type WatchMinute,
  type WatchOptions,
} from '@treadle/core'
import { v5 } from 'uuid'

/** A thin shell over the core's watch: it hears minute by minute, marks what is odd, and keeps the sound about that. */

export type ToWatchWorker =
  /** sinceS: how long after the beginning of the watch this listening begins */
  | { kind: 'open'; watchId: string; sampleRate: number; sinceS: number; options: WatchOptions }
  | { kind: 'block'; samples: Float32Array }
  | { kind: 'lost'; seconds: number }
  | { kind: 'finish' }
  | { kind: 'file'; watchId: string; file: File; options: WatchOptions }

export type FromWatchWorker =
  | { kind: 'told'; minutes: WatchMinuteKept[]; marks: WatchMark[]; seconds: number; ofSeconds: number | null }
  | { kind: 'sound'; mark: string; wav: ArrayBuffer }
  | { kind: 'over' }
  | { kind: 'refused'; sentence: string }

/** Sound is held for so long: a silence is known a minute after it began. */
const HELD_S = 110
/** So much of it is kept on either side of what is odd. */
const AROUND_S = 15
/** A minute is odd when it scatters so many times as those before it, and so much. */
const ODD_TIMES = 3
const ODD_MS = 0.6
const REMEMBERED = 20
const HEAD_BYTES = 1 << 18

class Listening {
  readonly #watch: Watch
  readonly #blocks: Int16Array[] = []
  #heldS = 0
  #minutes: WatchMinuteKept[] = []
  #marks: WatchMark[] = []
  readonly #scatters: number[] = []
  readonly #sounded = new Set<string>()
  /** marks as they were told last: what has not changed is not told again */
  readonly #told = new Map<string, string>()

  constructor(
    readonly watchId: string,
    readonly sampleRate: number,
    readonly sinceS: number,
    options: WatchOptions,
    readonly ofSeconds: number | null,
  ) {
    this.#watch = new Watch(sampleRate, options, {
      minute: (row) => this.#minute(row),
      strike: ({ atS, blows, bird }) =>
        this.#mark({ kind: 'strike', fromS: atS, toS: null, blows, bird, note: '' }, null),
    })
  }

  push(samples: Float32Array): void {
    this.#hold(samples)
    this.#watch.push(samples)
    this.#tell()
  }

  lose(seconds: number): void {
    this.#hold(new Float32Array(Math.round(seconds * this.sampleRate)))
    this.#watch.lose(seconds)
    this.#tell()
  }

  end(): void {
    this.#watch.end()
    this.#silences()
    this.#tell()
  }

  #minute(row: WatchMinute): void {
    this.#minutes.push(minuteFrom(row, this.sinceS))
    const usual = [...this.#scatters].sort((a, b) => a - b)[Math.floor(this.#scatters.length / 2)]
    if (row.scatterMs !== null) {
      if (usual !== undefined && this.#scatters.length >= 5 && row.scatterMs > Math.max(ODD_MS, ODD_TIMES * usual))
        this.#mark(
          {
            kind: 'odd',
            fromS: row.fromS,
            toS: row.fromS + row.seconds,
            blows: null,
            bird: false,
            note: `its beats scatter by ${row.scatterMs.toFixed(1)} ms, ${usual.toFixed(1)} before`,
          },
          row.fromS + row.seconds / 2,
        )
      this.#scatters.push(row.scatterMs)
      if (this.#scatters.length > REMEMBERED) this.#scatters.shift()
    }
    this.#silences()
  }

  #silences(): void {
    const { stoppedAtS, gaps } = this.#watch.standing()
    for (const { fromS, toS, why } of gaps)
      this.#mark(
        {
          kind: 'silent',
          fromS,
          toS,
          blows: null,
          bird: false,
          note: why === 'no sound' ? 'no sound came' : 'not heard',
        },
        null,
      )
    if (stoppedAtS !== null)
      this.#mark(
        {
          kind: 'silent',
          fromS: stoppedAtS,
          toS: null,
          blows: null,
          bird: false,
          note: 'the room was heard, the clock not',
        },
        stoppedAtS,
      )
  }

  /** @param soundAtS - half a minute of sound about it is kept; null: none */
  #mark(mark: Omit<WatchMark, 'id'>, soundAtS: number | null): void {
    const fromS = mark.fromS + this.sinceS
    const id = v5(`${mark.kind} ${Math.round(fromS)}`, this.watchId)
    const told = { ...mark, id, fromS, toS: mark.toS === null ? null : mark.toS + this.sinceS }
    if (this.#told.get(id) !== JSON.stringify(told)) {
      this.#told.set(id, JSON.stringify(told))
      this.#marks = [...this.#marks.filter((m) => m.id !== id), told]
    }
    if (soundAtS === null || this.#sounded.has(id)) return
    this.#sounded.add(id)
    const wav = this.#around(soundAtS)
    if (wav) reply({ kind: 'sound', mark: id, wav }, [wav])
  }

  #tell(): void {
    if (this.#minutes.length === 0 && this.#marks.length === 0) return
    reply({
      kind: 'told',
      minutes: this.#minutes,
      marks: this.#marks,
      seconds: this.#watch.seconds,
      ofSeconds: this.ofSeconds,
    })
    this.#minutes = []
    this.#marks = []
  }

  #hold(samples: Float32Array): void {
    this.#blocks.push(Int16Array.from(samples, (v) => Math.max(-1, Math.min(1, v)) * 32_767))
    this.#heldS += samples.length / this.sampleRate
    for (;;) {
      const first = this.#blocks[0]
      if (!first || this.#heldS - first.length / this.sampleRate < HELD_S) return
      this.#heldS -= first.length / this.sampleRate
      this.#blocks.shift()
    }
  }

  #around(atS: number): ArrayBuffer | null {
    const endS = this.#watch.seconds
    const startS = endS - this.#heldS
    const from = Math.max(0, Math.round((atS - AROUND_S - startS) * this.sampleRate))
    const until = Math.round((atS + AROUND_S - startS) * this.sampleRate)
    const out = new Float32Array(Math.max(0, until - from))
    let at = 0
    let filled = 0
    for (const block of this.#blocks) {
      for (let i = Math.max(0, from - at); i < Math.min(block.length, until - at); i++) {
        out[at + i - from] = (block[i] ?? 0) / 32_767
        filled++
      }
      at += block.length
    }
    return filled < this.sampleRate ? null : encodeWav(out.subarray(0, filled), this.sampleRate).buffer
  }
}

let listening: Listening | null = null

function reply(message: FromWatchWorker, handOver: Transferable[] = []): void {
  self.postMessage(message, { transfer: handOver })
}

self.onmessage = ({ data }: MessageEvent<ToWatchWorker>) => {
  const refuse = (error: unknown) =>
    reply({
      kind: 'refused',
      sentence:
        error instanceof WavError
          ? error.message
          : `The watch stopped: ${error instanceof Error ? error.message : 'unknown'}.`,
    })
  try {
    if (data.kind === 'file') readFile(data).catch(refuse)
    else handle(data)
  } catch (error) {
    refuse(error)
  }
}

function handle(message: Exclude<ToWatchWorker, { kind: 'file' }>): void {
  switch (message.kind) {
    case 'open':
      listening = new Listening(message.watchId, message.sampleRate, message.sinceS, message.options, null)
      return
    case 'block':
      listening?.push(message.samples)
      return
    case 'lost':
      listening?.lose(message.seconds)
      return
    case 'finish':
      listening?.end()
      listening = null
      reply({ kind: 'over' })
  }
}

/** A recording of any length, a second at a time from the disk. */
async function readFile({ watchId, file, options }: Extract<ToWatchWorker, { kind: 'file' }>): Promise<void> {
  const header = readWavHeader(new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()), file.size)
  const whole = new Listening(watchId, header.sampleRate, 0, options, header.frames / header.sampleRate)
  const frameBytes = (header.channels * header.bits) / 8
  for (let done = 0; done < header.frames; done += header.sampleRate) {
    const frames = Math.min(header.sampleRate, header.frames - done)
    const from = header.dataOffset + done * frameBytes
    const bytes = new Uint8Array(await file.slice(from, from + frames * frameBytes).arrayBuffer())
    eachWavBlock(bytes, { ...header, dataOffset: 0, frames }, (block) => whole.push(block), header.sampleRate)
  }
  whole.end()
  reply({ kind: 'over' })
}
