import { requireWithin } from '../check/require.ts'

/** Standard gravity, m/s²; exact by definition (3rd CGPM, 1901). */
export const STANDARD_GRAVITY = 9.80665

// WGS 84 ellipsoid: NIMA TR8350.2, tables 3.3 and 3.4, section 4.2.
const EQUATOR_GRAVITY = 9.7803253359
const SOMIGLIANA_K = 0.00193185265241
const ECCENTRICITY_SQUARED = 0.00669437999014
const SEMI_MAJOR_M = 6378137
const FLATTENING = 1 / 298.257223563
const GRAVITY_RATIO_M = 0.00344978650684

/**
 * Normal gravity at a place, m/s²: Somigliana's formula on WGS 84, with the second-order height term.
 *
 * True local gravity differs by up to about 0.0005 m/s² (2 s a day) with the rocks below.
 *
 * @param latitudeDeg - geodetic latitude, degrees, −90 to 90
 * @param altitudeM - height above the ellipsoid, metres, −500 to 9000
 * @throws FieldError naming the argument
 * @see NIMA TR8350.2 (WGS 84), equations 4-1 and 4-3
 * @example gravityAt(45) // 9.806199…
 */
export function gravityAt(latitudeDeg: number, altitudeM = 0): number {
  requireWithin('latitudeDeg', latitudeDeg, -90, 90)
  requireWithin('altitudeM', altitudeM, -500, 9000)
  const sinSquared = Math.sin((latitudeDeg * Math.PI) / 180) ** 2
  const atSeaLevel =
    (EQUATOR_GRAVITY * (1 + SOMIGLIANA_K * sinSquared)) / Math.sqrt(1 - ECCENTRICITY_SQUARED * sinSquared)
  const first = (2 / SEMI_MAJOR_M) * (1 + FLATTENING + GRAVITY_RATIO_M - 2 * FLATTENING * sinSquared)
  return atSeaLevel * (1 - first * altitudeM + (3 * altitudeM ** 2) / SEMI_MAJOR_M ** 2)
}

const DAY_S = 86_400

/** What a clock set right under one gravity gains under another, s a day; a period goes as 1/√g. */
export function gravityChangeSecondsPerDay(from: number, to: number): number {
  return DAY_S * (Math.sqrt(to / from) - 1)
}
