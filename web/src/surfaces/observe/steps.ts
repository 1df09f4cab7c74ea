/** A stop on the walk round a clock before it is touched. */
export interface WalkStep {
  key: string
  title: string
  ask: string
  kind: 'look' | 'runs' | 'arc' | 'listen' | 'drive' | 'strike' | 'wear'
}

/** The walk, in an order that touches nothing until all is seen; the strike only where there is one. */
export function walkSteps(strikes: boolean): WalkStep[] {
  return [
    {
      key: 'hands',
      kind: 'look',
      title: 'Hands',
      ask: 'Free of each other, of dial and glass, right round? Bent, loose, a lost pin?',
    },
    { key: 'dial', kind: 'look', title: 'Dial', ask: 'Flaking, worn, re-painted? Its feet and pins? Wipe nothing.' },
    { key: 'case', kind: 'look', title: 'Case', ask: 'Loose joints, glass, worm, a door that hangs on the pendulum?' },
    { key: 'runs', kind: 'runs', title: 'Does it run?', ask: 'Set it going as it stands, plumb, with its own power.' },
    { key: 'arc', kind: 'arc', title: 'Arc', ask: 'Where the tip turns, either side, on the paper scale under it.' },
    { key: 'listen', kind: 'listen', title: 'Listen', ask: 'A minute is enough for beat and rate.' },
    {
      key: 'drive',
      kind: 'drive',
      title: 'Drive margin',
      ask: 'The least that keeps it going, against what is fitted.',
    },
    ...(strikes
      ? [
          {
            key: 'strike-round',
            kind: 'strike' as const,
            title: 'Strike',
            ask: 'Round the dial as far as it goes, each hour let finish; a picture of each lock.',
          },
        ]
      : []),
    {
      key: 'wear',
      kind: 'wear',
      title: 'Wear, with the power on',
      ask: 'Rock the great wheel: which pivot shakes, and which way?',
    },
  ]
}

/** Blows that are wrong, hour by hour, in words; nothing where all that were counted are right. */
export function wrongBlows(counted: { hour: number; blows: number }[]): string[] {
  return counted.filter((c) => c.blows !== c.hour).map((c) => `${c.blows} at ${c.hour}`)
}
