import type { PgColumn } from 'drizzle-orm/pg-core'
import { ARCHIVE_VERSION } from './manifest.ts'
import { CARRIED } from './tables.ts'

/** The fields of every table of an archive, as JSON Schema (draft 2020-12). */
export function schemaOfTables(): object {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: `Tables of a Treadle archive, version ${ARCHIVE_VERSION}`,
    $defs: Object.fromEntries(
      CARRIED.map(({ name, columns }) => [
        name,
        {
          type: 'object',
          properties: Object.fromEntries(Object.entries(columns).map(([key, column]) => [key, typeOf(column)])),
          required: Object.keys(columns).filter((key) => isRequired(columns[key]!)),
          additionalProperties: false,
        },
      ]),
    ),
  }
}

/** Whether a row can’t be without it: what has a default, or may be null, an older archive need not have. */
export function isRequired(column: PgColumn): boolean {
  return column.notNull && !column.hasDefault
}

function typeOf(column: PgColumn): object {
  const or = (type: string, more: object = {}) => ({ type: column.notNull ? type : [type, 'null'], ...more })
  switch (column.columnType) {
    case 'PgUUID':
      return or('string', { format: 'uuid' })
    case 'PgTimestamp':
      return or('string', { format: 'date-time' })
    case 'PgDateString':
      return or('string', { format: 'date' })
    case 'PgInteger':
    case 'PgSerial':
      return or('integer')
    case 'PgDoublePrecision':
    case 'PgReal':
      return or('number')
    case 'PgBoolean':
      return or('boolean')
    case 'PgJsonb':
      return {}
    default:
      return or('string')
  }
}
