import { ValidationError, type Schema } from 'yup'
import { UNREADABLE } from './fields.ts'
import { boundsOf } from './bounds.ts'
import type { FieldProblem } from './problem.ts'

export type Checked<T> = { ok: true; value: T } | { ok: false; errors: FieldProblem[] }

const MOST_ERRORS = 50

/**
 * Checks a value against a schema, strictly ("3600" is no number), and lists every field that is wrong.
 *
 * How long, how deep and of which characters a value is, is judged before its fields are: a flood is refused unread.
 */
export async function check<T>(schema: Schema<T>, value: unknown): Promise<Checked<T>> {
  const outside = boundsOf(schema)(value)
  if (outside) return { ok: false, errors: [outside] }
  try {
    return { ok: true, value: await schema.validate(value, { strict: true, abortEarly: false }) }
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const each = error.inner.length > 0 ? error.inner : [error]
    const said = each.filter((e) => e.type !== UNREADABLE)
    const errors = (said.length > 0 ? said : each).slice(0, MOST_ERRORS)
    return { ok: false, errors: errors.map((e) => ({ field: e.path ?? '', message: e.message })) }
  }
}
