import type { Hearing, ListenOptions, NothingHeard, StrikeGroup } from '@treadle/core'

/** What the page asks of the listening worker; blocks are handed over, not copied. */
export type ToWorker =
  | { kind: 'open'; session: number; sampleRate: number; options: ListenOptions }
  | { kind: 'block'; session: number; samples: Float32Array }
  | { kind: 'lost'; session: number; seconds: number }
  /** cut: the pickup ended, unasked */
  | { kind: 'finish'; session: number; cut: boolean }
  /** strikes: count them too */
  | { kind: 'wav'; session: number; bytes: ArrayBuffer; options: ListenOptions; strikes: boolean }
  | {
      kind: 'samples'
      session: number
      samples: Float32Array
      sampleRate: number
      options: ListenOptions
      strikes: boolean
    }

export type FromWorker =
  | {
      kind: 'verdict'
      session: number
      result: Hearing | NothingHeard
      seconds: number
      final: boolean
      /** what there is to say of the sound itself, or nothing */
      remark: string
      wav?: ArrayBuffer
      strikes?: StrikeGroup[]
    }
  | { kind: 'refused'; session: number; sentence: string }

/** What every worker that hears by itself is told; blocks are handed over, not copied. */
export type ToEar<Options> =
  /** turn: what is answered is of this opening, and not of the one before it */
  | { kind: 'open'; sampleRate: number; options: Options; turn: number }
  | { kind: 'block'; samples: Float32Array }
  | { kind: 'lost'; seconds: number }

export interface FromEar<Heard> {
  turn: number
  heard: Heard
}
