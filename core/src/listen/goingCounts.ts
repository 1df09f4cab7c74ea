import { FieldError } from '../check/require.ts'
import { unlessRefused } from '../check/unlessRefused.ts'
import { trainBeats } from '../train/beats.ts'
import type { GoingCounts } from './periodic.ts'

interface Counted {
  train: string
  arbors: { name: string; pinion: number | null; wheel: number | null }[]
  hourly: number | null
  escape: boolean
}

/**
 * The counts of a clock's going train from its hourly arbor up to the escape wheel, with its arbors' names; null while a
 * count is missing, or no arbor turns once an hour.
 */
export function goingCounts(sheets: Counted[]): (GoingCounts & { names: string[] }) | null {
  const sheet = sheets.find((s) => s.train === 'going' && s.escape)
  if (!sheet || sheet.hourly === null) return null
  const arbors = sheet.arbors.slice(sheet.hourly)
  const wheels = arbors.slice(0, -1).map((a) => a.wheel)
  const pinions = arbors.slice(1).map((a) => a.pinion)
  const escapeTeeth = arbors.at(-1)?.wheel
  const known = (counts: (number | null)[]): counts is number[] => counts.every((c) => c !== null)
  if (arbors.length < 2 || !known(wheels) || !known(pinions) || escapeTeeth == null) return null
  if (unlessRefused(() => trainBeats(wheels, pinions, escapeTeeth)) instanceof FieldError) return null
  return { wheels, pinions, escapeTeeth, names: arbors.map((a) => a.name) }
}
