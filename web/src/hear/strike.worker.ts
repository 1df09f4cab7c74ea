import { StrikeEar, strikings, type HeardBlow } from '@treadle/core'

/** A thin shell over the core's ear for strikes: it gathers blows and says how many stand, and when it has been quiet. */

export type ToStrikeWorker =
  { kind: 'open'; sampleRate: number } | { kind: 'block'; samples: Float32Array } | { kind: 'finish' }

export interface StrikesHeard {
  /** strikings so far, the last of them perhaps not over */
  groups: { atS: number; blows: number }[]
  /** s since the last blow; null: none yet */
  quietS: number | null
}

/** It says so again every so often, s. */
const EVERY_S = 0.3

let ear: StrikeEar | null = null
let blows: HeardBlow[] = []
let sampleRate = 1
let seconds = 0
let toldS = 0

self.onmessage = ({ data }: MessageEvent<ToStrikeWorker>) => {
  switch (data.kind) {
    case 'open':
      blows = []
      seconds = 0
      toldS = 0
      sampleRate = data.sampleRate
      ear = new StrikeEar(sampleRate, (blow) => blows.push(blow))
      return
    case 'block':
      ear?.push(data.samples)
      seconds += data.samples.length / sampleRate
      if (seconds - toldS >= EVERY_S) tell()
      return
    case 'finish':
      ear?.end()
      tell()
  }
}

function tell(): void {
  toldS = seconds
  const last = blows.at(-1)
  const heard: StrikesHeard = {
    groups: strikings(blows).map(({ atS, blows: count }) => ({ atS, blows: count })),
    quietS: last ? seconds - last.atS : null,
  }
  self.postMessage(heard)
}
