import type { Timer } from '@treadle/contract'
import type { Bath } from '@treadle/core'
import { v7 as uuid } from 'uuid'

/** A timer for a bath (step 0) or for what follows it at once; null when nothing more follows. */
export function timerFor(bath: Bath, step: number, nowMs = Date.now()): Timer | null {
  const follows = bath.then[step - 1]
  if (step > 0 && !follows) return null
  const minutes = follows?.minutes ?? bath.minutes
  return {
    id: uuid(),
    version: 0,
    title: follows?.title ?? bath.title,
    startedAt: new Date(nowMs).toISOString(),
    endsAt: new Date(nowMs + minutes * 60_000).toISOString(),
    stopped: false,
    bath: bath.key,
    step,
  }
}

/** "7:05" to go, or "2:10 over". */
export function leftWords(endsMs: number, nowMs: number): string {
  const s = Math.round(Math.abs(endsMs - nowMs) / 1000)
  const clock =
    s >= 3600
      ? `${Math.floor(s / 3600)}:${String(Math.floor((s % 3600) / 60)).padStart(2, '0')}:${String(s % 60).padStart(2, '0')}`
      : `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
  return endsMs >= nowMs ? clock : `${clock} over`
}
