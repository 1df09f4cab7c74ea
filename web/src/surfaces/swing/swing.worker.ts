import { FieldError, swingInFilm, type FilmSwing, type GreyFrame, type KnownOfFilm } from '@treadle/core'

/** A thin shell over the core: it holds the last seconds of frames, and says what swings in them. */

export type ToSwingWorker = { kind: 'frame'; frame: GreyFrame } | { kind: 'known'; known: KnownOfFilm }

export type FromSwingWorker =
  | { kind: 'told'; swing: FilmSwing; frames: number; seconds: number; framesPerS: number }
  | { kind: 'untold'; sentence: string; frames: number }

const HELD_S = 6
const MOST_FRAMES = 240
/** It is told anew after so much more film. */
const EVERY_S = 1
const LEAST_S = 1.5

let frames: GreyFrame[] = []
let known: KnownOfFilm = {}
let toldS = -Infinity

self.onmessage = ({ data }: MessageEvent<ToSwingWorker>) => {
  switch (data.kind) {
    case 'known':
      known = { ...known, ...data.known }
      toldS = -Infinity
      return
    case 'frame': {
      const { frame } = data
      if (frame.atS <= (frames.at(-1)?.atS ?? -Infinity)) frames = []
      frames.push(frame)
      frames = frames.filter((f) => f.atS > frame.atS - HELD_S).slice(-MOST_FRAMES)
      const seconds = frame.atS - (frames[0]?.atS ?? frame.atS)
      if (seconds < LEAST_S || frame.atS - toldS < EVERY_S) return
      toldS = frame.atS
      tell(seconds)
    }
  }
}

function tell(seconds: number): void {
  // A tap older than what is held can't be followed from any more; the place it led to can.
  const reply = (message: FromSwingWorker) => self.postMessage(message)
  try {
    const swing = swingInFilm(frames, known)
    const last = swing.path.findLast((p) => p !== null)
    if (known.mark && last) known = { ...known, mark: { ...known.mark, x: last.x, y: last.y, atS: last.atS } }
    reply({ kind: 'told', swing, frames: frames.length, seconds, framesPerS: (frames.length - 1) / seconds })
  } catch (error) {
    const sentence = error instanceof FieldError ? error.allowed : 'the picture could not be judged'
    reply({ kind: 'untold', sentence, frames: frames.length })
  }
}
