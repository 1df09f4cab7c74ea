import { hear, PowerTrack, type Hearing, type ListenOptions, type NothingHeard } from '../src/index.ts'
import { clockSound, type ClockSound, type MadeSound } from './clockSound.ts'

export function listen(sound: MadeSound, options: ListenOptions = {}): Hearing | NothingHeard {
  const track = new PowerTrack(sound.sampleRate)
  // In uneven blocks, as a microphone gives them.
  for (let at = 0, n = 0; at < sound.samples.length; n++) {
    const length = 700 + ((n * 577) % 4001)
    track.push(sound.samples.subarray(at, at + length))
    at += length
  }
  return hear(track.bins, track.binS, options)
}

export function heard(clock: ClockSound, options: ListenOptions = {}): Hearing {
  const result = listen(clockSound(clock), options)
  if (!result.heard) throw new Error(result.sentence)
  return result
}

/** How far off a hearing is: beat in ms, rate in s/day against what the clock really did. */
export function errors(clock: ClockSound, result: Hearing) {
  const beats = (clock.beatsPerHour ?? 7200) * (1 + (clock.rateSecondsPerDay ?? 0) / 86_400)
  return {
    beatMs: Math.abs(result.outOfBeatMs - Math.abs(clock.unevenMs ?? 0)),
    rate: Math.abs(86_400 * (result.beatsPerHour / beats - 1)),
  }
}
