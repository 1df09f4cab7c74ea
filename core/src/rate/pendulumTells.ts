import { FieldError } from '../check/require.ts'
import { laboratoryOf } from '../pendulum/laboratory.ts'
import { rodOf, type SheetPart } from '../pendulum/sheet.ts'
import type { Figure } from './solve.ts'

/** What a pendulum laid out on the bench tells the rate book beforehand. */
export interface PendulumTells {
  /** of a degree, s/day */
  warmth: Figure
  /** of a gram on its tray */
  secondsPerDayPerGram: number
  hasTray: boolean
}

/** How far the whole clock follows warmth otherwise than its pendulum's metals say, s/day: air, oil, the alloys' own spread. */
const BEYOND_METAL = 0.1
const OF_METAL = 0.15
/** Damp comes and goes with warmth, and a wooden rod follows it. */
const BEYOND_WOOD = 0.3

/** By its parts; null where there is no sheet, or too little is known of them. */
export function pendulumTells(parts: SheetPart[] | undefined): PendulumTells | null {
  if (parts === undefined || parts.length === 0) return null
  try {
    const { secondsPerDayPerC: value, secondsPerDayPerGram } = laboratoryOf(parts)
    const beyond = rodOf(parts).material === 'wood' ? BEYOND_WOOD : BEYOND_METAL
    return {
      warmth: { value, standardError: Math.hypot(beyond, OF_METAL * value) },
      secondsPerDayPerGram,
      hasTray: parts.some((p) => p.kind === 'tray'),
    }
  } catch (error) {
    if (error instanceof FieldError) return null
    throw error
  }
}
