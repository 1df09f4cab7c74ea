import { TRAIN_NAMES } from '../train/names.ts'

/** A hole's place in the movement. */
export interface WorkingPlace {
  train: string
  plate: 'front' | 'back'
  /** 0 at the great wheel, rising to the escape and pallet arbors */
  arborIndex: number
}

/** The order in which holes are bushed: train by train, one plate at a time, from the great wheel up. */
export function byWorkingOrder(a: WorkingPlace, b: WorkingPlace): number {
  return rank(a.train) - rank(b.train) || a.plate.localeCompare(b.plate) * -1 || a.arborIndex - b.arborIndex
}

function rank(train: string): number {
  const at = (TRAIN_NAMES as readonly string[]).indexOf(train)
  return at === -1 ? TRAIN_NAMES.length : at
}
