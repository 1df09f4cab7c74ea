import { WaveFile } from 'wavefile'
import { describe, expect, test } from 'vitest'
import { eachWavBlock, encodeWav, readWavHeader, WavError } from '../src/index.ts'

const samples = Float32Array.from({ length: 500 }, (_, i) => 0.8 * Math.sin(i / 9))

const ascii = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0))

function decode(bytes: Uint8Array): Float32Array {
  const header = readWavHeader(bytes)
  const out = new Float32Array(header.frames)
  let at = 0
  eachWavBlock(
    bytes,
    header,
    (block) => {
      out.set(block, at)
      at += block.length
    },
    77,
  )
  return out
}

/** A file written by another library. */
function foreign(depth: string, channels: 1 | 2, rate = 44_100): Uint8Array {
  const wav = new WaveFile()
  const full = { '8': 127, '16': 32_767, '24': 8_388_607, '32': 2_147_483_647, '32f': 1, '64': 1 }[depth]!
  const one = Array.from(samples, (s) =>
    depth === '8' ? Math.round(s * full) + 128 : depth === '32f' || depth === '64' ? s : Math.round(s * full),
  )
  wav.fromScratch(channels, rate, depth, channels === 1 ? one : [one, one])
  return wav.toBuffer()
}

describe('files of every usual kind', () => {
  const kinds: [string, 1 | 2, number][] = [
    ['8', 1, 0.02],
    ['16', 1, 1e-4],
    ['24', 1, 1e-6],
    ['32', 1, 1e-6],
    ['32f', 1, 1e-6],
    ['64', 1, 1e-6],
    ['16', 2, 1e-4],
    ['24', 2, 1e-6],
  ]
  test.each(kinds)('%s bits, %d channels', (depth, channels, tolerance) => {
    const read = decode(foreign(depth, channels))
    expect(read.length).toBe(samples.length)
    read.forEach((value, i) => expect(Math.abs(value - samples[i]!)).toBeLessThan(tolerance))
  })

  test('extensible format', () => {
    const plain = foreign('16', 1)
    const bytes = new Uint8Array(plain.length + 24)
    bytes.set(plain.subarray(0, 36))
    bytes.set(plain.subarray(36), 60)
    const view = new DataView(bytes.buffer)
    view.setUint32(16, 40, true)
    view.setUint16(20, 0xfffe, true)
    view.setUint16(36, 22, true)
    view.setUint16(38, 16, true)
    view.setUint16(44, 1, true)
    expect(Math.abs(decode(bytes)[100]! - samples[100]!)).toBeLessThan(1e-4)
  })

  test('a chunk before the sound, of odd length, is stepped over', () => {
    const plain = foreign('16', 1)
    const bytes = new Uint8Array(plain.length + 12)
    bytes.set(plain.subarray(0, 36))
    bytes.set(ascii('note'), 36)
    new DataView(bytes.buffer).setUint32(40, 3, true)
    bytes.set(plain.subarray(36), 48)
    expect(decode(bytes).length).toBe(samples.length)
  })

  test('at an odd offset in its buffer', () => {
    const plain = foreign('16', 1)
    const shifted = new Uint8Array(plain.length + 1)
    shifted.set(plain, 1)
    expect(Math.abs(decode(shifted.subarray(1))[9]! - samples[9]!)).toBeLessThan(1e-4)
  })

  test('two channels of opposite sign do not cancel', () => {
    const wav = new WaveFile()
    const one = Array.from(samples, (s) => Math.round(s * 32_767))
    wav.fromScratch(2, 44_100, '16', [one, one.map((v) => -v)])
    expect(Math.abs(decode(wav.toBuffer())[100]! - samples[100]!)).toBeLessThan(1e-3)
  })

  test('a length left open by a recorder runs to the end', () => {
    const bytes = foreign('16', 1)
    new DataView(bytes.buffer, bytes.byteOffset).setUint32(40, 0xffffffff, true)
    expect(readWavHeader(bytes)).toMatchObject({ frames: samples.length, framesMissing: 0 })
  })
})

test('what is written is read back, and by others too', () => {
  const bytes = encodeWav(samples, 48_000)
  expect(Math.abs(decode(bytes)[42]! - samples[42]!)).toBeLessThan(1e-4)
  const other = new WaveFile(bytes)
  expect(other.fmt).toMatchObject({ sampleRate: 48_000, numChannels: 1, bitsPerSample: 16 })
})

describe('what is no WAV', () => {
  const bad = (change: (view: DataView) => void) => {
    const bytes = foreign('16', 1)
    change(new DataView(bytes.buffer, bytes.byteOffset))
    return bytes
  }
  const cases: [string, Uint8Array, RegExp][] = [
    ['an empty file', new Uint8Array(0), /empty/],
    ['text', ascii('It is only a letter about a clock.'), /not a WAV/],
    ['a header and no sound', foreign('16', 1).slice(0, 36), /no sound/],
    ['another packing', bad((v) => v.setUint16(20, 85, true)), /packed.*format 85/],
    ['six channels', bad((v) => v.setUint16(22, 6, true)), /6 channels/],
    ['4,000 samples a second', bad((v) => v.setUint32(24, 4000, true)), /4000 samples/],
    ['12 bits', bad((v) => v.setUint16(34, 12, true)), /12 bits/],
  ]
  test.each(cases)('%s is refused with the reason', (_name, bytes, reason) => {
    expect(() => readWavHeader(bytes)).toThrow(WavError)
    expect(() => readWavHeader(bytes)).toThrow(reason)
  })
})
