/** Beats an hour that clocks are usually made for. */
export const USUAL_BEATS_PER_HOUR = [
  2400, 2700, 3000, 3200, 3600, 4000, 4200, 4500, 4800, 5000, 5400, 5760, 6000, 6300, 6600, 7200, 7500, 7800, 8100,
  8400, 9000, 9600, 10_000, 10_800, 11_400, 12_000, 12_600, 13_200, 14_400, 15_000, 16_200, 16_800, 18_000,
]

/** The usual count nearest to what was measured, by ratio. */
export function nearestUsualCount(beatsPerHour: number): number {
  const distance = (usual: number) => Math.abs(Math.log(usual / beatsPerHour))
  return USUAL_BEATS_PER_HOUR.reduce((best, usual) => (distance(usual) < distance(best) ? usual : best))
}
