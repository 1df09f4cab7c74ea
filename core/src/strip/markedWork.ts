import type { MarkedWork } from './meshMarks.ts'

/** A clock, as far as the marks before its parting ask. */
export interface MarkedClock {
  trains: MarkedWork['trains']
  work: Pick<MarkedWork, 'strikeWork' | 'moon' | 'calendar'>
  pendulum: { beatsPerHour: number | null; lengthMm: number | null }
}

/** What of a clock's work asks for marks before its plates are parted. */
export function markedWork({ trains, work, pendulum }: MarkedClock): MarkedWork {
  const { strikeWork, moon, calendar } = work
  return { trains, strikeWork, moon, calendar, pendulum: pendulum.beatsPerHour !== null || pendulum.lengthMm !== null }
}
