import type { CareKind } from '@treadle/core'

/** What falls due, as it is said. */
export const CARE_TITLES: Record<CareKind, string> = {
  check: 'oil, to be looked at',
  service: 'service',
  guarantee: 'guarantee ends',
}
