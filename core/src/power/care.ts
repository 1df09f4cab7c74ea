/** What drives a train. */
export const POWERS = ['spring', 'open-spring', 'fusee', 'weight', 'remontoire', 'chime-drum'] as const
export type Power = (typeof POWERS)[number]

export const POWER_METHODS = ['let-down', 'clamped', 'run-down', 'weight-off', 'never-wound'] as const
export type PowerMethod = (typeof POWER_METHODS)[number]

export interface Proof {
  key: string
  says: string
}

export interface PowerCare {
  /** methods that fit, the default school's first */
  methods: PowerMethod[]
  wear: string
  hold: string
  steps: string[]
  wrong: string
  /** what must be tried by hand before it counts as off */
  proofs: Proof[]
}

const SQUARE: Proof = { key: 'square', says: 'The winding square turns free both ways' }
const WHEEL: Proof = { key: 'great-wheel', says: 'The great wheel turns by hand and pushes back nowhere' }

const SPRING_WEAR = 'Eye protection, and leather or heavy gloves.'
const SPRING_HOLD = 'The movement held fast in a stand or a padded vice, the square toward you.'
const OLD_CLICKS =
  'Old click work may fail at any moment: a worn click jumps, a click spring snaps, a rivet lets go. Keep the face out of line, and let the key, not the wrist, take a slip.'

/** What each kind of power asks for: how it is taken off, in which order, what may go wrong, and what proves it off. */
export const POWER_CARE: Record<Power, PowerCare> = {
  spring: {
    methods: ['let-down', 'clamped', 'run-down', 'never-wound'],
    wear: SPRING_WEAR,
    hold: SPRING_HOLD,
    steps: [
      'A let-down key that fits the square fully.',
      'Take the load on the key, then lift the click with a tool, never a finger.',
      'Let the handle slip a quarter turn at a time until nothing pushes back.',
    ],
    wrong: OLD_CLICKS,
    proofs: [SQUARE, WHEEL],
  },
  'open-spring': {
    methods: ['clamped', 'let-down', 'run-down', 'never-wound'],
    wear: `${SPRING_WEAR} Sleeves and hair tied back: an open spring throws itself.`,
    hold: SPRING_HOLD,
    steps: [
      'Wind until the coils go into a clamp of the right size, and put it on.',
      'Take the load on the key, lift the click with a tool, let down into the clamp a quarter turn at a time.',
      'The clamp stays on until the wheel is out and the spring lies in a winder.',
    ],
    wrong: `${OLD_CLICKS} An open spring let down without a clamp spreads over its neighbours and bends arbors.`,
    proofs: [
      SQUARE,
      WHEEL,
      { key: 'clamp', says: 'The spring lies in its clamp, or is slack and loose to the finger' },
    ],
  },
  fusee: {
    methods: ['let-down', 'run-down', 'never-wound'],
    wear: SPRING_WEAR,
    hold: SPRING_HOLD,
    steps: [
      'Let the clock run down, or let the fusee back under control, until chain or line is on the barrel.',
      'Key on the barrel square: take the load, lift the set-up click, let the set-up off a quarter turn at a time.',
      'Only then unhook chain or line.',
    ],
    wrong: `${OLD_CLICKS} The set-up keeps tension when the clock has long run down.`,
    proofs: [
      SQUARE,
      WHEEL,
      { key: 'set-up', says: 'The set-up is off: the barrel square turns free and the chain hangs slack' },
    ],
  },
  weight: {
    methods: ['weight-off', 'run-down', 'never-wound'],
    wear: 'Gloves on polished weights; feet out from under.',
    hold: 'Each weight in both hands before its line is slack.',
    steps: [
      'Let it down to where it can be held, or take it at the top.',
      'Lift it off its hook and set it on the floor, away from glass.',
      'Wire the line or chain so that it does not run off.',
    ],
    wrong: 'Old lines and hooks part under the hand; a falling weight breaks feet and glass.',
    proofs: [{ key: 'weight', says: 'The weight is off its hook and on the floor' }, WHEEL],
  },
  remontoire: {
    methods: ['let-down', 'run-down', 'never-wound'],
    wear: SPRING_WEAR,
    hold: SPRING_HOLD,
    steps: [
      'Main power off first, spring or weight.',
      'Then the second store: hold its arm or its small spring, release the detent, let it come to rest.',
    ],
    wrong: 'The small store stays wound when the great one is off, and drives the escapement on when it is touched.',
    proofs: [SQUARE, WHEEL, { key: 'second-store', says: 'The second store is slack: its arm stays where it is put' }],
  },
  'chime-drum': {
    methods: ['let-down', 'weight-off', 'run-down', 'never-wound'],
    wear: SPRING_WEAR,
    hold: SPRING_HOLD,
    steps: [
      'Let the quarters finish, so that no hammer stands lifted.',
      'Take its spring or weight off as for any other.',
      'Turn the drum by hand to where every hammer tail is free.',
    ],
    wrong: 'The chime’s spring or weight is the strongest in the clock; a lifted hammer drives the drum back.',
    proofs: [SQUARE, WHEEL, { key: 'hammers', says: 'No hammer stands lifted on the drum' }],
  },
}

export const METHOD_CAUTIONS: Partial<Record<PowerMethod, string>> = {
  'run-down':
    'Only where the click can’t be reached: freed, a train races. Fingers and sleeves out; never bend or cut a part worth keeping.',
  'never-wound': 'A spring is wound until it is proved otherwise: try the square and the great wheel all the same.',
}

/** What the whole clock asks for before any train is let down. */
export function clockProofs(kind: string, mercury: boolean): Proof[] {
  return [
    ...(mercury
      ? [
          {
            key: 'mercury',
            says: 'The mercury is out by its own procedure, over a tray, or the pendulum stands upright, fixed and capped, away from the work',
          },
        ]
      : []),
    ...(kind === 'longcase' || kind === 'tower'
      ? [{ key: 'second-person', says: 'A second person is here: a tall case without its movement is top-heavy' }]
      : []),
  ]
}

/** Every proof that one train needs, by its power, with those of the whole clock. */
export function proofsFor(power: Power, kind: string, mercury: boolean): Proof[] {
  return [...clockProofs(kind, mercury), ...POWER_CARE[power].proofs]
}

/**
 * Whether a winder may take a spring: rated above its torque at full wind, in N·mm, with a fifth to spare.
 *
 * The fifth is a workshop rule of thumb. The torque is reckoned for a hard spring, SAFE_YIELD_MPA.
 */
export function winderMay(ratedNmm: number, springNmm: number): boolean {
  return ratedNmm >= 1.2 * springNmm
}
