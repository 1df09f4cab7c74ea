import { DEFAULT_SETTINGS, Settings as SettingsSchema, type Settings } from '@treadle/contract'
import { ValidationError } from 'yup'
import type { Queries } from '../db/connect.ts'
import { settings } from '../db/schema.ts'

/** The workshop's settings; those that a newer version added have their defaults. */
export async function readSettings(queries: Queries): Promise<Settings> {
  return (await settingsAndFaults(queries)).settings
}

/** The same, and which of them could not be read: for those the defaults stand until they are set anew. */
export async function settingsAndFaults(queries: Queries): Promise<{ settings: Settings; faults: string[] }> {
  const found = await queries.select().from(settings)
  const values: unknown = found[0]?.values ?? {}
  const plain = typeof values === 'object' && values !== null && !Array.isArray(values)
  const kept = settingsFrom(plain ? values : {}, found[0]?.version ?? 0)
  const faults = plain ? faultsOf(kept) : ['values']
  const defaults = settingsFrom({}, kept.version)
  return {
    settings: { ...kept, ...Object.fromEntries(faults.map((key) => [key, defaults[key as keyof Settings]])) },
    faults,
  }
}

/** Settings are asked for at every press; they are looked at anew only when they have changed. */
let looked: { text: string; faults: string[] } = { text: '', faults: [] }

function faultsOf(kept: Settings): string[] {
  const text = JSON.stringify(kept)
  if (looked.text === text) return looked.faults
  let faults: string[] = []
  try {
    SettingsSchema.validateSync(kept, { strict: true, abortEarly: false })
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const all = error.inner.length > 0 ? error.inner : [error]
    faults = [...new Set(all.map((e) => e.path?.split(/[.[]/)[0] ?? ''))].filter((key) =>
      Object.hasOwn(DEFAULT_SETTINGS, key),
    )
  }
  looked = { text, faults }
  return faults
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
