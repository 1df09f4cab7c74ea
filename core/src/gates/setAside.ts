import type { GateName } from './gates.ts'

/** A gate that a person set aside in writing. */
export interface SetAside {
  gate: GateName
  reason: string
  /** where an archive brought it: by which; it was decided elsewhere, of a clock that nobody here had seen */
  brought?: object | null
}

/** Whether it was decided here: only then it opens the gate. */
export function isOurs({ brought }: Pick<SetAside, 'brought'>): boolean {
  return (brought ?? null) === null
}
