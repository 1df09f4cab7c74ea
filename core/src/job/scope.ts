/** What a visit is for: it says which gates this job has no need of. */
export const SCOPES = ['whole', 'one-train', 'in-place', 'untouched'] as const
export type ScopeKind = (typeof SCOPES)[number]

export const SCOPE_TITLES: Record<ScopeKind, string> = {
  whole: 'The whole movement',
  'one-train': 'One train only',
  'in-place': 'Serviced in place, plates left together',
  untouched: 'Goes back as it came',
}

/** Why a clock stands and waits. */
export const WAITS = ['', 'parts', 'owner'] as const
export type WaitsFor = (typeof WAITS)[number]

/** How a job came to its end, where it was not handed over. */
export type Ending = '' | 'called-off'
