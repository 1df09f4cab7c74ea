import { step, type WorkStep } from '../steps/step.ts'
import { STRIKE_KIND_FACTS, type StrikeKind } from './kinds.ts'

/** Setting a strike up as it goes together: how its trains are indexed, in their order. */
export function strikeSteps(kind: StrikeKind): WorkStep[] {
  const { counts, quarters } = STRIKE_KIND_FACTS[kind]
  const bird = kind === 'bird-two' || kind === 'bird-three'
  return [
    step(
      'lock',
      'Stand the locking wheel at its lock',
      'Its pin against the lock, the train pressed lightly by hand as it would be driven. Put the meshes at their marks.',
      'Let go, the train races: fingers out of its fly, wheels and hammers.',
    ),
    step(
      'hammer',
      'The hammer tail just free',
      'With the train locked the last pin has let the tail go, and the next is not under it yet. Else turn the pin wheel by a tooth in its mesh.',
    ),
    step(
      'warning',
      'The warning pin half a turn away',
      'Locked, the warning pin stands about half a turn before its lever: it must run clear of the lock before it is held. Else turn the warning wheel in its mesh.',
    ),
    ...(counts === 'count wheel'
      ? [
          step(
            'count',
            'The detent in the middle of a slot',
            'Locked, the count lever lies at the bottom of a slot, free on both sides. The wheel faces and turns as its mark says.',
          ),
        ]
      : [
          step(
            'pallet',
            'The gathering pallet clear of the rack',
            'Locked, it has let go of the last tooth and its tail is at the stop; the rack falls freely past it. Press it on lightly until it is proved.',
          ),
          step(
            'rack',
            'The rack on the snail at one and at twelve',
            'By hand: the tail comes down in the middle of the step at both, and the teeth that fall are one and twelve.',
          ),
        ]),
    ...(quarters === 'chime'
      ? [
          step(
            'chime-lock',
            'The chime’s locking plate and its drum',
            'Let the chime run by hand to the four of the hour; its lock falls into the plate’s deepest slot. Then the drum: the first quarter begins its tune.',
          ),
          step(
            'lifts',
            'Four lifts, the fourth high',
            'Turn the hands round once: three low lifts let only the chime go; the fourth, the hour’s, lets the strike warn too, and the chime’s last run lets it go.',
          ),
          step(
            'hammers',
            'Hammers free of their rods',
            'At rest no hammer lies on its rod and none stands on the drum; bend the stop wires a little, and give them a trace of grease.',
          ),
        ]
      : []),
    ...(quarters === 'pairs'
      ? [
          step(
            'pairs',
            'Two hammers at the quarters, one at the hour',
            'The second hammer is held off at the hour; at the quarters it falls after the first, never with it.',
          ),
        ]
      : []),
    ...(bird
      ? [
          step(
            'bellows',
            'The two bellows, high note first',
            'Their wires are on the right lifters: high, then low, then the gong. Bellows and cloth stay dry, of water and of oil.',
          ),
          step(
            'birds',
            kind === 'bird-three' ? 'Both birds indexed' : 'The bird indexed',
            'Outside its case: at rest the bird is home and its door shut; at the first note it is out. Then it goes into the case.',
          ),
        ]
      : []),
    ...(kind === 'bird-three'
      ? [
          step(
            'handover',
            'The quarters let the hours go',
            'After the fourth quarter call the hour’s train warns and is let go; after the others it stays locked.',
          ),
        ]
      : []),
    ...(kind === 'repeater'
      ? [
          step(
            'cord',
            'Pull the cord',
            'At any minute it strikes the hour that has passed; just after the hour too, so the star wheel has jumped in time.',
          ),
        ]
      : []),
    step(
      'hour',
      'One and twelve',
      'Turn the hands through one and through twelve and let each finish; then close the plates.',
    ),
  ]
}

/** What of a strike forgives being put together anyhow, and what doesn’t. */
export function strikeForgives(kind: StrikeKind): { matters: string[]; forgives: string[] } {
  const { counts, quarters } = STRIKE_KIND_FACTS[kind]
  const matters = [
    'Locking wheel, pin wheel and warning wheel against each other: lock, hammer tail and warning run.',
    ...(counts === 'count wheel'
      ? ['The count wheel’s slot under its detent, and which way it faces.']
      : ['The gathering pallet on its square; the snail’s step under the rack’s tail.']),
  ]
  if (quarters === 'chime')
    return {
      matters: [
        'The chime’s locking plate against its lock, and the drum against the locking plate.',
        'The height of the fourth lift.',
      ],
      forgives: [
        'The strike train: its rack counts anew each hour, so it only has to lock with its hammer free.',
        'Where the fly’s pinion meshes.',
      ],
    }
  return {
    matters,
    forgives:
      counts === 'count wheel'
        ? ['Which hour it is at: it is tripped round by hand afterwards.', 'Where the fly’s pinion meshes.']
        : ['Which hour it is at: the rack counts anew each time.', 'Where the fly’s pinion meshes.'],
  }
}
