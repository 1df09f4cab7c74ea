import {
  array,
  boolean,
  mixed,
  number,
  object,
  setLocale,
  string,
  type AnyObjectSchema,
  type InferType,
  type ObjectShape,
} from 'yup'

const KINDS: Record<string, string> = {
  number: 'a number',
  string: 'words',
  boolean: 'yes or no',
  array: 'a list',
}

// Before the first field is made. The library's own sentence speaks of types and casts.
setLocale({
  mixed: {
    notType: ({ path, type }: { path: string; type: string }) =>
      KINDS[type] === undefined ? `${path} can’t be read` : `${path} must be ${KINDS[type]}`,
  },
})

/** An id made by whoever makes the row: a UUID, so that a repeated request makes one row. */
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i
export const id = () => string().required().matches(UUID, '${path} must be a UUID')
/** The id of another row, or none. */
export const idOrNone = () => string().matches(UUID, '${path} must be a UUID').nullable().defined()
/** The version a change was made on; 0 makes a new row. The next one must still fit its column of 32 bits. */
export const version = () => number().integer().min(0).max(2_147_483_646).required()

// Line breaks of every kind, and what a terminal or another program would take for a command.
const CONTROL = /[\p{Cc}\u2028\u2029]/u
const oneLine = (value: string | null | undefined) => value == null || !CONTROL.test(value)
/** Words on one line: what is put into a heading, a calendar's line or a drawing's label can't begin another. */
export const line = (most = 200) => string().max(most).test('one-line', '${path} must be on one line', oneLine)
export const requiredLine = (most = 200) => line(most).trim().min(1).required()
export const text = (most = 5000) => string().max(most)

/** A moment, ISO 8601 with its zone. */
export const moment = () =>
  string()
    .required()
    .matches(
      /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d{1,9})?)?(Z|[+-]\d\d:\d\d)$/,
      '${path} must be a moment such as 2026-03-01T09:30:00Z',
    )
    .test(
      'real',
      '${path} must be a day and time that exist',
      (value: string | null | undefined) =>
        value == null || (isDay(value.slice(0, 10)) && !Number.isNaN(Date.parse(value))),
    )
/** A day, ISO 8601; empty: none is said. */
export const day = () =>
  string()
    .matches(/^\d{4}-\d\d-\d\d$/, { message: '${path} must be a day such as 2026-03-01', excludeEmptyString: true })
    .test('real', '${path} must be a day that exists', (value) => value == null || value === '' || isDay(value))

/** Whether the calendar has this day, in a year that a clock or its owner can mean. */
function isDay(words: string): boolean {
  const [year = 0, month = 0, date = 0] = words.split('-').map(Number)
  const there = new Date(Date.UTC(year, month - 1, date))
  return year >= 1000 && year <= 9000 && there.getUTCMonth() === month - 1 && there.getUTCDate() === date
}

const within = (low: number, high: number) => (value: unknown) =>
  typeof value === 'number' && value >= low && value <= high

/** A measured value: finite, and within what the thing can be. */
export const measured = (low: number, high: number) =>
  number()
    .min(low)
    .max(high)
    .test('finite', '${path} must be a finite number', (v) => v === undefined || v === null || Number.isFinite(v))

/** A measure, mm, that may not be known yet. */
export const mm = (low: number, high: number, label: string) => measured(low, high).nullable().defined().label(label)

/** Many plain numbers, looked at in one go: a field for each would take seconds where there are tens of thousands. */
export const numbers = (low: number, high: number, [least, most]: [number, number]) =>
  mixed<number[]>((value): value is number[] => Array.isArray(value))
    .required()
    .meta({ most })
    .test(
      'numbers',
      `\${path} must be ${least === most ? least : `${least} to ${most}`} numbers from ${low} to ${high}`,
      (value) => value == null || (value.length >= least && value.length <= most && value.every(within(low, high))),
    )

/** An object that refuses fields it does not know. */
export const only = <S extends ObjectShape>(shape: S) =>
  object(shape).noUnknown('${path} has a field that is not known').required()

/** The kind of failure of a rule that could not be asked, since the fields it asks about are not there. */
export const UNREADABLE = 'unreadable'

/**
 * An object whose fields must agree with each other: each rule has a name, what to say when it does not hold, and a test.
 *
 * A rule is asked before anybody knows that the fields are right. One that stumbles over a missing field has not held;
 * what is said then is the missing field alone.
 */
export function ruled<S extends AnyObjectSchema>(
  schema: S,
  ...rules: [name: string, message: string, holds: (value: InferType<S>) => boolean][]
): S {
  return rules.reduce(
    (all, [name, message, holds]) =>
      all.test(name, message, function (value: InferType<S> | null | undefined) {
        if (value == null) return true
        try {
          return holds(value)
        } catch {
          return this.createError({ message, type: UNREADABLE })
        }
      }),
    schema,
  )
}

export { array, boolean, mixed, string }
export type { InferType }
