import type { SchemaDescription, SchemaObjectDescription } from 'yup'
import type { RowSchema } from './fieldWords.ts'

interface Bounds {
  min?: number
  max?: number
  whole?: boolean
}

/** The bounds of a figure by its schema, so that they are said once for both sides. */
export function boundsOfField(of: [schema: RowSchema, field: string] | undefined): Bounds {
  if (!of) return {}
  const [schema, name] = of
  const { tests = [] } = ((schema.describe() as SchemaObjectDescription).fields[name] ??
    {}) as Partial<SchemaDescription>
  const bound = (test: string) => {
    const found = tests.find((t) => t.name === test)?.params?.[test]
    return typeof found === 'number' ? found : undefined
  }
  return { min: bound('min'), max: bound('max'), whole: tests.some((t) => t.name === 'integer') }
}
