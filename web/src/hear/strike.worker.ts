import { StrikeEar, strikings, type HeardBlow } from '@treadle/core'
import type { FromEar, ToEar } from './messages.ts'

/** A thin shell over the core's ear for strikes: it gathers blows and says how many stand, and when it has been quiet. */

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
let turn = 0
let seconds = 0
let toldS = 0

self.onmessage = ({ data }: MessageEvent<ToEar<null>>) => {
  switch (data.kind) {
    case 'open':
      blows = []
      seconds = 0
      toldS = 0
      sampleRate = data.sampleRate
      turn = data.turn
      ear = new StrikeEar(sampleRate, (blow) => blows.push(blow))
      return
    case 'lost':
      hear(new Float32Array(Math.round(data.seconds * sampleRate)))
      return
    case 'block':
      hear(data.samples)
  }
}

function hear(samples: Float32Array): void {
  ear?.push(samples)
  seconds += samples.length / sampleRate
  if (seconds - toldS >= EVERY_S) tell()
}

function tell(): void {
  toldS = seconds
  const last = blows.at(-1)
  const heard: StrikesHeard = {
    groups: strikings(blows).map(({ atS, blows: count }) => ({ atS, blows: count })),
    quietS: last ? seconds - last.atS : null,
  }
  self.postMessage({ turn, heard } satisfies FromEar<StrikesHeard>)
}
