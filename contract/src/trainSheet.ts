import { TRAIN_NAMES } from '@treadle/core/choices'
import { array, boolean, id, measured, only, requiredLine, string, version, type InferType } from './fields.ts'

const countOrNone = (low: number, high: number, label: string) =>
  measured(low, high).integer().nullable().defined().label(label)

/** The counts of one train of a clock; it belongs to the clock and serves every visit. */
export const TrainSheetChange = only({
  id: id(),
  version: version(),
  train: string().oneOf(TRAIN_NAMES).required().label('Train'),
  arbors: array(
    only({
      name: requiredLine(40).label('Arbor'),
      pinion: countOrNone(4, 100, 'Pinion'),
      wheel: countOrNone(3, 1000, 'Wheel'),
    }),
  )
    .min(2, 'Arbors: a train has at least two')
    .max(12)
    .required()
    .label('Arbors'),
  /** place of the arbor that turns once an hour, from the great wheel */
  hourly: measured(0, 11).integer().nullable().defined().label('Turns once an hour'),
  escape: boolean().required(),
  greatTurns: measured(0.1, 500).nullable().defined().label('Turns of the great wheel'),
  motion: only({
    cannonPinion: measured(4, 500).integer().required().label('Cannon pinion'),
    minuteWheel: measured(4, 500).integer().required().label('Minute wheel'),
    minutePinion: measured(4, 500).integer().required().label('Minute pinion'),
    hourWheel: measured(4, 500).integer().required().label('Hour wheel'),
  })
    .nullable()
    .defined()
    .label('Motion work'),
  /** every so many seconds a fault comes back */
  faultPeriodS: measured(0.5, 200_000).nullable().defined().label('A fault comes back every'),
})
export type TrainSheetChange = InferType<typeof TrainSheetChange>
export type TrainSheetRow = TrainSheetChange & { clockId: string }

const USUAL: Record<TrainSheetChange['train'], string[]> = {
  going: ['Great', 'Centre', 'Third', 'Escape'],
  strike: ['Great', 'Pin', 'Gathering', 'Warning', 'Fly'],
  chime: ['Great', 'Second', 'Third', 'Warning', 'Fly'],
}

/** A sheet to begin with: the usual names and no counts yet. */
export function blankSheet(id: string, train: TrainSheetChange['train']): TrainSheetChange {
  return {
    id,
    version: 0,
    train,
    arbors: USUAL[train].map((name) => ({ name, pinion: null, wheel: null })),
    hourly: train === 'going' ? 1 : null,
    escape: train === 'going',
    greatTurns: null,
    motion: null,
    faultPeriodS: null,
  }
}
