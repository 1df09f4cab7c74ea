import { normal, random } from './clockSound.ts'

/** A long time of one clock, made minute by minute for tests alone; it shares nothing with what watches it. */
export interface WatchSound {
  seconds: number
  sampleRate?: number
  beatsPerHour?: number
  /** s/day at the start, and by how much it changes in an hour */
  rateSecondsPerDay?: number
  driftPerHour?: number
  unevenMs?: number
  scatterMs?: number
  noise?: number
  wobble?: { periodS: number; ms: number }
  /** from here on it does not tick any more */
  stopsAtS?: number
  /** the recorder gives nothing from, to */
  silent?: [number, number][]
  /** the clock can't be heard from, to, though the room can */
  unheard?: [number, number][]
  /** when a strike begins, and its blows, 1.5 s apart */
  strikes?: { atS: number; blows: number }[]
  seed?: number
}

/** Gives the sound in blocks of one second; what it returns are the true times of the ticks. */
export function watchSound(made: WatchSound, take: (block: Float32Array) => void): number[] {
  const fs = made.sampleRate ?? 16_000
  const uniform = random((made.seed ?? 1) * 97 + 3)
  const gauss = normal(uniform)
  const nominalS = 3600 / (made.beatsPerHour ?? 7200)
  const drops: { atS: number; side: number }[] = []
  let lateS = 0.3
  for (let n = 0; lateS < made.seconds; n++) {
    const rate = (made.rateSecondsPerDay ?? 0) + ((made.driftPerHour ?? 0) * lateS) / 3600
    lateS += nominalS / (1 + rate / 86_400)
    const off =
      (n % 2 === 0 ? 0 : (made.unevenMs ?? 4) / 1000) +
      ((made.scatterMs ?? 0.2) / 1000) * gauss() +
      (made.wobble ? (made.wobble.ms / 1000) * Math.sin((2 * Math.PI * lateS) / made.wobble.periodS) : 0)
    const atS = lateS + off
    const outside = (made.unheard ?? []).every(([from, to]) => atS < from || atS > to)
    if (outside && atS < (made.stopsAtS ?? Infinity)) drops.push({ atS, side: n % 2 })
  }
  const hiss = Float32Array.from({ length: 1 << 16 }, () => (made.noise ?? 0.003) * gauss())
  let next = 0
  for (let second = 0; second < made.seconds; second++) {
    const block = new Float32Array(fs)
    const from = Math.floor(uniform() * (hiss.length - fs))
    block.set(hiss.subarray(from, from + fs))
    while (next > 0 && (drops[next - 1]?.atS ?? -1) > second - 0.1) next--
    for (let i = next; i < drops.length && drops[i]!.atS < second + 1; i++) {
      const { atS, side } = drops[i]!
      tick(block, fs, atS - second - 0.006, 0.06, side)
      tick(block, fs, atS - second, side === 0 ? 0.3 : 0.2, side)
      if (atS < second + 0.9) next = i + 1
    }
    for (const strike of made.strikes ?? [])
      for (let k = 0; k < strike.blows; k++) bell(block, fs, strike.atS + 1.5 * k - second)
    for (const [a, b] of made.silent ?? [])
      block.fill(
        0,
        Math.max(0, Math.min(fs, Math.round((a - second) * fs))),
        Math.max(0, Math.min(fs, Math.round((b - second) * fs))),
      )
    take(block)
  }
  return drops.map((d) => d.atS)
}

function tick(block: Float32Array, fs: number, atS: number, loud: number, side: number): void {
  const tones = side === 0 ? [2900, 4600] : [2200, 3800]
  const from = Math.max(0, Math.ceil(atS * fs))
  const until = Math.min(block.length, Math.ceil((atS + 0.04) * fs))
  for (let i = from; i < until; i++) {
    const t = i / fs - atS
    const rise = 1 - Math.exp(-t / 0.00015)
    block[i]! +=
      loud * rise * Math.exp(-t / 0.006) * (Math.cos(6.2832 * tones[0]! * t) + 0.5 * Math.cos(6.2832 * tones[1]! * t))
  }
}

function bell(block: Float32Array, fs: number, atS: number): void {
  const from = Math.max(0, Math.ceil(atS * fs))
  const until = Math.min(block.length, Math.ceil((atS + 3) * fs))
  for (let i = from; i < until; i++) {
    const t = i / fs - atS
    const rise = 1 - Math.exp(-t / 0.0006)
    let value = 0
    for (const [hz, decay, level] of [
      [620, 0.9, 0.4],
      [1262, 0.5, 0.3],
      [1510, 0.4, 0.25],
      [2580, 0.25, 0.2],
    ] as const)
      value += level * Math.exp(-t / decay) * Math.sin(6.2832 * hz * t)
    block[i]! += 0.5 * rise * value
  }
}
