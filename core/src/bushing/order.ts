/** A hole's place in the movement. */
export interface HolePlace {
  train: string
  plate: 'front' | 'back'
  /** 0 at the great wheel, rising to the escape and pallet arbors */
  arborIndex: number
}

const TRAIN_ORDER = ['going', 'strike', 'chime']

/** The order in which holes are bushed: train by train, one plate at a time, from the great wheel up. */
export function byWorkingOrder(a: HolePlace, b: HolePlace): number {
  return rank(a.train) - rank(b.train) || a.plate.localeCompare(b.plate) * -1 || a.arborIndex - b.arborIndex
}

function rank(train: string): number {
  const at = TRAIN_ORDER.indexOf(train)
  return at === -1 ? TRAIN_ORDER.length : at
}
