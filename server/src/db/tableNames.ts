import type { PgTable } from 'drizzle-orm/pg-core'
import type * as schema from './schema.ts'

type Tables = typeof schema
type NamedBy<K extends keyof Tables> = Tables[K] extends PgTable ? Tables[K]['_']['name'] : never
/** Every table of the workshop’s book. */
type AnyTable = { [K in keyof Tables]: NamedBy<K> }[keyof Tables]

/** A secret of this machine, the bytes of files, which travel as files, and which change was the last. */
export const LEFT_HERE = ['calendar_keys', 'file_chunks', 'last_changes'] as const satisfies AnyTable[]
/** A table whose rows travel, and have a schema. */
export type CarriedName = Exclude<AnyTable, (typeof LEFT_HERE)[number]>
/** The table of that name. */
export type TableOf<N extends CarriedName> = Extract<Tables[keyof Tables], PgTable & { _: { name: N } }>
