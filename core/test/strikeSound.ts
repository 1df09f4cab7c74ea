import { clockSound, normal, random, type ClockSound } from './clockSound.ts'

/** A strike over a ticking clock, made for tests alone; it shares nothing with what hears it. */
export interface StrikeSound {
  clock?: ClockSound
  on: 'bell' | 'gong' | 'rods' | 'thin bell'
  /** when each blow falls, s */
  blowsS: number[]
  /** amplitude of a blow at its peak */
  loud?: number
  /** the note of each blow as a ratio of the first's; all 1 when not said */
  notes?: number[]
  seed?: number
}

interface Partial {
  hz: number
  /** to a third of its amplitude, s */
  decayS: number
  level: number
  /** a second mode so much beside it, as in every bell that is not quite round, Hz */
  beside: number
}

function partialsOf(on: StrikeSound['on'], u: () => number): Partial[] {
  const between = (low: number, high: number) => low + (high - low) * u()
  const ground = {
    bell: between(700, 1500),
    'thin bell': between(1500, 2600),
    gong: between(180, 330),
    rods: between(260, 520),
  }[on]
  const ratios = {
    bell: [1, 2.02, 2.41, 3.02, 4.13],
    'thin bell': [1, 1.6, 2.3],
    gong: [1, 1.57, 2.11, 2.76, 3.6, 4.4, 5.3, 6.9],
    rods: [1, 2.71, 5.15, 8.4],
  }[on]
  const longest = {
    bell: between(0.5, 1.6),
    'thin bell': between(0.35, 0.9),
    gong: between(0.9, 2.6),
    rods: between(0.7, 2),
  }[on]
  return ratios.map((ratio, i) => ({
    hz: ground * ratio * between(0.99, 1.01),
    decayS: longest / (1 + 0.55 * i),
    level: 0.8 ** i * between(0.5, 1),
    beside: u() < 0.6 ? between(0.4, 4) : 0,
  }))
}

export function strikeSound(made: StrikeSound) {
  const uniform = random((made.seed ?? 1) * 131 + 7)
  const gauss = normal(uniform)
  const seconds = made.clock?.seconds ?? (made.blowsS.at(-1) ?? 0) + 8
  const sound = clockSound({ sampleRate: 32_000, seconds, loudness: [0.12, 0.1], noise: 0.002, ...made.clock })
  const { samples, sampleRate } = sound
  const partials = partialsOf(made.on, uniform)
  made.blowsS.forEach((at, n) => {
    const loud = (made.loud ?? 0.35) * (1 + 0.12 * gauss())
    const note = made.notes?.[n] ?? 1
    for (const { hz, decayS, level, beside } of partials)
      for (const tone of beside === 0 ? [hz * note] : [hz * note, hz * note + beside]) {
        if (tone > 0.45 * sampleRate) continue
        ring(samples, sampleRate, at, (loud * level) / (beside === 0 ? 1 : 2), tone, decayS, 6.28 * uniform())
      }
    // The hammer's own knock.
    for (let i = 0; i < 0.02 * sampleRate; i++) {
      const k = Math.round(at * sampleRate) + i
      if (k < samples.length) samples[k]! += 0.5 * loud * (2 * uniform() - 1) * Math.exp(-i / (0.004 * sampleRate))
    }
  })
  return sound
}

function ring(
  out: Float32Array,
  fs: number,
  atS: number,
  loud: number,
  hz: number,
  decayS: number,
  phase: number,
): void {
  const from = Math.ceil(atS * fs)
  const until = Math.min(out.length, from + Math.round(6 * decayS * fs))
  for (let i = from; i < until; i++) {
    const t = i / fs - atS
    out[i]! += loud * (1 - Math.exp(-t / 0.0006)) * Math.exp(-t / decayS) * Math.sin(2 * Math.PI * hz * t + phase)
  }
}
