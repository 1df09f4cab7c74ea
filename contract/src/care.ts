import type { CareDue, CareState, Owed } from '@treadle/core'
import type { CardChoices } from './card.ts'

/** What falls due of a clock at home, and how it stands; said done or put off as any other thing owed to its last visit. */
export interface CareListed extends CareDue {
  owed: Owed
  state: CareState
  jobId: string
  number: number
  /** ISO 8601; null: this visit did not oil it */
  oiledOn: string | null
  clock: { id: string; name: string; card: CardChoices | null }
  owner: { name: string; address: string; phone: string }
}
