/**
 * The clock's error in seconds when its hand stood on a whole minute, from the true time of that moment.
 *
 * The hand gives the minute only; the hour is taken as the nearest, so the error lies within ±30 s of a whole minute
 * nearest to it unless `expectedErrorS` says which minute is meant.
 *
 * @param trueS - true time, Unix seconds
 * @param expectedErrorS - about how far the clock is out, s; 0 when not known
 * @returns clock minus true time, s, within 30 s of what was expected
 */
export function errorAtMinuteMark(trueS: number, expectedErrorS = 0): number {
  const shown = Math.round((trueS + expectedErrorS) / 60) * 60
  return shown - trueS
}
