import type { ClockSound, Knock } from './clockSound.ts'
import { random } from './clockSound.ts'

/** What a room is made of; every kind is met about as often. */
type RoomKind = 'quiet' | 'knocks' | 'echo' | 'knocks and echo' | 'second clock' | 'voices'

export interface MadeRoom {
  kind: RoomKind
  clock: ClockSound
  /** count it is meant to make */
  beatsPerHour: number
}

const KINDS: RoomKind[] = ['quiet', 'knocks', 'echo', 'knocks and echo', 'second clock', 'voices']
const COUNTS = [3600, 4800, 5400, 7200, 8400, 9000, 10_800]

/**
 * A clock in a room, from a seed: ticks of two to four knocks whose relative loudness changes by 3 to 6 dB from beat to
 * beat, sides up to 10 dB apart, echoes of 50 to 300 ms, another clock, voices and taps.
 */
export function madeRoom(seed: number, seconds = 30): MadeRoom {
  const u = random(seed * 7919 + 17)
  const between = (low: number, high: number) => low + (high - low) * u()
  const kind = KINDS[seed % KINDS.length]!
  const beatsPerHour = COUNTS[Math.floor(COUNTS.length * u())]!
  const weaker = 10 ** (-between(0, 8) / 20)
  const manyKnocks = kind !== 'quiet' && kind !== 'echo'
  const spreadDb = between(3, 6)
  const lead = between(3, 9)
  const side = (): Knock[] => {
    const knocks: Knock[] = [
      { atMs: -lead * between(0.8, 1.2), levelDb: -between(3, 12), spreadDb, scatterMs: between(0.05, 0.4) },
    ]
    if (u() < 0.7)
      knocks.push({ atMs: between(2.5, 7), levelDb: -between(3, 12), spreadDb, scatterMs: between(0.1, 0.5) })
    if (u() < 0.4)
      knocks.push({ atMs: between(8, 14), levelDb: -between(8, 16), spreadDb, scatterMs: between(0.1, 0.5) })
    return knocks
  }
  const loud = 0.3
  const clock: ClockSound = {
    seconds,
    sampleRate: 32_000,
    beatsPerHour,
    rateSecondsPerDay: between(-120, 120),
    unevenMs: between(-1, 1) * Math.min(90, (0.2 * 3.6e6) / beatsPerHour),
    scatterMs: between(0.05, 0.35),
    loudness: u() < 0.5 ? [loud, loud * weaker] : [loud * weaker, loud],
    colourHz: [between(1500, 4500), between(1500, 4500)],
    ringMs: [between(4, 14), between(4, 14)],
    noise: loud * 10 ** (-between(18, 40) / 20) * 0.5,
    hum: between(0, 0.1),
    seed,
  }
  if (manyKnocks) Object.assign(clock, { ticks: [side(), side()], dropSpreadDb: spreadDb * between(0.5, 1) })
  if (kind === 'echo' || kind === 'knocks and echo') clock.echo = { fallS: between(0.05, 0.3), wet: between(0.15, 0.5) }
  if (kind === 'second clock') {
    const others = COUNTS.filter((count) => Math.abs(count / beatsPerHour - 1) > 0.02)
    const level = between(0.1, 0.7)
    clock.second = {
      beatsPerHour: others[Math.floor(others.length * u())]!,
      rateSecondsPerDay: between(-120, 120),
      unevenMs: between(-15, 15),
      loudness: [loud * level, loud * level * between(0.5, 1)],
      colourHz: [between(1500, 4500), between(1500, 4500)],
      seed: seed + 5000,
    }
  }
  if (kind === 'voices') Object.assign(clock, { voice: Math.round(between(5, 30)), knocks: Math.round(between(2, 20)) })
  return { kind, clock, beatsPerHour }
}
