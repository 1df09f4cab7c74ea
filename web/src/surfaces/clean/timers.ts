import type { Timer } from '@treadle/contract'
import type { Bath } from '@treadle/core'
import { v5, v7 as uuid } from 'uuid'

/**
 * A timer for a bath, or for what follows at once on the one before; null when nothing more follows. What follows is one
 * timer only, whoever takes the parts out, and however often.
 */
export function timerFor(bath: Bath, before?: Pick<Timer, 'id' | 'step'>, nowMs = Date.now()): Timer | null {
  const step = before ? before.step + 1 : 0
  const follows = bath.then[step - 1]
  if (before && !follows) return null
  const minutes = follows?.minutes ?? bath.minutes
  return {
    id: before ? v5('follows', before.id) : uuid(),
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
