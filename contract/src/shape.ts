import type { SchemaDescription, SchemaFieldDescription, SchemaObjectDescription } from 'yup'

type Described = SchemaFieldDescription & Partial<SchemaDescription>

/**
 * The path of the first thing in a value that is of another kind than its schema says (a number where there should be a
 * list, a word that is none of a few, a field that is missing); null: what reads it finds what it expects. An empty path is
 * the value itself.
 *
 * It looks at kinds only, not at bounds: what is far too large can be read and shown all the same.
 */
export function shapeFault(description: SchemaFieldDescription, value: unknown, path = ''): string | null {
  const d = description as Described
  if (value === undefined || value === null) return d.optional === true || d.nullable === true ? null : path
  if (d.oneOf !== undefined && d.oneOf.length > 0) return d.oneOf.includes(value) ? null : path
  switch (d.type) {
    case 'object': {
      if (typeof value !== 'object' || Array.isArray(value)) return path
      for (const [name, field] of Object.entries((d as unknown as SchemaObjectDescription).fields)) {
        const fault = shapeFault(
          field,
          (value as Record<string, unknown>)[name],
          path === '' ? name : `${path}.${name}`,
        )
        if (fault !== null) return fault
      }
      return null
    }
    case 'array': {
      if (!Array.isArray(value)) return path
      const inner = (d as unknown as { innerType?: SchemaFieldDescription }).innerType
      if (!inner) return null
      for (let i = 0; i < value.length; i++) {
        const fault = shapeFault(inner, value[i], `${path}[${i}]`)
        if (fault !== null) return fault
      }
      return null
    }
    case 'number':
    case 'string':
    case 'boolean':
      return typeof value === d.type ? null : path
    default:
      // Many plain numbers in one go.
      return d.meta !== undefined && !Array.isArray(value) ? path : null
  }
}

const described = new WeakMap<object, SchemaObjectDescription['fields']>()

/** The fields of a schema of rows as it describes them, reckoned once. */
export function fieldsOf(schema: { describe: () => unknown }): SchemaObjectDescription['fields'] {
  const there = described.get(schema)
  if (there) return there
  const { fields } = schema.describe() as SchemaObjectDescription
  described.set(schema, fields)
  return fields
}
