import type { Bay, Side } from '@treadle/core'

interface Standing {
  status: 'idle' | 'listening' | 'reading' | 'done' | 'refused'
  heard: boolean
  /** which end the first tick is, once it is told */
  first: Side | null
  taps: number
  /** when the last tap was, and what time it is, ms; a foot that still keeps the rhythm does not mean to stop */
  sinceTapMs: number
  seconds: number
  kept: boolean
  bay: Bay
}

export interface Next {
  what: 'tap' | 'stop' | 'keep' | 'back' | 'set-up' | 'rate' | 'listen'
  label: string
  hint?: string
  rhythmic?: boolean
}

const TAPS_WANTED = 5
/** After so many taps that tell nothing more would not either. */
const TAPS_MOST = 3 * TAPS_WANTED
/** So long after a tap the next press still belongs to the rhythm: the slowest clock’s full swing, and some. */
const RHYTHM_MS = 4000

/** What the foot does now: tap the sides apart, stop, keep what was heard, and go on. */
export function nextOf({ status, heard, first, taps, sinceTapMs, seconds, kept, bay }: Standing): Next {
  if (status === 'listening') {
    const untold = heard && first === null && taps < TAPS_MOST
    const begun = heard && taps > 0 && taps < TAPS_WANTED
    const inRhythm = taps > 0 && sinceTapMs < RHYTHM_MS
    return untold || begun || inRhythm
      ? {
          what: 'tap',
          label: 'Press as the bob reaches the right',
          hint: untold
            ? `five taps tell the sides apart: ${taps} of ${TAPS_WANTED}`
            : begun
              ? `${taps} of ${TAPS_WANTED}`
              : 'enough: the sides are told apart; lift the foot',
          rhythmic: true,
        }
      : { what: 'stop', label: 'Press to stop listening', hint: `${seconds.toFixed(0)} s heard` }
  }
  if (status === 'done' && heard && !kept)
    return {
      what: 'keep',
      label: 'Press to keep this listening',
      hint: first === null ? 'the sides are not told apart' : undefined,
    }
  if (status === 'done')
    return bay === 'arrive'
      ? { what: 'back', label: 'Press to go back to its papers' }
      : bay === 'return'
        ? { what: 'set-up', label: 'Press to go back to its setting up' }
        : { what: 'rate', label: 'Press to go on to its rate' }
  return {
    what: 'listen',
    label: status === 'idle' ? 'Press to listen' : 'Press to listen again',
    hint: 'by the microphone',
  }
}
