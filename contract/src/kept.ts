import { FILE_KINDS } from './archive.ts'
import { Brought } from './brought.ts'
import { JobChange, VisitChange } from './job.ts'
import { MOST_BESIDE_CLOCK } from './rate.ts'
import { Settings } from './settings.ts'
import { StockChange } from './stock.ts'
import { array, id, idOrNone, line, measured, mixed, moment, only, string, text } from './fields.ts'
import { WatchChange, WatchTemperatures } from './watch.ts'

// Rows that no request carries just so, as they are kept. Fields that a table has of itself (who, when, of which job) are
// judged by their columns.

const digest = () =>
  string()
    .matches(/^[0-9a-f]{64}$/, '${path} must be a SHA-256')
    .nullable()
    .defined()

export const FileKept = only({
  id: id(),
  type: string().oneOf(FILE_KINDS).required(),
  size: measured(0, 2_000_000_000).integer().required(),
})

export const PhotoKept = only({
  id: id(),
  caption: line(200).defined(),
  width: measured(1, 100_000).integer().required(),
  height: measured(1, 100_000).integer().required(),
  digest: digest(),
})

/** Of what an entry of the journal may be. */
export const ABOUTS = [
  'job',
  'archive',
  'clock',
  'owner',
  'person',
  'settings',
  'table',
  'drawers',
  'calendar',
] as const
export type About = (typeof ABOUTS)[number]

export const JournalKept = only({
  id: id(),
  about: string().oneOf(ABOUTS).required(),
  aboutId: line(100).nullable().defined(),
  kind: line(60).required(),
  text: text(20_000).defined(),
  figures: mixed<object>((value): value is object => typeof value === 'object' && value !== null).required(),
  corrects: idOrNone(),
  brought: Brought.nullable().default(null),
})

export const OverrideKept = only({ brought: Brought.nullable().default(null) })

export const StockImportKept = only({
  id: id(),
  added: array(id()).max(8000).required(),
  before: array(StockChange).max(8000).required(),
  digest: digest(),
})

export const ThermometerKept = only({
  id: id(),
  temperatures: array(only({ at: moment(), celsius: measured(-60, 80).required() }))
    .max(MOST_BESIDE_CLOCK)
    .required(),
})

const WatchRunKept = only({
  fromS: measured(0, 1.2e7).required(),
  toS: measured(0, 1.2e7).required(),
  secondsPerDay: measured(-1e6, 1e6).required(),
  standardError: measured(0, 1e6).required(),
})

export const WatchKept = WatchChange.shape({
  temperatures: WatchTemperatures.fields.temperatures,
  run: WatchRunKept.nullable().default(null),
})

export const JobKept = JobChange.concat(VisitChange)

export const SettingsKept = only({ id: measured(1, 1).integer().required(), values: Settings })
