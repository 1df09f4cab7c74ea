interface Standing {
  parted: boolean
  /** the first train that is not confirmed off */
  train: { train: string } | undefined
  /** its next proof that nobody has tried by hand */
  proof: { key: string; says: string } | undefined
  /** how it is let down, in words */
  method: string
  /** meshes that are neither marked nor waived */
  unmarked: number
}

export type Next = { label: string; hint?: string } & (
  { what: 'take-apart' } | { what: 'mark' } | { what: 'part' } | { what: 'proof'; key: string } | { what: 'off' }
)

/** What the foot does now: each proof of each train by hand, the marks, then the plates are parted, and on. */
export function nextOf({ parted, train, proof, method, unmarked }: Standing): Next {
  if (parted) return { what: 'take-apart', label: 'Press to go on to taking it apart' }
  if (train && proof)
    return {
      what: 'proof',
      key: proof.key,
      label: `Press when tried: ${proof.says.split(/[:,]/)[0]?.toLowerCase() ?? ''}`,
      hint: `${train.train} train`,
    }
  if (train) return { what: 'off', label: `Press when the ${train.train} train is off`, hint: method }
  if (unmarked > 0)
    return { what: 'mark', label: 'Press to mark its meshes', hint: `${unmarked} to mark before parting` }
  return { what: 'part', label: 'Press to part the plates', hint: 'every train is off, every mesh marked' }
}
