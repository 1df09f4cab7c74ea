import { FieldError, requireCount } from '../check/require.ts'

export interface TrainBeats {
  beatsPerHour: number
  /** seconds for one turn of each arbor, from the one that turns once an hour to the escape arbor */
  periodsS: number[]
}

/**
 * Beats an hour and the turning time of each arbor, from the counts.
 *
 * beats = 2·E·∏(wheels)/∏(pinions), wheels from the one that turns once an hour up to the last before the escape
 * wheel, each with the pinion that it drives.
 *
 * @param wheels - teeth, whole, 6 to 1000
 * @param pinions - leaves, whole, 4 to 100; as many as wheels
 * @param escapeTeeth - whole, 3 to 500
 * @example trainBeats([64, 60], [8, 8], 30) // 3600; 3600, 450, 60 s
 */
export function trainBeats(wheels: number[], pinions: number[], escapeTeeth: number): TrainBeats {
  requireCount('escapeTeeth', escapeTeeth, 3, 500)
  if (wheels.length > 12) throw new FieldError('wheels', wheels.length, 'at most 12 wheels')
  if (wheels.length !== pinions.length)
    throw new FieldError('pinions', pinions, `each wheel drives one pinion: give ${wheels.length}, as many as wheels`)
  const periodsS = [3600]
  wheels.forEach((teeth, i) => {
    const leaves = pinions[i] ?? Number.NaN
    requireCount(`wheels[${i}]`, teeth, 6, 1000)
    requireCount(`pinions[${i}]`, leaves, 4, 100)
    periodsS.push(((periodsS[i] ?? Number.NaN) * leaves) / teeth)
  })
  const escapePeriodS = periodsS[periodsS.length - 1] ?? Number.NaN
  return { beatsPerHour: (2 * escapeTeeth * 3600) / escapePeriodS, periodsS }
}
