import { DEFAULT_SETTINGS, type Settings } from '@treadle/contract'
import type { Queries } from '../db/connect.ts'
import { settings } from '../db/schema.ts'

/** The workshop's settings; those that a newer version added have their defaults. */
export async function readSettings(queries: Queries): Promise<Settings> {
  const found = await queries.select().from(settings)
  return settingsFrom(found[0]?.values ?? {}, found[0]?.version ?? 0)
}

/** Settings as they were kept, with the defaults of those that were not known then. */
export function settingsFrom(values: Partial<Settings>, version: number): Settings {
  return {
    ...DEFAULT_SETTINGS,
    timeZone: hereZone(),
    ...values,
    beat: { ...DEFAULT_SETTINGS.beat, ...values.beat },
    bushing: { ...DEFAULT_SETTINGS.bushing, ...values.bushing },
    version,
  }
}

/** The time zone of this machine, which stands in the workshop; the workshop may say another. */
function hereZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone
}
