import fc from 'fast-check'
import { WaveFile } from 'wavefile'
import { expect, test } from 'vitest'
import { eachWavBlock, hear, PowerTrack, readWavHeader } from '@treadle/core'
import { clockSound } from '../../core/test/clockSound.ts'

// The same ten seconds of a clock, written by another library in every kind there is; with other chunks before the
// sound, as recorders and editors leave them; and handed over as the command line, the browser and a pool do.
const made = clockSound({ seconds: 10, sampleRate: 22_050, unevenMs: 12, seed: 4 })
const FULL: Record<string, number> = { '8': 127, '16': 32_767, '24': 8_388_607, '32': 2_147_483_647 }
const files = Object.fromEntries(
  ['8', '16', '24', '32', '32f', '64'].map((depth) => {
    const full = FULL[depth]
    const wav = new WaveFile()
    wav.fromScratch(
      1,
      made.sampleRate,
      depth,
      full === undefined
        ? made.samples
        : Float64Array.from(made.samples, (s) => Math.round(s * full) + (depth === '8' ? 128 : 0)),
    )
    return [depth, wav.toBuffer()]
  }),
)

const NAMES = ['fact', 'LIST', 'note'] as const

interface Chunk {
  name: (typeof NAMES)[number]
  size: number
}

/** The file with these chunks before its sound, its format told in 18 bytes or in 16. */
function rewritten(file: Uint8Array, longFormat: boolean, chunks: Chunk[]): Uint8Array {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength)
  const pieces: Buffer[] = []
  for (let at = 12; at + 8 <= file.length;) {
    const size = view.getUint32(at + 4, true)
    const name = Buffer.from(file.subarray(at, at + 4)).toString('latin1')
    const body = Buffer.from(file.subarray(at + 8, at + 8 + size))
    if (name === 'fmt ') {
      const format = body.subarray(0, 16)
      pieces.push(chunk('fmt ', longFormat ? Buffer.concat([format, Buffer.alloc(2)]) : format))
      for (const c of chunks) pieces.push(chunk(c.name, Buffer.alloc(c.size, 0x55)))
    }
    if (name === 'data') pieces.push(chunk('data', body))
    at += 8 + size + (size % 2)
  }
  const whole = Buffer.concat(pieces)
  const head = Buffer.alloc(12)
  head.write('RIFF', 0, 'latin1')
  head.writeUInt32LE(4 + whole.length, 4)
  head.write('WAVE', 8, 'latin1')
  return Buffer.concat([head, whole])
}

function chunk(name: string, body: Buffer): Buffer {
  const head = Buffer.alloc(8)
  head.write(name, 0, 'latin1')
  head.writeUInt32LE(body.length, 4)
  return Buffer.concat([head, body, Buffer.alloc(body.length % 2)])
}

/** The same bytes as a reader may be given them. */
const handed = {
  'an array of its own': (bytes: Uint8Array) => new Uint8Array(bytes),
  'a Buffer': (bytes: Uint8Array) => Buffer.from(bytes),
  'a Buffer at an odd place of a larger one': (bytes: Uint8Array) =>
    Buffer.concat([Buffer.alloc(3), bytes, Buffer.alloc(5)]).subarray(3, 3 + bytes.length),
  'an array at an offset': (bytes: Uint8Array) => {
    const wide = new Uint8Array(bytes.length + 7)
    wide.set(bytes, 5)
    return wide.subarray(5, 5 + bytes.length)
  },
}

function beatsOf(bytes: Uint8Array): { outOfBeatMs: number; beatsPerHour: number; heard: number } {
  const header = readWavHeader(bytes)
  const track = new PowerTrack(header.sampleRate)
  eachWavBlock(bytes, header, (block) => track.push(block))
  const result = hear(track.bins, track.binS, {})
  if (!result.heard) throw new Error(result.sentence)
  return { outOfBeatMs: result.outOfBeatMs, beatsPerHour: result.beatsPerHour, heard: result.beatsHeard }
}

test('one sound gives the same beats in every kind of file, whatever stands before it and however it is handed over', () => {
  const plain = beatsOf(files['16']!)
  // What the clock really did: the made sound shares no code with the reader.
  expect(Math.abs(plain.outOfBeatMs - 12)).toBeLessThan(0.3)
  fc.assert(
    fc.property(
      fc.constantFrom(...Object.keys(files)),
      fc.boolean(),
      fc.array(fc.record({ name: fc.constantFrom(...NAMES), size: fc.integer({ min: 0, max: 40 }) }), { maxLength: 3 }),
      fc.constantFrom(...Object.keys(handed)),
      (depth, longFormat, chunks, how) => {
        const bytes = handed[how as keyof typeof handed](rewritten(files[depth]!, longFormat, chunks))
        const got = beatsOf(bytes)
        expect(got.heard).toBe(plain.heard)
        expect(got.beatsPerHour).toBeCloseTo(plain.beatsPerHour, 1)
        // Eight bits are a coarse recording: their own noise moves a beat by some hundredths.
        expect(Math.abs(got.outOfBeatMs - plain.outOfBeatMs)).toBeLessThan(depth === '8' ? 0.1 : 0.01)
      },
    ),
    { numRuns: 60, seed: 7 },
  )
})
