import { escapementAction, type EscapementAction, type EscapementGeometry } from './action.ts'
import { acrossEdgesMm, opened } from './shapes.ts'

/** How the drawing is changed to try a cure: the arbor so much nearer, the pallets opened by so much between them. */
export interface Moved {
  nearerMm: number
  openedDeg: number
}
export const UNMOVED: Moved = { nearerMm: 0, openedDeg: 0 }

/** The escapement with its arbor nearer (− farther) and its pallets opened (− closed) by so much. */
export function movedBy(geometry: EscapementGeometry, { nearerMm, openedDeg }: Moved): EscapementGeometry {
  return {
    ...geometry,
    ...(openedDeg === 0 ? {} : opened(geometry, openedDeg)),
    centreDistanceMm: geometry.centreDistanceMm - nearerMm,
  }
}

/** What is wanted of an escapement; workshop rules, degrees. */
export interface EscapementRules {
  /** of the pallets: a tooth lands so far past the corner; only where the faces lock */
  leastLockDeg: number
  mostLockDeg: number
  /** of the wheel: less nearly catches, more is noise and wear */
  leastDropDeg: number
  mostDropDeg: number
  /** between the two drops */
  unequalDeg: number
}
export const ESCAPEMENT_RULES: EscapementRules = {
  leastLockDeg: 0.3,
  mostLockDeg: 1.5,
  leastDropDeg: 0.3,
  mostDropDeg: 2.5,
  unequalDeg: 0.4,
}

export const FINDINGS = [
  'too deep',
  'too shallow',
  'unequal drop',
  'too little drop',
  'big drop',
  'fine',
  'can’t be told',
] as const
export type Finding = (typeof FINDINGS)[number]

export interface EscapementJudged {
  finding: Finding
  /** in a sentence, with its figures */
  sentence: string
}

/**
 * What is wrong with an escapement as it is drawn, the gravest first.
 *
 * @param locks - its faces lock (dead-beat): a recoil or pin pallet has no lock of its own to judge
 */
export function judgeEscapement(action: EscapementAction, locks: boolean, rules = ESCAPEMENT_RULES): EscapementJudged {
  const { entry, exit } = action
  if (action.verdict === 'runs through')
    return { finding: 'too shallow', sentence: action.reasons[0] ?? 'The wheel runs through.' }
  if (action.verdict === 'jams') return { finding: 'too deep', sentence: action.reasons[0] ?? 'It catches and stops.' }
  const [a, b] = [entry.dropDeg, exit.dropDeg]
  const [la, lb] = [entry.lockDeg, exit.lockDeg]
  if (a === null || b === null || la === null || lb === null)
    return { finding: 'can’t be told', sentence: 'The drawing does not tell it.' }
  const drops = `Drop ${a.toFixed(1)}° off the entry pallet, ${b.toFixed(1)}° off the exit`
  const locksAt = `Lock ${la.toFixed(1)}° on the entry pallet, ${lb.toFixed(1)}° on the exit`
  if (locks && Math.min(la, lb) < rules.leastLockDeg)
    return {
      finding: 'too shallow',
      sentence: `${locksAt}: a tooth lands so near the impulse face that it may land on it.`,
    }
  if (Math.min(a, b) < rules.leastDropDeg && Math.abs(a - b) <= rules.unequalDeg)
    return { finding: 'too little drop', sentence: `${drops}: a tooth nearly catches.` }
  if (Math.abs(a - b) > rules.unequalDeg)
    return {
      finding: 'unequal drop',
      sentence: `${drops}: unequal${Math.min(a, b) < rules.leastDropDeg ? ', and a tooth nearly catches' : ''}.`,
    }
  if (locks && Math.max(la, lb) > rules.mostLockDeg)
    return { finding: 'too deep', sentence: `${locksAt}: the pendulum has to unlock too much.` }
  if (Math.max(a, b) > rules.mostDropDeg)
    return { finding: 'big drop', sentence: `${drops}: noise and wear, and power that never reaches the pendulum.` }
  return { finding: 'fine', sentence: `${drops}${locks ? `; lock ${la.toFixed(1)}° and ${lb.toFixed(1)}°` : ''}.` }
}

export interface Cure extends Moved {
  after: EscapementAction
  judged: EscapementJudged
}

/** As far as an arbor is moved, mm, and pallets are bent, degrees; and the steps that are tried. */
const REACH = { nearerMm: 1, openedDeg: 3 }
const STEPS = 14

/**
 * The least change of the arbor’s place, and with it of the pallets’ opening, that makes an escapement fine; null: none
 * within what an arbor is moved and pallets are bent.
 *
 * First what moving the arbor alone does, then what opening or closing alone does, then both: tried in steps outward
 * from where it is, the least that is fine taken, and then halved towards the middle of what is fine.
 */
export function findCure(
  geometry: EscapementGeometry,
  swingDeg: number,
  locks: boolean,
  rules = ESCAPEMENT_RULES,
): Cure | null {
  const tried = (moved: Moved): Cure | null => {
    const after = escapementAction(movedBy(geometry, moved), swingDeg)
    const judged = judgeEscapement(after, locks, rules)
    return judged.finding === 'fine' ? { ...moved, after, judged } : null
  }
  const outward = (reach: number) =>
    Array.from({ length: 2 * STEPS }, (_, i) => (((i >> 1) + 1) / STEPS) * reach * (i % 2 === 0 ? 1 : -1))
  for (const nearerMm of outward(REACH.nearerMm)) {
    const cure = tried({ nearerMm, openedDeg: 0 })
    if (cure) return finer(cure, 'nearerMm', tried)
  }
  for (const openedDeg of outward(REACH.openedDeg)) {
    const cure = tried({ nearerMm: 0, openedDeg })
    if (cure) return finer(cure, 'openedDeg', tried)
  }
  for (const nearerMm of outward(REACH.nearerMm))
    for (const openedDeg of outward(REACH.openedDeg)) {
      const cure = tried({ nearerMm, openedDeg })
      if (cure) return cure
    }
  return null
}

/** The middle of what is fine about a change that is: from its nearer edge, found by halving, out to its farther one. */
function finer(cure: Cure, by: keyof Moved, tried: (moved: Moved) => Cure | null): Cure {
  const at = (value: number) => tried({ ...UNMOVED, [by]: value })
  let [low, near] = [0, cure[by]]
  for (let i = 0; i < 4; i++) {
    const middle = (low + near) / 2
    if (at(middle)) near = middle
    else low = middle
  }
  const step = (Math.sign(near) * REACH[by]) / STEPS
  let far = cure[by]
  while (Math.abs(far + step) <= REACH[by] && at(far + step)) far += step
  return at((near + far) / 2) ?? cure
}

/**
 * What a move asks for, in a sentence; opening and closing is told as a caliper shows it, across the edges that let go.
 *
 * @param geometry - as it stands before the move
 */
export function cureInWords({ nearerMm, openedDeg }: Moved, geometry: EscapementGeometry): string {
  const bent = movedBy(geometry, { nearerMm: 0, openedDeg })
  const across = Math.abs(acrossEdgesMm(bent) - acrossEdgesMm(geometry))
  const parts = [
    ...(nearerMm === 0
      ? []
      : [`bring the pallets’ arbor ${Math.abs(nearerMm).toFixed(2)} mm ${nearerMm > 0 ? 'nearer' : 'farther'}`]),
    ...(openedDeg === 0
      ? []
      : [`${openedDeg > 0 ? 'open' : 'close'} the pallets by ${across.toFixed(2)} mm across their edges`]),
  ]
  const words = parts.join(', and ')
  return words === '' ? 'Nothing is to be moved.' : `${words.charAt(0).toUpperCase()}${words.slice(1)}.`
}
