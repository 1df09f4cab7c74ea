import { hearSwings, PowerTrack, type HeardSwing, type ListenOptions } from '@treadle/core'
import type { FromEar, ToEar } from './messages.ts'

/** A thin shell over the core's ear for swings: it gathers sound and says every release of a case that is leant over. */

export interface SwingsHeard {
  swings: HeardSwing[]
  /** why there are none yet */
  sentence: string
  seconds: number
}

export type SwingsOptions = Pick<ListenOptions, 'beatsPerHour' | 'ticks'>

/** It says so again every so often, s. */
const EVERY_S = 0.8
/** Longer than this nobody rocks a clock; what comes after is not heard. */
const LONGEST_S = 240

let track: PowerTrack | null = null
let options: SwingsOptions = {}
let toldS = 0
let turn = 0

self.onmessage = ({ data }: MessageEvent<ToEar<SwingsOptions>>) => {
  switch (data.kind) {
    case 'open':
      track = new PowerTrack(data.sampleRate)
      options = data.options
      turn = data.turn
      toldS = 0
      return
    case 'lost':
      // It stands as silence, so that what follows keeps its time.
      if (track) take(track, new Float32Array(Math.round(data.seconds * track.sampleRate)))
      return
    case 'block':
      if (track) take(track, data.samples)
  }
}

function take(to: PowerTrack, samples: Float32Array): void {
  if (to.seconds > LONGEST_S) return
  to.push(samples)
  if (to.seconds - toldS < EVERY_S) return
  toldS = to.seconds
  const heard = hearSwings(to.bins, to.binS, options)
  const told: SwingsHeard = Array.isArray(heard)
    ? { swings: heard, sentence: '', seconds: to.seconds }
    : { swings: [], sentence: heard.sentence, seconds: to.seconds }
  self.postMessage({ turn, heard: told } satisfies FromEar<SwingsHeard>)
}
