import { requireCount, requirePositive } from '../check/require.ts'

/**
 * How long a going train runs on `turns` of its great wheel: days, and hours for one turn.
 *
 * The centre arbor turns once an hour, so one turn of the great wheel takes the ratio up to it in hours. Arbors between
 * are given from the great wheel up: the pinion driven, and the wheel on its arbor.
 *
 * @example trainDuration(96, 8, 16) // 12 hours a turn, 8 days
 */
export function trainDuration(
  greatWheelTeeth: number,
  centrePinionLeaves: number,
  turns: number,
  between: { pinion: number; wheel: number }[] = [],
): { days: number; hoursPerTurn: number } {
  requireCount('greatWheelTeeth', greatWheelTeeth, 6, 1000)
  requireCount('centrePinionLeaves', centrePinionLeaves, 4, 100)
  requirePositive('turns', turns)
  let hoursPerTurn = greatWheelTeeth / centrePinionLeaves
  between.forEach(({ pinion, wheel }, i) => {
    requireCount(`between[${i}].pinion`, pinion, 4, 100)
    requireCount(`between[${i}].wheel`, wheel, 6, 1000)
    hoursPerTurn *= wheel / pinion
  })
  return { days: (turns * hoursPerTurn) / 24, hoursPerTurn }
}
