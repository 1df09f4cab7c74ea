import { measured, requiredLine } from './fields.ts'

/** The arbor that a row is of. */
export const arborPlace = {
  train: requiredLine(20).label('Train'),
  arbor: requiredLine(60).label('Arbor'),
  arborIndex: measured(0, 12).integer().required().label('Place in the train'),
}
