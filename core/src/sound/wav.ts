/** What a WAV file says of itself. */
export interface WavHeader {
  sampleRate: number
  channels: 1 | 2
  bits: 8 | 16 | 24 | 32 | 64
  float: boolean
  dataOffset: number
  /** whole frames that are really there */
  frames: number
  /** frames that the header promises and the file lacks */
  framesMissing: number
}

/** A file that is no readable WAV; the message is one plain sentence. */
export class WavError extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'WavError'
  }
}

const PCM = 1
const IEEE_FLOAT = 3
const EXTENSIBLE = 0xfffe
const STREAMED = 0xffffffff

/**
 * Reads the header of a WAV file: PCM of 8, 16, 24 or 32 bits, float of 32 or 64, plain or extensible, one or two
 * channels, 8 to 192 kHz.
 *
 * A data chunk longer than the file is taken as far as it goes (`framesMissing` says by how much); one of length 0 or
 * 2³²−1, as recorders leave when they are switched off, runs to the end of the file.
 *
 * @param length - of the whole file, where `bytes` is only its beginning
 * @throws WavError with the reason
 * @see Multimedia Programming Interface and Data Specifications 1.0 (1991), and WAVEFORMATEXTENSIBLE
 */
export function readWavHeader(bytes: Uint8Array, length = bytes.length): WavHeader {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (bytes.length === 0) throw new WavError('The file is empty.')
  if (bytes.length < 12 || tag(bytes, 0) !== 'RIFF' || tag(bytes, 8) !== 'WAVE')
    throw new WavError('This is not a WAV file: it does not begin with RIFF and WAVE.')
  let format: Omit<WavHeader, 'dataOffset' | 'frames' | 'framesMissing'> | undefined
  let at = 12
  while (at + 8 <= bytes.length) {
    const name = tag(bytes, at)
    const size = view.getUint32(at + 4, true)
    const body = at + 8
    if (name === 'fmt ') format = readFormat(view, body, Math.min(size, bytes.length - body))
    if (name === 'data') {
      if (!format) throw new WavError('The WAV file is broken: its sound comes before its format.')
      return { ...format, ...readExtent(format, body, size, length) }
    }
    at = body + size + (size % 2)
  }
  throw new WavError('The WAV file is broken: it holds no sound.')
}

/**
 * Feeds the sound as mono blocks of −1 to 1 to `take`, `blockFrames` at a time; the block is reused.
 *
 * Two channels are averaged; where they are of opposite sign, so that the average would cancel, their difference is used.
 */
export function eachWavBlock(
  bytes: Uint8Array,
  header: WavHeader,
  take: (block: Float32Array) => void,
  // Small enough to stay in the processor’s nearest memory from one step to the next.
  blockFrames = 2048,
): void {
  const read = sampleReader(bytes, header)
  // What nearly every recording is goes the short way.
  const words = header.channels === 1 && header.bits === 16 ? wordsOf(bytes, header) : null
  const block = new Float32Array(blockFrames)
  const second = header.channels === 2 ? secondSign(read, header) : 0
  for (let start = 0; start < header.frames; start += blockFrames) {
    const count = Math.min(blockFrames, header.frames - start)
    if (words) fromWords(words.subarray(start, start + count), block)
    else if (header.channels === 1) for (let i = 0; i < count; i++) block[i] = read(start + i)
    else for (let i = 0; i < count; i++) block[i] = (read(2 * (start + i)) + second * read(2 * (start + i) + 1)) / 2
    take(count === blockFrames ? block : block.subarray(0, count))
  }
}

/** A 16-bit mono WAV file of samples −1 to 1; louder ones are clipped. */
export function encodeWav(samples: Float32Array, sampleRate: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(44 + 2 * samples.length)
  const view = new DataView(bytes.buffer)
  const text = (at: number, value: string) => {
    for (let i = 0; i < value.length; i++) bytes[at + i] = value.charCodeAt(i)
  }
  text(0, 'RIFF')
  view.setUint32(4, 36 + 2 * samples.length, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, PCM, true)
  view.setUint16(22, 1, true)
  view.setUint32(24, sampleRate, true)
  view.setUint32(28, 2 * sampleRate, true)
  view.setUint16(32, 2, true)
  view.setUint16(34, 16, true)
  text(36, 'data')
  view.setUint32(40, 2 * samples.length, true)
  samples.forEach((sample, i) => {
    const clipped = Math.max(-1, Math.min(1, sample))
    view.setInt16(44 + 2 * i, Math.round(clipped * 32_767), true)
  })
  return bytes
}

function tag(bytes: Uint8Array, at: number): string {
  return String.fromCharCode(...bytes.subarray(at, at + 4))
}

function readFormat(view: DataView, at: number, size: number) {
  if (size < 16) throw new WavError('The WAV file is broken: its format is cut short.')
  let code = view.getUint16(at, true)
  const channels = view.getUint16(at + 2, true)
  const sampleRate = view.getUint32(at + 4, true)
  const bits = view.getUint16(at + 14, true)
  if (code === EXTENSIBLE && size >= 26) code = view.getUint16(at + 24, true)
  const float = code === IEEE_FLOAT
  if (code !== PCM && !float)
    throw new WavError(
      `The WAV file is packed in a way that can't be read here (format ${code}); save it as plain PCM.`,
    )
  if (channels !== 1 && channels !== 2)
    throw new WavError(`The WAV file has ${channels} channels; one or two can be read.`)
  if (sampleRate < 8000 || sampleRate > 192_000)
    throw new WavError(`The WAV file has ${sampleRate} samples a second; 8,000 to 192,000 can be read.`)
  const known = float ? [32, 64] : [8, 16, 24, 32]
  if (!known.includes(bits))
    throw new WavError(`The WAV file has ${bits} bits a sample; ${known.join(', ')} can be read.`)
  const told: 1 | 2 = channels === 1 ? 1 : 2
  return { sampleRate, channels: told, bits: bits as WavHeader['bits'], float }
}

function readExtent(format: { channels: number; bits: number }, body: number, size: number, length: number) {
  const frameBytes = (format.channels * format.bits) / 8
  const there = length - body
  const promised = size === 0 || size === STREAMED ? there : size
  const frames = Math.floor(Math.min(promised, there) / frameBytes)
  if (frames === 0) throw new WavError('The WAV file holds no sound.')
  return { dataOffset: body, frames, framesMissing: Math.max(0, Math.floor(promised / frameBytes) - frames) }
}

/** The samples of 16 bits as they stand, where they are aligned; else of a copy. */
function wordsOf(bytes: Uint8Array, { dataOffset, frames, channels }: WavHeader): Int16Array {
  const from = bytes.byteOffset + dataOffset
  return from % 2 === 0
    ? new Int16Array(bytes.buffer, from, frames * channels)
    : new Int16Array(new Uint8Array(bytes.subarray(dataOffset)).buffer, 0, frames * channels)
}

function fromWords(words: Int16Array, block: Float32Array): void {
  // A division takes several times as long; by a power of two the product is the same to the last digit.
  const unit = 1 / 32_768
  for (let i = 0; i < words.length; i++) block[i] = words[i]! * unit
}

/** A reader of the i-th sample (not frame) as −1 to 1. Typed arrays where the data is aligned: ten minutes are 29 million. */
function sampleReader(bytes: Uint8Array, header: WavHeader): (index: number) => number {
  const from = bytes.byteOffset + header.dataOffset
  const count = header.frames * header.channels
  // A copy made by the constructor: a Buffer’s own slice only looks into the same memory, from where it stood.
  const aligned = (size: number) =>
    from % size === 0 ? bytes.buffer : new Uint8Array(bytes.subarray(header.dataOffset)).buffer
  const start = (size: number) => (from % size === 0 ? from : 0)
  if (header.float) {
    const data =
      header.bits === 32 ? new Float32Array(aligned(4), start(4), count) : new Float64Array(aligned(8), start(8), count)
    return (i) => {
      const value = data[i] ?? 0
      return Number.isFinite(value) ? value : 0
    }
  }
  if (header.bits === 16) {
    const data = wordsOf(bytes, header)
    return (i) => (data[i] ?? 0) / 32_768
  }
  if (header.bits === 32) {
    const data = new Int32Array(aligned(4), start(4), count)
    return (i) => (data[i] ?? 0) / 2_147_483_648
  }
  const data = bytes.subarray(header.dataOffset)
  if (header.bits === 8) return (i) => ((data[i] ?? 128) - 128) / 128
  return (i) => {
    const at = 3 * i
    return (((data[at] ?? 0) << 8) | ((data[at + 1] ?? 0) << 16) | ((data[at + 2] ?? 0) << 24)) / 2_147_483_648
  }
}

function secondSign(read: (i: number) => number, header: WavHeader): 1 | -1 {
  let product = 0
  let squares = 0
  const stride = Math.max(1, Math.floor(header.frames / 200_000))
  for (let i = 0; i < header.frames; i += stride) {
    const left = read(2 * i)
    const right = read(2 * i + 1)
    product += left * right
    squares += left * left + right * right
  }
  return 2 * product < -0.5 * squares ? -1 : 1
}
