/**
 * Sound of a clock, made for tests alone: it shares no code with the analyser or with the practice clock.
 *
 * Beat times are laid down first, from the wanted rate, split and faults; then each release is a burst of damped
 * modes and of noise, after a soft unlocking; then the room is added.
 */
export interface ClockSound {
  sampleRate?: number
  seconds?: number
  beatsPerHour?: number
  /** s/day against beatsPerHour */
  rateSecondsPerDay?: number
  /** half the difference of the two intervals, ms; + when first to second is longer */
  unevenMs?: number
  /** unevenness added at a moment of the recording, ms: a case that is rocked */
  rock?: (atS: number) => number
  scatterMs?: number
  /** amplitude of each side at its peak */
  loudness?: [number, number]
  colourHz?: [number, number]
  ringMs?: [number, number]
  /** amplitude of the unlocking as a share of the drop, and how far before it */
  unlocking?: number
  unlockingMs?: number
  /** white noise, rms */
  noise?: number
  humHz?: number
  hum?: number
  direct?: number
  clipAt?: number
  knocks?: number
  voice?: number
  /** blows of a strike from the middle of the recording on */
  strike?: number
  bent?: { teeth: number; late: Record<number, number> }
  /** lateness that comes back with the turns of a wheel: so many s, half of peak to peak ms */
  wobble?: { periodS: number; ms: number; phase?: number }[]
  /** further knocks of each side's tick about its drop; takes the place of the one unlocking */
  ticks?: [Knock[], Knock[]]
  /** scatter of the drop's own loudness from beat to beat, dB */
  dropSpreadDb?: number
  /** what the room answers: how long till it has fallen by 60 dB, and how loud against the sound itself */
  echo?: { fallS: number; wet: number }
  /** another clock in the room */
  second?: ClockSound
  slips?: { atS: number; ms: number }[]
  seed?: number
}

/** One of the knocks a tick is made of. */
export interface Knock {
  /** after the drop, ms; − before it */
  atMs: number
  /** against the drop, dB */
  levelDb: number
  /** scatter of its loudness from beat to beat, dB */
  spreadDb: number
  /** scatter of its time against the drop, ms */
  scatterMs: number
}

export interface MadeSound {
  samples: Float32Array
  sampleRate: number
  /** true drop times, s */
  dropsS: number[]
}

export function random(seed: number): () => number {
  // mulberry32
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = a
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** Standard normal numbers by Box and Muller, both of each pair. */
export function normal(uniform: () => number): () => number {
  let spare: number | null = null
  return () => {
    if (spare !== null) {
      const value = spare
      spare = null
      return value
    }
    const radius = Math.sqrt(-2 * Math.log(1 - uniform()))
    const angle = 2 * Math.PI * uniform()
    spare = radius * Math.sin(angle)
    return radius * Math.cos(angle)
  }
}

let pool: Float32Array | undefined

/** A quarter of a million normal numbers, drawn once: making them anew for every sample is most of a minute of noise. */
function normals(): Float32Array {
  if (pool) return pool
  const gauss = normal(random(20_261_127))
  pool = Float32Array.from({ length: 1 << 18 }, gauss)
  return pool
}

/** Adds white noise, rms `level`: stretches of drawn numbers, each from a place of its own, so that none comes round. */
function addNoise(samples: Float32Array, level: number, uniform: () => number): void {
  if (level === 0) return
  const drawn = normals()
  const stretch = 1024
  for (let from = 0; from < samples.length; from += stretch) {
    const at = Math.floor(uniform() * (drawn.length - stretch))
    const sign = uniform() < 0.5 ? -level : level
    const until = Math.min(stretch, samples.length - from)
    for (let i = 0; i < until; i++) samples[from + i]! += sign * drawn[at + i]!
  }
}

/** A turning arrow that shrinks: sin(ωt + φ)·e^(−t/τ) at t = t₀, t₀ + 1/fs, …, by one complex product a sample. */
class Ringing {
  #sin: number
  #cos: number
  readonly #turnSin: number
  readonly #turnCos: number

  constructor(hz: number, phase: number, decayS: number, fromS: number, fs: number) {
    const size = Number.isFinite(decayS) ? Math.exp(-fromS / decayS) : 1
    const shrink = Number.isFinite(decayS) ? Math.exp(-1 / (decayS * fs)) : 1
    const angle = 2 * Math.PI * hz * fromS + phase
    const turn = (2 * Math.PI * hz) / fs
    this.#sin = size * Math.sin(angle)
    this.#cos = size * Math.cos(angle)
    this.#turnSin = shrink * Math.sin(turn)
    this.#turnCos = shrink * Math.cos(turn)
  }

  next(): number {
    const value = this.#sin
    this.#sin = value * this.#turnCos + this.#cos * this.#turnSin
    this.#cos = this.#cos * this.#turnCos - value * this.#turnSin
    return value
  }
}

export function clockSound(clock: ClockSound = {}): MadeSound {
  const fs = clock.sampleRate ?? 48_000
  const seconds = clock.seconds ?? 60
  const uniform = random(clock.seed ?? 1)
  const gauss = normal(uniform)
  const samples = new Float32Array(Math.round(fs * seconds))
  const dropsS = dropTimes(clock, seconds, uniform, gauss)
  const [loudA, loudB] = clock.loudness ?? [0.3, 0.25]
  const [hzA, hzB] = clock.colourHz ?? [3100, 2400]
  const [ringA, ringB] = clock.ringMs ?? [9, 12]
  const modes = [hzA, hzB].map((hz) => [1, 1.83, 2.71].map((ratio) => ({ hz: hz * ratio, phase: 6.28 * uniform() })))
  dropsS.forEach((at, n) => {
    const even = n % 2 === 0
    const usual = even ? loudA : loudB
    const loud = usual * (clock.dropSpreadDb === undefined ? 1 + 0.1 * gauss() : decibels(clock.dropSpreadDb * gauss()))
    const hit = { modes: modes[even ? 0 : 1]!, ringS: (even ? ringA : ringB) / 1000 }
    release(samples, fs, at, loud, hit, uniform)
    for (const knock of clock.ticks?.[even ? 0 : 1] ?? []) {
      const level = usual * decibels(knock.levelDb + knock.spreadDb * gauss())
      const knockAt = at + (knock.atMs + knock.scatterMs * gauss()) / 1000
      release(samples, fs, knockAt, level, { ...hit, ringS: 0.6 * hit.ringS }, uniform)
    }
    const soft = clock.ticks ? 0 : (clock.unlocking ?? 0.2)
    if (soft > 0)
      release(samples, fs, at - (clock.unlockingMs ?? 6) / 1000, loud * soft, { ...hit, ringS: 0.002 }, uniform)
  })
  if (clock.second) {
    const other = clockSound({ ...clock.second, sampleRate: fs, seconds, noise: 0 }).samples
    for (let i = 0; i < samples.length; i++) samples[i]! += other[i]!
  }
  if (clock.echo) echo(samples, fs, clock.echo, uniform)
  room(samples, fs, clock, uniform)
  if (clock.clipAt !== undefined)
    for (let i = 0; i < samples.length; i++) samples[i] = Math.max(-clock.clipAt, Math.min(clock.clipAt, samples[i]!))
  return { samples, sampleRate: fs, dropsS }
}

function decibels(level: number): number {
  return 10 ** (level / 20)
}

/** The room's answer: four early reflections, then combs whose echoes fall by 60 dB in `fallS` (Schroeder 1962). */
function echo(samples: Float32Array, fs: number, room: { fallS: number; wet: number }, uniform: () => number): void {
  const dry = samples.slice()
  for (let k = 0; k < 4; k++) {
    const delay = Math.round((0.001 + 0.011 * uniform()) * fs)
    const level = room.wet * (0.3 + 0.7 * uniform()) * (uniform() < 0.5 ? -1 : 1)
    for (let i = delay; i < samples.length; i++) samples[i]! += level * dry[i - delay]!
  }
  for (let k = 0; k < 4; k++) {
    const delayS = 0.013 + 0.022 * uniform()
    const delay = Math.round(delayS * fs)
    const back = 10 ** ((-3 * delayS) / room.fallS)
    const comb = new Float32Array(samples.length)
    for (let i = delay; i < samples.length; i++) {
      comb[i] = dry[i - delay]! + back * comb[i - delay]!
      samples[i]! += 0.35 * room.wet * comb[i]!
    }
  }
}

function dropTimes(clock: ClockSound, seconds: number, uniform: () => number, gauss: () => number): number[] {
  const beatS = 3600 / ((clock.beatsPerHour ?? 7200) * (1 + (clock.rateSecondsPerDay ?? 0) / 86_400))
  const uneven = (clock.unevenMs ?? 0) / 1000
  const start = 0.1 + uniform() * beatS
  const drops: number[] = []
  for (let n = 0; ; n++) {
    const due = start + n * beatS
    let at = due + (n % 2 === 0 ? 0 : uneven + (clock.rock?.(due) ?? 0) / 1000)
    if (at > seconds - 0.1) break
    at += ((clock.scatterMs ?? 0.15) / 1000) * gauss()
    if (clock.bent) at += (clock.bent.late[Math.floor(n / 2) % clock.bent.teeth] ?? 0) / 1000
    for (const { periodS, ms, phase } of clock.wobble ?? [])
      at += (ms / 1000) * Math.sin((2 * Math.PI * n * beatS) / periodS + (phase ?? 0))
    for (const slip of clock.slips ?? []) if (at > slip.atS) at += slip.ms / 1000
    drops.push(at)
  }
  return drops
}

function release(
  samples: Float32Array,
  fs: number,
  atS: number,
  loud: number,
  hit: { modes: { hz: number; phase: number }[]; ringS: number },
  uniform: () => number,
): void {
  const from = Math.max(0, Math.ceil(atS * fs))
  const until = Math.min(samples.length, from + Math.round(6 * hit.ringS * fs))
  const first = from / fs - atS
  const ringing = hit.modes.flatMap((mode, m) =>
    mode.hz < 0.45 * fs
      ? [{ share: 0.6 * 0.7 ** m, ring: new Ringing(mode.hz, mode.phase, hit.ringS / (1 + 0.6 * m), first, fs) }]
      : [],
  )
  let hiss = 0.5 * Math.exp(-first / 0.0015)
  const hissFalls = Math.exp(-1 / (0.0015 * fs))
  let still = Math.exp(-first / 1.2e-4)
  const rises = Math.exp(-1 / (1.2e-4 * fs))
  for (let i = from; i < until; i++) {
    let value = (2 * uniform() - 1) * hiss
    for (const { share, ring } of ringing) value += share * ring.next()
    samples[i]! += loud * (1 - still) * value
    hiss *= hissFalls
    still *= rises
  }
}

function room(samples: Float32Array, fs: number, clock: ClockSound, uniform: () => number): void {
  const seconds = samples.length / fs
  addNoise(samples, clock.noise ?? 0.002, uniform)
  const direct = clock.direct ?? 0
  if (direct !== 0) for (let i = 0; i < samples.length; i++) samples[i]! += direct
  const hum = clock.hum ?? 0
  if (hum !== 0) {
    const humHz = clock.humHz ?? 50
    const [one, three, five] = [
      new Ringing(humHz, 0, Infinity, 0, fs),
      new Ringing(3 * humHz, 0, Infinity, 0, fs),
      new Ringing(5 * humHz, 1, Infinity, 0, fs),
    ]
    for (let i = 0; i < samples.length; i++) samples[i]! += hum * (one.next() + 0.4 * three.next() + 0.2 * five.next())
  }
  for (let k = 0; k < (clock.knocks ?? 0); k++)
    release(
      samples,
      fs,
      uniform() * seconds,
      0.2 + 0.7 * uniform(),
      { modes: [{ hz: 400 + 3000 * uniform(), phase: 0 }], ringS: 0.01 + 0.03 * uniform() },
      uniform,
    )
  for (let k = 0; k < (clock.voice ?? 0); k++) {
    // A syllable: a buzz with formants, swelling and falling.
    const start = uniform() * seconds
    const length = 0.1 + 0.2 * uniform()
    const pitch = 100 + 120 * uniform()
    const formants = [500 + 300 * uniform(), 1200 + 900 * uniform(), 2600]
    const from = Math.floor(start * fs)
    const harmonics = Array.from({ length: 24 }, (_, n) => (n + 1) * pitch).map((hz) => ({
      near: formants.reduce((sum, f) => sum + Math.exp(-(((hz - f) / 200) ** 2)), 0),
      tone: new Ringing(hz, 0, Infinity, from / fs - start, fs),
    }))
    for (let i = from; i < Math.min(samples.length, (start + length) * fs); i++) {
      let value = 0
      for (const { near, tone } of harmonics) value += near * tone.next()
      samples[i]! += 0.05 * Math.sin((Math.PI * (i / fs - start)) / length) * value
    }
  }
  for (let k = 0; k < (clock.strike ?? 0); k++)
    release(
      samples,
      fs,
      seconds * 0.45 + 1.7 * k,
      0.6,
      { modes: [520, 1310, 2790, 4100].map((hz) => ({ hz, phase: 1 })), ringS: 0.6 },
      uniform,
    )
}
