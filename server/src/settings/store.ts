import { DEFAULT_SETTINGS, type Settings } from '@treadle/contract'
import type { Queries } from '../db/connect.ts'
import { settings } from '../db/schema.ts'

/** The workshop's settings; those that a newer version added have their defaults. */
export async function readSettings(queries: Queries): Promise<Settings> {
  const found = await queries.select().from(settings)
  const row = found[0]
  const usual = { ...DEFAULT_SETTINGS, timeZone: hereZone() }
  if (!row) return { ...usual, version: 0 }
  const { values } = row
  return {
    ...usual,
    ...values,
    beat: { ...DEFAULT_SETTINGS.beat, ...values.beat },
    bushing: { ...DEFAULT_SETTINGS.bushing, ...values.bushing },
    version: row.version,
  }
}

/** The time zone of this machine, which stands in the workshop; the workshop may say another. */
function hereZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone
}
