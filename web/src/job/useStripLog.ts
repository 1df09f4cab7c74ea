import type { StripStepRow } from '@treadle/contract'
import { placeBetween } from '@treadle/core'
import { useRef, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useJobData } from './useJobData.ts'
import { useLatest } from '../parts/useLatest.ts'
import { useRows } from './useRows.ts'

type Draft = Pick<StripStepRow, 'part' | 'tray' | 'screws' | 'marks' | 'remark' | 'count' | 'photoId'>

export interface StripLog {
  steps: StripStepRow[]
  add: (draft: Draft) => () => void
  change: (step: StripStepRow, part: Partial<StripStepRow>, said: string) => void
  remove: (step: StripStepRow) => void
  /** moves a step to where another one stands */
  move: (id: string, overId: string) => void
  /** what the last change was, or null; and undoing it */
  undoable: string | null
  undo: () => void
}

/** The strip log of this job, and every change to it undone one after another. */
export function useStripLog(): StripLog {
  const { stripSteps } = useJobData()
  const rows = useRows<StripStepRow>('strip-steps')
  // What was just said of a step shows at once, so that the next press is made on the next one.
  const steps = stripSteps.map((s) => rows.seen(s, s) ?? s)
  const latest = useLatest(steps)
  // What was done is looked up when it is undone, not when the press was made that undoes it.
  const done = useRef<{ said: string; undo: () => void }[]>([])
  const [undoable, setUndoable] = useState<string | null>(null)
  const remember = (said: string, undo: () => void) => {
    done.current.push({ said, undo })
    setUndoable(said)
  }
  // Undoing writes the old values on the row's newest version, whatever has become of it meanwhile.
  const putBack = (was: StripStepRow) => {
    const now = latest.current.find((s) => s.id === was.id)
    const { id: _, version: _v, jobId: _j, at: _a, who: _w, whoId: _i, ...fields } = was
    if (now) rows.set(now, now, fields)
    else rows.put({ ...was, version: 0 })
  }
  return {
    steps,
    add: (draft) => {
      const id = uuid()
      const last = latest.current.at(-1)?.position ?? null
      rows.put({ ...draft, id, version: 0, position: placeBetween(last, null), back: false, notBack: '' })
      const undo = () => rows.remove(id)
      remember(`added ${draft.part}`, undo)
      return undo
    },
    change: (step, part, said) => {
      const now = latest.current.find((s) => s.id === step.id) ?? step
      rows.set(now, now, part)
      remember(said, () => putBack(step))
    },
    remove: (step) => {
      rows.remove(step.id)
      remember(`took out ${step.part}`, () => putBack(step))
    },
    move: (id, overId) => {
      const moving = steps.find((s) => s.id === id)
      const rest = steps.filter((s) => s.id !== id)
      const from = steps.findIndex((s) => s.id === id)
      const to = steps.findIndex((s) => s.id === overId)
      if (!moving || from === to) return
      const position = placeBetween(rest[to - 1]?.position ?? null, rest[to]?.position ?? null)
      rows.put({ ...moving, position })
      remember(`moved ${moving.part}`, () => putBack(moving))
    },
    undoable,
    undo: () => {
      done.current.pop()?.undo()
      setUndoable(done.current.at(-1)?.said ?? null)
    },
  }
}
