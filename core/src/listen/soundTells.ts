import type { SideSound } from './sideSound.ts'

/** What the two sides' sound tells, as a hint and never as a proof. */
export interface SoundHint {
  kind: 'loud drop' | 'double drop' | 'rustles more'
  side: 0 | 1
  /** by how much, dB, or ms after the drop for a second one */
  by: number
  sure: 'likely' | 'perhaps'
}

/** One drop so much louder than the other falls farther, dB. */
const LOUDER_DB = 6
const MUCH_LOUDER_DB = 9
/** A second knock nearly as sudden as the drop, so soon after it, is a drop in two. */
const SECOND_SHARE = 0.6
const SECOND_FROM_MS = 2
const SECOND_TO_MS = 14
/** Against an earlier listening with the same side's drop: so much more between the knocks is rustle, dB. */
const RUSTLES_DB = 6

/**
 * Hints from how both sides sound: a drop much louder than the other (it falls farther: that pallet too shallow), a drop
 * in two, and, against an earlier listening, more rustle between the knocks (dirt, dry faces).
 */
export function soundTells(sides: [SideSound, SideSound], before: [SideSound, SideSound] | null = null): SoundHint[] {
  const hints: SoundHint[] = []
  const louder = sides[0].loudnessDb - sides[1].loudnessDb
  if (Math.abs(louder) >= LOUDER_DB)
    hints.push({
      kind: 'loud drop',
      side: louder > 0 ? 0 : 1,
      by: Math.abs(louder),
      sure: Math.abs(louder) >= MUCH_LOUDER_DB ? 'likely' : 'perhaps',
    })
  for (const side of [0, 1] as const) {
    const second = sides[side].knocks.find(
      (k) => k.ms >= SECOND_FROM_MS && k.ms <= SECOND_TO_MS && k.share >= SECOND_SHARE,
    )
    if (second)
      hints.push({ kind: 'double drop', side, by: second.ms, sure: second.share > 0.8 ? 'likely' : 'perhaps' })
    const more = before ? sides[side].rustleDb - before[side].rustleDb : 0
    if (more >= RUSTLES_DB) hints.push({ kind: 'rustles more', side, by: more, sure: 'perhaps' })
  }
  return hints
}
