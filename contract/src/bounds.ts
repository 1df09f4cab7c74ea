import type { Schema, SchemaDescription, SchemaFieldDescription, SchemaObjectDescription } from 'yup'
import type { FieldProblem } from './problem.ts'

/** No row of ours is nested deeper than half of this. */
const DEEPEST = 12
/** What no schema describes, such as a table before it is known which, may have so many items or names. */
const MOST_UNDESCRIBED = 5000

type Bounds = (value: unknown) => FieldProblem | null
const known = new WeakMap<object, Bounds>()

/**
 * The bounds of what a schema describes: no list longer, no nesting deeper, and no characters that a database can't
 * keep (NUL, half of a pair). Gives the first thing outside them, or null.
 *
 * It looks at lengths before it looks at items, so what is refused costs nothing, however much of it there is.
 */
export function boundsOf(schema: Schema<unknown>): Bounds {
  const there = known.get(schema)
  if (there) return there
  const description = schema.describe()
  const bounds: Bounds = (value) => outside(description, value, '', 0)
  known.set(schema, bounds)
  return bounds
}

function outside(
  schema: SchemaFieldDescription | undefined,
  value: unknown,
  path: string,
  depth: number,
): FieldProblem | null {
  const field = (message: string): FieldProblem => {
    const label = schema && 'label' in schema ? schema.label : undefined
    return { field: path, message: `${label ?? (path === '' ? 'This' : path)} ${message}` }
  }
  if (typeof value === 'string') return keepable(value) ? null : field('has a character that can’t be kept')
  if (typeof value !== 'object' || value === null) return null
  if (depth >= DEEPEST) return field('is nested too deep')
  if (Array.isArray(value)) {
    const most = mostOf(schema)
    if (value.length > most) return field(`may have ${most} at most; there are ${value.length}`)
    const inner = schema?.type === 'array' ? (schema as { innerType?: SchemaFieldDescription }).innerType : undefined
    return first(value, (item, i) => outside(inner, item, `${path}[${i}]`, depth + 1))
  }
  const names = Object.keys(value)
  const fields = schema?.type === 'object' ? (schema as SchemaObjectDescription).fields : undefined
  if (names.length > MOST_UNDESCRIBED) return field('has too many fields')
  return first(names, (name) =>
    keepable(name)
      ? outside(
          fields?.[name],
          (value as Record<string, unknown>)[name],
          path === '' ? name : `${path}.${name}`,
          depth + 1,
        )
      : field('has a field whose name can’t be kept'),
  )
}

/** How many items a list may have: as its schema says. */
export function mostOf(schema: SchemaFieldDescription | undefined): number {
  const { tests = [], meta } = (schema ?? {}) as Partial<SchemaDescription>
  const told = (meta as { most?: number } | undefined)?.most
  const most =
    tests.find((t) => t.name === 'max')?.params?.max ?? tests.find((t) => t.name === 'length')?.params?.length
  return told ?? (typeof most === 'number' ? most : MOST_UNDESCRIBED)
}

/** Whether the database can keep these words: no NUL, and no half of a pair of code units. */
export function keepable(words: string): boolean {
  return !/\0|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(words)
}

function first<T>(items: T[], look: (item: T, i: number) => FieldProblem | null): FieldProblem | null {
  for (let i = 0; i < items.length; i++) {
    const problem = look(items[i] as T, i)
    if (problem) return problem
  }
  return null
}
