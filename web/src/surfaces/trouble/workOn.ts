/** What is done about a cause, in words, and the surface on which it is done. */
export interface WorkOnIt {
  say: string
  title: string
  path: string
}

const WORK: Record<string, WorkOnIt> = {
  'beat-out': {
    say: 'Set it in beat: hear it, then pack or bend.',
    title: 'Hear it and set it in beat',
    path: 'listen',
  },
  'crutch-rubs': {
    say: 'Free the crutch: the rod in the middle of the fork, with just free clearance; then the beat again.',
    title: 'Then hear its beat',
    path: 'listen',
  },
  suspension: {
    say: 'Replace the suspension by the same thickness and length, both blades equal.',
    title: 'Put it in the estimate',
    path: 'estimate',
  },
  'oil-dry': {
    say: 'Do not oil it as it is: take it down, look at its holes, clean it, then oil.',
    title: 'Let its power down',
    path: 'power',
  },
  dirt: { say: 'Clean it, and peg out every hole.', title: 'Let its power down', path: 'power' },
  'worn-holes': {
    say: 'Find which: each wheel between the empty plates, clean and dry.',
    title: 'Test between the plates',
    path: 'between-plates',
  },
  'bent-tooth': {
    say: 'Find which tooth: hear it with the teeth of the escape wheel given.',
    title: 'Hear it tooth by tooth',
    path: 'listen',
  },
  'bent-pivot': { say: 'Find it, and say to the owner that it may break.', title: 'Go to the pivots', path: 'pivots' },
}

/** What to do about a cause, where the software has a surface for it. */
export function workOn(cause: string): WorkOnIt | null {
  return WORK[cause] ?? null
}
