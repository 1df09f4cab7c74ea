import { StrikeEar, strikings, type HeardBlow } from '../src/index.ts'
import { random } from './clockSound.ts'
import { strikeSound, type StrikeSound } from './strikeSound.ts'

export const STRIKE_RATE = 24_000

/** Bells, gongs and rods striking 1 to 12 over clocks in rooms that echo and knock. */
export function madeStrike(seed: number): { sound: StrikeSound; on: StrikeSound['on']; blows: number; firstS: number } {
  const u = random(seed * 77)
  const on = (['bell', 'gong', 'rods', 'thin bell'] as const)[seed % 4]!
  const blows = 1 + Math.floor(12 * u())
  const gap = 0.9 + 1.4 * u()
  const start = 3 + 3 * u()
  const blowsS = Array.from({ length: blows }, (_, i) => start + i * gap + 0.04 * u())
  const clock = {
    sampleRate: STRIKE_RATE,
    beatsPerHour: [3600, 4800, 7200, 9000][Math.floor(4 * u())]!,
    seconds: start + blows * gap + 4,
    noise: 0.001 + 0.004 * u(),
    knocks: u() < 0.3 ? 6 : 0,
    seed,
    ...(u() < 0.4 && { echo: { fallS: 0.1 + 0.2 * u(), wet: 0.3 } }),
  }
  return { sound: { on, blowsS, loud: 0.1 + 0.4 * u(), clock, seed }, on, blows, firstS: blowsS[0]! }
}

export function hearStrikes(made: StrikeSound) {
  const { samples, sampleRate } = strikeSound(made)
  return groupsIn(samples, sampleRate)
}

export function groupsIn(samples: Float32Array, sampleRate: number) {
  const blows: HeardBlow[] = []
  const ear = new StrikeEar(sampleRate, (blow) => blows.push(blow))
  for (let at = 0, n = 0; at < samples.length; n++) {
    const length = 3000 + ((n * 977) % 9001)
    ear.push(samples.subarray(at, at + length))
    at += length
  }
  ear.end()
  return strikings(blows)
}
