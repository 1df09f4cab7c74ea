import { FieldError, requireCount } from '../check/require.ts'
import { opposite, type Turn } from './directions.ts'

/** One arbor, from the great wheel up: the pinion that drives it (none on the great arbor) and the wheel it carries. */
export interface TrainArbor {
  name: string
  pinion: number | null
  wheel: number | null
}

export interface ArborTurning extends TrainArbor {
  /** seconds for one turn; null where a lost count, or no hourly arbor, leaves it open */
  periodS: number | null
  /** as seen from the front */
  turn: Turn | null
}

export interface TrainSheet {
  arbors: ArborTurning[]
  /** from the escape wheel's teeth; null when the train has none, or a count is lost */
  beatsPerHour: number | null
  /** how long the great wheel's turns last, days */
  days: number | null
}

/**
 * The turning time and direction of every arbor, beats an hour and duration, from the counts.
 *
 * The hourly arbor (`hourly`, its place from the great wheel) is the clock of the others: one further up turns in
 * period × pinion / wheel, one further down in period × wheel / pinion. It turns clockwise, as the minute hand does;
 * each mesh turns the next one about. `escape` says that the last wheel is the escape wheel.
 *
 * @param hourly - place of the arbor that turns once an hour, or null where none does (a strike train)
 * @param greatTurns - turns of the great wheel at one winding
 */
export function trainSheet(
  arbors: TrainArbor[],
  hourly: number | null,
  escape: boolean,
  greatTurns: number | null = null,
): TrainSheet {
  if (arbors.length < 2 || arbors.length > 12) throw new FieldError('arbors', arbors.length, 'give 2 to 12 arbors')
  if (hourly !== null) requireCount('hourly', hourly, 0, arbors.length - 1)
  arbors.forEach(({ pinion, wheel }, i) => {
    if (wheel !== null) requireCount(`arbors[${i}].wheel`, wheel, 3, 1000)
    if (pinion !== null) requireCount(`arbors[${i}].pinion`, pinion, 4, 100)
  })
  const periods: (number | null)[] = arbors.map(() => null)
  const turns: (Turn | null)[] = arbors.map(() => null)
  if (hourly !== null) {
    periods[hourly] = 3600
    turns[hourly] = 'clockwise'
    for (let i = hourly + 1; i < arbors.length; i++) {
      periods[i] = times(periods[i - 1], arbors[i]?.pinion, arbors[i - 1]?.wheel)
      turns[i] = about(turns[i - 1])
    }
    for (let i = hourly - 1; i >= 0; i--) {
      periods[i] = times(periods[i + 1], arbors[i]?.wheel, arbors[i + 1]?.pinion)
      turns[i] = about(turns[i + 1])
    }
  }
  const last = arbors.length - 1
  const teeth = arbors[last]?.wheel
  const escapePeriod = periods[last]
  return {
    arbors: arbors.map((a, i) => ({ ...a, periodS: periods[i] ?? null, turn: turns[i] ?? null })),
    beatsPerHour: escape && teeth && escapePeriod ? (2 * teeth * 3600) / escapePeriod : null,
    days: greatTurns !== null && periods[0] ? (greatTurns * periods[0]) / 86_400 : null,
  }
}

export interface PeriodNamed {
  name: string
  periodS: number
  /** how far its turning time, or that of its nearest multiple, is from the one asked for, % */
  offPercent: number
}

/**
 * Whose fault it may be that comes back every `seconds`: the arbors that turn in that time, nearest first, within 2 %.
 *
 * The escape wheel's own tooth comes back at every turn, so a whole turn is meant; a fault of a pinion's one leaf comes
 * back with its arbor too.
 */
export function arborsOfPeriod(sheet: TrainSheet, seconds: number, withinPercent = 2): PeriodNamed[] {
  return sheet.arbors
    .flatMap(({ name, periodS }) =>
      periodS === null ? [] : [{ name, periodS, offPercent: 100 * (seconds / periodS - 1) }],
    )
    .filter((a) => Math.abs(a.offPercent) <= withinPercent)
    .sort((a, b) => Math.abs(a.offPercent) - Math.abs(b.offPercent))
}

function times(period: number | null | undefined, up: number | null | undefined, down: number | null | undefined) {
  return period && up && down ? (period * up) / down : null
}

function about(turn: Turn | null | undefined): Turn | null {
  return turn ? opposite(turn) : null
}
