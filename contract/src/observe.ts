import { id, idOrNone, line, measured, only, requiredLine, string, text, version, type InferType } from './fields.ts'

/**
 * Something seen, tried or asked on a job, one row for each thing; its key says which.
 *
 * The walk before touching, the trouble finder's answers, what was pegged after cleaning and what was done in place all
 * keep theirs so, and whoever asks for a thing finds it by its key.
 */
export const Observation = only({
  id: id(),
  version: version(),
  key: requiredLine(120).label('What was observed'),
  /** in a word: yes, no, sound, watch… */
  answer: line(60).defined().label('Answer'),
  figure: measured(-1e6, 1e6).nullable().defined().label('Figure'),
  second: measured(-1e6, 1e6).nullable().defined().label('Second figure'),
  note: text(2000).defined().label('Note'),
  photoId: idOrNone(),
})
export type Observation = InferType<typeof Observation>
export type ObservationRow = Observation & { jobId: string; at: string; who: string; whoId?: string | null }

export const CONDITION_KINDS = ['part', 'mark', 'plugged-hole', 'repair', 'alteration'] as const
export const CONDITION_KIND_TITLES: Record<(typeof CONDITION_KINDS)[number], string> = {
  part: 'Part',
  mark: 'Signature or mark',
  'plugged-hole': 'Plugged hole',
  repair: 'Earlier repair',
  alteration: 'Alteration',
}

export const PART_CLASSES = ['original', 'old-replacement', 'later', 'made-now', 'unknown'] as const
export const PART_CLASS_TITLES: Record<(typeof PART_CLASSES)[number], string> = {
  original: 'original',
  'old-replacement': 'old replacement',
  later: 'later',
  'made-now': 'made now',
  unknown: 'not known',
}

/** One thing on the condition record, with its point on a photo if it has one. */
export const ConditionItem = only({
  id: id(),
  version: version(),
  kind: string().oneOf(CONDITION_KINDS).required().label('Kind'),
  name: requiredLine(120).label('What it is'),
  class: string().oneOf(PART_CLASSES).required().label('Class'),
  note: text(1000).defined().label('Note'),
  photoId: idOrNone(),
  /** share of the photo's width and height, from its upper left */
  x: measured(0, 1).nullable().defined().label('Point'),
  y: measured(0, 1).nullable().defined().label('Point'),
})
export type ConditionItem = InferType<typeof ConditionItem>
export type ConditionRow = ConditionItem & { jobId: string; at: string; who: string; whoId?: string | null }
