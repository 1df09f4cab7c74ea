/** A moment as a row has it: from the database, or as it was sent (ISO 8601 with its zone). */
export type Moment = Date | string

/** Unix seconds of a moment. */
export function secondsOf(at: Moment): number {
  return (typeof at === 'string' ? Date.parse(at) : at.getTime()) / 1000
}

/** The latest of some rows, by their moment; undefined where there are none. */
export function latest<T extends { at: Moment }>(rows: T[]): T | undefined {
  return rows.reduce<T | undefined>(
    (best, row) => (!best || secondsOf(row.at) >= secondsOf(best.at) ? row : best),
    undefined,
  )
}
