import { array, boolean, number, object, string, type InferType, type ObjectShape } from 'yup'

/** An id made by whoever makes the row: a UUID, so that a repeated request makes one row. */
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i
export const id = () => string().required().matches(UUID, '${path} must be a UUID')
/** The id of another row, or none. */
export const idOrNone = () => string().matches(UUID, '${path} must be a UUID').nullable().defined()
/** The version a change was made on; 0 makes a new row. */
export const version = () => number().integer().min(0).required()
export const line = (most = 200) => string().max(most)
export const requiredLine = (most = 200) => string().trim().min(1).max(most).required()
export const text = (most = 5000) => string().max(most)
/** A moment, ISO 8601 with its zone. */
export const moment = () =>
  string()
    .required()
    .matches(
      /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:\d\d)$/,
      '${path} must be a moment such as 2026-03-01T09:30:00Z',
    )
    .test(
      'real',
      '${path} must be a day and time that exist',
      (value: string | null | undefined) => value == null || !Number.isNaN(Date.parse(value)),
    )
/** A day, ISO 8601. */
export const day = () =>
  string().matches(/^\d{4}-\d\d-\d\d$/, {
    message: '${path} must be a day such as 2026-03-01',
    excludeEmptyString: true,
  })
/** A measured value: finite, and within what the thing can be. */
export const measured = (low: number, high: number) =>
  number()
    .min(low)
    .max(high)
    .test('finite', '${path} must be a finite number', (v) => v === undefined || v === null || Number.isFinite(v))

/** An object that refuses fields it does not know. */
export const only = <S extends ObjectShape>(shape: S) => object(shape).noUnknown().required()

export { array, boolean, number, string }
export type { InferType }
