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

/** The fields of a row that people read, by its schema; those of an object within it by their path too. */
export function wordsOf(schema: RowSchema): Record<string, FieldWords> {
  return wordsOfFields(schema.describe() as SchemaObjectDescription)
}

function wordsOfFields({ fields }: SchemaObjectDescription): Record<string, FieldWords> {
  return Object.fromEntries(
    Object.entries(fields).flatMap(([key, field]): [string, FieldWords][] => {
      // What has no name of its own is called as it is kept: nothing that people changed goes unseen.
      const words = { label: labelOf(field) ?? spaced(key), say: (value: unknown) => said(key, field, value) }
      if (!isObject(field)) return HIDDEN.has(key) ? [] : [[key, words]]
      // An object of which nothing has a name is for no reader.
      if (labelOf(field) === undefined && !Object.values(field.fields).some((f) => labelOf(f) !== undefined)) return []
      const inner = Object.entries(wordsOfFields(field)).map(([k, w]): [string, FieldWords] => [`${key}.${k}`, w])
      return [[key, words], ...inner]
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
  if (typeof value !== 'object') return 'something else'
  if (!field || !isObject(field)) return sayPlain(value)
  const words = wordsOfFields(field)
  return (
    Object.entries(value)
      .flatMap(([k, v]) => (words[k] && v !== null && v !== '' ? [`${words[k].label} ${words[k].say(v)}`] : []))
      .join(', ') || '–'
  )
}

/** A value in words where no schema speaks of it. */
export function sayPlain(value: unknown): string {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return said('', undefined, value)
  const told = Object.entries(value).filter(([, v]) => v !== null && v !== '' && typeof v !== 'object')
  return told.map(([key, v]) => `${spaced(key).toLowerCase()} ${said(key, undefined, v)}`).join(', ') || '–'
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
