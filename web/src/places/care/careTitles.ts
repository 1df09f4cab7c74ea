import type { CareDue, CareKind } from '@treadle/core'

/** What falls due, as it is said. */
const TITLES: Record<CareKind, string> = {
  check: 'oil, to be looked at',
  service: 'service',
  guarantee: 'guarantee ends',
}

/** What falls due, and what is inspected with it. */
export function careTitle({ kind, withIt }: Pick<CareDue, 'kind' | 'withIt'>): string {
  return withIt.length === 0 ? TITLES[kind] : `${TITLES[kind]}, with ${new Intl.ListFormat('en-GB').format(withIt)}`
}
