import { clicksIn, PowerTrack } from '@treadle/core'
import type { FromEar, ToEar } from './messages.ts'

/** A thin shell over the core's ear for single clicks: it says when each came, s from the beginning of the sound. */

export type ClicksHeard = number[]

const HELD_S = 12
const EVERY_S = 0.3
/** What is nearer to an edge of what is held is told by the next stretch, or was by the one before. */
const MARGIN_S = 0.4
const APART_S = 0.15

let track: PowerTrack | null = null
let forgottenS = 0
let toldS = 0
let clicks: ClicksHeard = []
let turn = 0

self.onmessage = ({ data }: MessageEvent<ToEar<null>>) => {
  if (data.kind === 'open') {
    track = new PowerTrack(data.sampleRate)
    turn = data.turn
    forgottenS = 0
    toldS = 0
    clicks = []
  } else if (track) {
    take(track, data.kind === 'block' ? data.samples : new Float32Array(Math.round(data.seconds * track.sampleRate)))
  }
}

function take(to: PowerTrack, samples: Float32Array): void {
  to.push(samples)
  if (forgottenS + to.seconds - toldS < EVERY_S) return
  if (to.seconds > 1.5 * HELD_S) forgottenS += to.keepLast(HELD_S)
  toldS = forgottenS + to.seconds
  const from = forgottenS === 0 ? 0 : MARGIN_S
  const fresh = clicksIn(to.bins, to.binS).filter((s) => s > from && s < to.seconds - MARGIN_S)
  const later = fresh.map((s) => s + forgottenS).filter((s) => s > (clicks.at(-1) ?? -1) + APART_S)
  if (later.length === 0) return
  clicks = [...clicks, ...later]
  self.postMessage({ turn, heard: clicks } satisfies FromEar<ClicksHeard>)
}
