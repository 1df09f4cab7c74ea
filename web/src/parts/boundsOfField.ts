import type { SchemaDescription, SchemaObjectDescription } from 'yup'
import type { RowSchema } from './fieldWords.ts'

interface Bounds {
  min?: number
  max?: number
  whole?: boolean
}

/** What a schema tells of its fields: telling takes long, and a page draws thirty figures of one schema at each press. */
const told = new WeakMap<RowSchema, SchemaObjectDescription>()

/** The bounds of a figure by its schema, so that they are said once for both sides. */
export function boundsOfField(of: [schema: RowSchema, field: string] | undefined): Bounds {
  if (!of) return {}
  const [schema, name] = of
  const { tests = [] } = (fieldsOf(schema)[name] ?? {}) as Partial<SchemaDescription>
  const bound = (test: string) => {
    const found = tests.find((t) => t.name === test)?.params?.[test]
    return typeof found === 'number' ? found : undefined
  }
  return { min: bound('min'), max: bound('max'), whole: tests.some((t) => t.name === 'integer') }
}

function fieldsOf(schema: RowSchema): SchemaObjectDescription['fields'] {
  const known = told.get(schema) ?? (schema.describe() as SchemaObjectDescription)
  told.set(schema, known)
  return known.fields
}
