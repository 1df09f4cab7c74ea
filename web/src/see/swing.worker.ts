import {
  angleFrom,
  FieldError,
  MarkFollower,
  swingInFilm,
  type FilmSwing,
  type GreyFrame,
  type KnownOfFilm,
} from '@treadle/core'

import { HELD_S } from './held.ts'

/** A thin shell over the core: it holds the last seconds of frames, and says what swings in them. */

export type ToSwingWorker =
  | { kind: 'frame'; frame: GreyFrame; takenMs: number }
  | { kind: 'known'; known: KnownOfFilm }
  /** the bob is led by hand from now on, or let go again */
  | { kind: 'hand'; on: boolean }

export type FromSwingWorker =
  /** `middleMs`: when the middle one of its pictures was taken, by the computer’s clock */
  | { kind: 'told'; swing: FilmSwing; frames: number; seconds: number; framesPerS: number; middleMs: number }
  | { kind: 'untold'; sentence: string; frames: number }
  /** where the bob is led by hand, degrees from the middle of its swing; null: not seen */
  | { kind: 'led'; takenMs: number; deg: number | null }

const MOST_FRAMES = 240
/** It is told anew after so much more film. */
const EVERY_S = 1
const LEAST_S = 1.5

let frames: GreyFrame[] = []
let known: KnownOfFilm = {}
let toldS = -Infinity
let told: FilmSwing | null = null
let hand: MarkFollower | null = null

self.onmessage = ({ data }: MessageEvent<ToSwingWorker>) => {
  switch (data.kind) {
    case 'known':
      known = { ...known, ...data.known }
      toldS = -Infinity
      return
    case 'hand':
      hand = data.on ? followerOf(told) : null
      frames = []
      return
    case 'frame': {
      const { frame } = data
      if (hand && told) {
        const seen = hand.next(frame)
        const deg = seen && angleFrom(told.suspension, seen) - told.middleDeg
        reply({ kind: 'led', takenMs: data.takenMs, deg })
        return
      }
      if (frame.atS <= (frames.at(-1)?.atS ?? -Infinity)) frames = []
      frames.push(frame)
      frames = frames.filter((f) => f.atS > frame.atS - HELD_S).slice(-MOST_FRAMES)
      const seconds = frame.atS - (frames[0]?.atS ?? frame.atS)
      if (seconds < LEAST_S || frame.atS - toldS < EVERY_S) return
      toldS = frame.atS
      tell(seconds, data.takenMs - 500 * seconds)
    }
  }
}

const reply = (message: FromSwingWorker) => self.postMessage(message)

/** Follows the bob on from where it was seen last. */
function followerOf(swing: FilmSwing | null): MarkFollower | null {
  const last = swing?.path.findLast((p) => p !== null)
  const frame = last && frames.find((f) => f.atS === last.atS)
  return swing && last && frame ? new MarkFollower(frame, last, swing.halfPx) : null
}

function tell(seconds: number, middleMs: number): void {
  // A tap older than what is held can't be followed from any more; the place it led to can.
  try {
    const swing = swingInFilm(frames, known)
    told = swing
    const last = swing.path.findLast((p) => p !== null)
    if (known.mark && last) known = { ...known, mark: { ...known.mark, x: last.x, y: last.y, atS: last.atS } }
    const count = frames.length
    reply({ kind: 'told', swing, frames: count, seconds, framesPerS: (count - 1) / seconds, middleMs })
  } catch (error) {
    const sentence = error instanceof FieldError ? error.allowed : 'the picture could not be judged'
    reply({ kind: 'untold', sentence, frames: frames.length })
  }
}
