import { PowerTrack } from '../sound/powerTrack.ts'
import { eachWavBlock, readWavHeader, type WavHeader } from '../sound/wav.ts'
import { hear, type Hearing, type ListenOptions, type NothingHeard } from './hearing.ts'

/**
 * What a WAV file says of a clock, with a remark where the file is cut short.
 *
 * @throws WavError when the bytes are no readable WAV
 */
export function hearWav(
  bytes: Uint8Array,
  options: ListenOptions = {},
): { result: Hearing | NothingHeard; remark?: string } {
  const header = readWavHeader(bytes)
  const track = trackFor(header)
  eachWavBlock(bytes, header, (block) => track.push(block))
  return hearTrack(header, track, options)
}

/** Takes a whole recording without growing. */
export function trackFor({ frames, sampleRate }: WavHeader): PowerTrack {
  return new PowerTrack(sampleRate, frames / sampleRate)
}

/** The same of a recording that was read already. */
export function hearTrack(
  header: WavHeader,
  track: PowerTrack,
  options: ListenOptions = {},
): { result: Hearing | NothingHeard; remark?: string } {
  const result = hear(track.bins, track.binS, options)
  if (header.framesMissing === 0) return { result }
  const there = (header.frames / header.sampleRate).toFixed(1)
  const missing = (header.framesMissing / header.sampleRate).toFixed(1)
  return {
    result,
    remark: `The file is cut short: ${there} s of sound are there and were used, ${missing} s are missing.`,
  }
}
