import { FieldError } from '../check/require.ts'

/**
 * Degrees clockwise from 12 of a direction said as on a clock face: "1:50" → 55, "2" → 60.
 *
 * @throws FieldError unless it reads h or h:mm, 0–12 hours and 0–59 minutes
 */
export function parseClockDirection(text: string): number {
  const match = /^\s*(\d{1,2})(?:[:.](\d{1,2}))?\s*$/.exec(text)
  const hours = Number(match?.[1])
  const minutes = Number(match?.[2] ?? 0)
  if (!match || hours > 12 || minutes > 59)
    throw new FieldError('wearDirection', text, 'it must be a direction on the dial, such as 2 or 1:50')
  return (hours % 12) * 30 + minutes / 2
}

/** A direction as on a clock face, to the nearest ten minutes: 55 → "1:50". */
export function formatClockDirection(deg: number): string {
  const tens = (((Math.round(deg / 5) % 72) + 72) % 72) * 10
  const hours = Math.floor(tens / 60)
  return `${hours === 0 ? 12 : hours}:${String(tens % 60).padStart(2, '0')}`
}
