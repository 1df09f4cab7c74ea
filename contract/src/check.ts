import { ValidationError, type Schema } from 'yup'
import type { FieldProblem } from './problem.ts'

export type Checked<T> = { ok: true; value: T } | { ok: false; errors: FieldProblem[] }

/** Checks a value against a schema, strictly ("3600" is no number), and lists every field that is wrong. */
export async function check<T>(schema: Schema<T>, value: unknown): Promise<Checked<T>> {
  try {
    return { ok: true, value: await schema.validate(value, { strict: true, abortEarly: false }) }
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const each = error.inner.length > 0 ? error.inner : [error]
    return { ok: false, errors: each.map((e) => ({ field: e.path ?? '', message: e.message })) }
  }
}
