import type { SchemaFieldDescription, SchemaObjectDescription } from 'yup'
import { figure, whenShort, yesNo } from './say.ts'

/** A field of a row as people read it: what it is called, and its value in words and units. */
export interface FieldWords {
  label: string
  say: (value: unknown) => string
}

const UNITS: [RegExp, string][] = [
  [/Mm$/, 'mm'],
  [/Deg$/, '°'],
  [/Kg$/, 'kg'],
  [/(Seconds|S)$/, 's'],
  [/Percent$/, '%'],
  [/Ms$/, 'ms'],
  [/Points$/, 'points'],
  [/SecondsPerDay$/, 's a day'],
  [/Ppm$/, 'ppm'],
  [/M$/, 'm'],
]

/** A row’s schema, as far as it tells of itself. */
export interface RowSchema {
  describe: () => unknown
}

/** What is written with a row and is not for reading. */
const HIDDEN = new Set(['id', 'version'])

/** The fields of a row that people read, by its schema. */
export function wordsOf(schema: RowSchema): Record<string, FieldWords> {
  return wordsOfFields(schema.describe() as SchemaObjectDescription)
}

function wordsOfFields({ fields }: SchemaObjectDescription): Record<string, FieldWords> {
  return Object.fromEntries(
    Object.entries(fields).flatMap(([key, field]): [string, FieldWords][] => {
      const label = labelOf(field)
      if (label !== undefined) return [[key, { label, say: (value) => said(key, field, value) }]]
      // What has no name of its own is called as it is kept: nothing that people changed goes unseen. A nested object
      // without a name is read by its fields, and one of which none has a name is for no reader.
      if (!isObject(field))
        return HIDDEN.has(key) ? [] : [[key, { label: spaced(key), say: (value) => said(key, field, value) }]]
      return Object.values(field.fields).some((f) => labelOf(f) !== undefined)
        ? [[key, { label: spaced(key), say: (value) => said(key, field, value) }]]
        : []
    }),
  )
}

function said(key: string, field: SchemaFieldDescription | undefined, value: unknown): string {
  if (value === null || value === undefined || value === '') return '–'
  if (typeof value === 'boolean') return yesNo(value)
  if (typeof value === 'number') return withUnit(key, value)
  if (typeof value === 'string') return /^\d{4}-\d\d-\d\dT/.test(value) ? whenShort(value) : value
  if (Array.isArray(value)) {
    const inner = (field as { innerType?: SchemaFieldDescription } | undefined)?.innerType
    return value.length === 0 ? 'none' : value.map((item) => said(key, inner, item)).join('; ')
  }
  if (typeof value !== 'object' || !field || !isObject(field)) return 'something else'
  const words = wordsOfFields(field)
  return (
    Object.entries(value)
      .flatMap(([k, v]) => (words[k] && v !== null && v !== '' ? [`${words[k].label} ${words[k].say(v)}`] : []))
      .join(', ') || '–'
  )
}

function withUnit(key: string, value: number): string {
  const unit = UNITS.findLast(([pattern]) => pattern.test(key))?.[1] ?? ''
  return unit === '' ? figure(value) : unit === '°' ? `${figure(value)}°` : `${figure(value)} ${unit}`
}

const isObject = (field: SchemaFieldDescription): field is SchemaObjectDescription =>
  field.type === 'object' && 'fields' in field
const labelOf = (field: SchemaFieldDescription) => ('label' in field ? field.label : undefined)
/** "taxPercent" → "Tax percent" */
const spaced = (key: string) =>
  `${key.charAt(0).toUpperCase()}${key.slice(1).replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`)}`
