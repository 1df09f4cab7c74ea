export const READING_WAYS = ['eye', 'ear', 'pedal', 'listening', 'strike'] as const
export type ReadingWay = (typeof READING_WAYS)[number]
/** How good each way of reading is, s. */
export const READING_SIGMAS: Record<ReadingWay, number> = {
  eye: 1,
  ear: 0.5,
  pedal: 0.5,
  listening: 0.1,
  // Heard to a twentieth of a second; the letting off does not come to the second.
  strike: 4,
}

export const EVENT_KINDS = [
  'nut',
  'hands',
  'winding',
  'weight',
  'tray',
  'arc',
  'moved',
  'beat',
  'oiled',
  'stopped',
  'trial',
  'moon',
] as const
export type RateEventKind = (typeof EVENT_KINDS)[number]

/** What is noted of a clock and changes nothing of it: it is wound, its trial begins, its moon is seen to move. */
const CHANGES_NOTHING = new Set<RateEventKind>(['winding', 'trial', 'moon'])

/** Whether what was done to a clock begins its rate anew: not what is only noted of it. */
export function isChange(kind: RateEventKind): boolean {
  return !CHANGES_NOTHING.has(kind)
}
