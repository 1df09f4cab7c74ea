import type { HoleFacts } from './facts.ts'
import type { HoleJudged } from './judge.ts'

/** How a hole stands, in a word: bushed before anything else, then its verdict. */
export type HoleState = 'open' | 'must' | 'watch' | 'sound' | 'bushed' | 'waived'

export function stateOf(hole: Pick<HoleFacts, 'bushed'> | undefined, judged: HoleJudged | undefined): HoleState {
  if (!hole || !judged) return 'open'
  if (hole.bushed) return 'bushed'
  if (judged.verdict === 'bush') return 'must'
  if (judged.verdict === null) return judged.done ? 'waived' : 'open'
  return judged.nearLimit ? 'watch' : 'sound'
}
