import type { Halves } from './blows.ts'
import { countWheel } from './countWheel.ts'
import { ROUND_OF_TIMES, STRIKE_KIND_FACTS, type StrikeKind, type StrikeTime, type Struck } from './kinds.ts'

/** How the parts of a strike stand. */
export interface Standing {
  /** at rest, how far the warning pin is from its lever, ° of the warning wheel */
  warningDeg: number
  /** at rest, the share of a blow that the pin wheel has turned since the hammer fell */
  hammerShare: number
  /** how late the gathering pallet stands on its square, ° */
  gatheringDeg: number
  /** how far the count wheel is ahead of its detent, divisions */
  countOff: number
  /** hours that it was tripped ahead of the hands */
  outOfStep: number
  /** teeth that the rack falls too far, whatever the hour */
  rackOff: number
  /** share by which a step of the snail is too deep for a tooth of the rack */
  rackStretch: number
  /** hours that the snail is ahead of the hands */
  snailOff: number
  /** heights of the lifts, in shares of the hour’s: the half’s, and those of the quarters that only chime */
  hourLift: number
  halfLift: number
  quarterLift: number
  /** phrases that the chime drum is ahead */
  drumOff: number
  /** quarters that the chime’s locking plate is ahead */
  plateOff: number
  /** minutes that the hand shows when it strikes the hour */
  handMinutes: number
}

/** Every part as it should stand. */
export const STANDS_RIGHT: Standing = {
  warningDeg: 180,
  hammerShare: 0.2,
  gatheringDeg: 0,
  countOff: 0,
  outOfStep: 0,
  rackOff: 0,
  rackStretch: 0,
  snailOff: 0,
  hourLift: 1,
  halfLift: 0.6,
  quarterLift: 0.6,
  drumOff: 0,
  plateOff: 0,
  handMinutes: 0,
}

export interface StrikeSetUp {
  kind: StrikeKind
  halves: Halves
  stands: Standing
}

/** What was struck at one time, and how. */
export interface StruckHow extends Struck {
  /** of the blows, how many fell at the warning already */
  early: number
  /** phrases that were played, by their numbers on the drum from 1 */
  phrases: number[]
  /** it did not stop by itself */
  runsOn: boolean
  /** it let go and locked again at once */
  relocked: boolean
  /** nothing held it at the warning */
  ranThrough: boolean
  /** teeth that the rack fell */
  teeth: number
  /** the count wheel before and after, in divisions from the end of twelve’s blows */
  countFrom: number
  countTo: number
  /** the phrase at which the drum stood before, from 0 */
  drumFrom: number
}

/** Where the wheels stand between two times. */
export interface StrikeState {
  /** divisions of the count wheel since the end of twelve’s */
  count: number
  /** quarters that the chime’s plate has let run, from the hour */
  plate: number
  /** phrases that the drum has played */
  drum: number
}

/** Turns of the warning wheel at a blow: the locking wheel turns once. */
export const WARNING_RATIO = 8
/** The lock is past its pin once the locking wheel has turned so far, °. */
export const LOCK_CLEAR_DEG = 6
/** A pin nearer to the far side of its lever than this is under it as it rises, ° of the warning wheel. */
export const WARNING_PAST_DEG = 335
/** In shares of a blow: where the tail meets a pin, and where the hammer falls. */
export const TAIL_MEETS = 0.45
export const HAMMER_FALLS = 0.95
/** A detent falls into a slot within so much of its middle, divisions. */
const SLOT_HALF = 0.3
/** Where the gathering pallet is between the teeth of the rack, ° past its rest; and how early it misses its stop. */
const PALLET_IN_DEG: [number, number] = [40, 140]
const PALLET_EARLY_DEG = -20
/** Lifts: what unlocks; what drops the rack to the snail, and lets the strike of a chiming clock warn. */
export const UNLOCKS = 0.45
export const LIFTS_HIGH = 0.8
/** Longer than this nobody waits: it runs until its power is off. */
const RUNS_ON = 30
/** Phrases on the drum. */
export const DRUM_PHRASES = 5

/** The strike as the hands stand at twelve and its blows have ended: tripped ahead, its count wheel stands at a later hour’s end. */
export function beforeRound({ kind, halves, stands }: StrikeSetUp): StrikeState {
  const ahead = STRIKE_KIND_FACTS[kind].counts === 'count wheel' ? stands.outOfStep : 0
  const hours = (ahead * (ahead + 1)) / 2
  return { count: hours + (halves === 'one' ? ahead : 0), plate: stands.plateOff, drum: 0 }
}

/** What is struck at one time with its parts standing so, and where the wheels stand afterwards. */
export function strikeOnce(
  setUp: StrikeSetUp,
  state: StrikeState,
  time: StrikeTime,
): { struck: StruckHow; state: StrikeState } {
  const { kind, stands } = setUp
  const { quarters } = STRIKE_KIND_FACTS[kind]
  const struck: StruckHow = {
    ...time,
    ...{ quarters: 0, blows: 0, early: 0, phrases: [], runsOn: false, relocked: false, ranThrough: false, teeth: 0 },
    ...{ countFrom: state.count, countTo: state.count, drumFrom: state.drum },
  }
  const next = { ...state }
  const lift = liftAt(setUp, time)
  if (lift < UNLOCKS) return { struck, state: next }

  if (quarters === 'chime' || quarters === 'bird') {
    // The plate counts the quarters, whatever the hands show.
    const run = (next.plate % 4) + 1
    struck.quarters = run
    next.plate = run % 4
    struck.phrases = Array.from({ length: run }, (_, i) => ((next.drum + stands.drumOff + i) % DRUM_PHRASES) + 1)
    next.drum += run
    // Only a high lift lets the strike warn; it is let go as the chime ends.
    if (lift < LIFTS_HIGH) return { struck, state: next }
  } else if (quarters === 'pairs' && time.quarter !== 0) {
    struck.teeth = teethFallen(setUp, time.quarter)
    Object.assign(struck, gathered(struck.teeth, stands, true))
    return { struck: released(struck, stands), state: next }
  }

  if (STRIKE_KIND_FACTS[kind].counts === 'rack') {
    const whole = time.quarter === 0 || quarters === 'chime' || lift >= LIFTS_HIGH
    struck.teeth = whole ? teethFallen(setUp, stepOfSnail(setUp, time)) : 1
    Object.assign(struck, gathered(struck.teeth, stands, false))
  } else {
    const { blows, runsOn } = countedBlows(setUp, next.count)
    struck.blows = blows
    struck.runsOn = runsOn
  }
  const out = released(struck, stands)
  if (STRIKE_KIND_FACTS[kind].counts === 'count wheel') next.count += out.blows
  return { struck: { ...out, countTo: next.count }, state: next }
}

/** What is struck right round the dial, at every time at which anything is struck or should be. */
export function strikeRound(setUp: StrikeSetUp): StruckHow[] {
  let state = beforeRound(setUp)
  return ROUND_OF_TIMES.map((time) => {
    const { struck, state: after } = strikeOnce(setUp, state, time)
    state = after
    return struck
  })
}

/** How high the lifting piece is lifted at a time; 0 where nothing lifts it. */
export function liftAt({ kind, halves, stands }: StrikeSetUp, { quarter }: StrikeTime): number {
  if (quarter === 0) return stands.hourLift
  if (STRIKE_KIND_FACTS[kind].quarters !== 'none') return stands.quarterLift
  if (quarter !== 2 || halves === 'none') return 0
  // A rack that tells the hour at the half once more is lifted as high as at the hour.
  return halves === 'hour' ? stands.halfLift + (1 - STANDS_RIGHT.halfLift) : stands.halfLift
}

/** The step of the snail under the rack’s tail: the hour of the hands, where it stands right. */
function stepOfSnail({ stands }: StrikeSetUp, { hour }: StrikeTime): number {
  return ((((Math.round(hour + stands.snailOff) - 1) % 12) + 12) % 12) + 1
}

/** Teeth that the rack falls for a step of the snail. */
function teethFallen({ stands }: StrikeSetUp, step: number): number {
  return Math.max(0, Math.round(step * (1 + stands.rackStretch) + stands.rackOff))
}

/** What the gathering pallet makes of the teeth that fell. */
function gathered(
  teeth: number,
  { gatheringDeg, warningDeg }: Standing,
  pairs: boolean,
): Partial<Pick<StruckHow, 'blows' | 'quarters' | 'teeth'>> {
  const [from, to] = PALLET_IN_DEG
  const inTeeth = (deg: number) => deg >= from && deg <= to
  const held = inTeeth(gatheringDeg) || inTeeth(gatheringDeg + warningDeg / WARNING_RATIO)
  // A rack that can't fall is home already: the train locks after its first turn.
  const fallen = held ? 0 : teeth
  const turns = Math.max(1, gatheringDeg < PALLET_EARLY_DEG ? fallen + 1 : fallen)
  return pairs ? { quarters: turns, teeth: fallen } : { blows: turns, teeth: fallen }
}

/** Blows until the detent falls: it feels the rim at the end of each. */
function countedBlows({ halves, stands }: StrikeSetUp, from: number): { blows: number; runsOn: boolean } {
  for (let blows = 1; blows <= RUNS_ON; blows++)
    if (inSlot(from + blows + stands.countOff, halves)) return { blows, runsOn: false }
  return { blows: RUNS_ON, runsOn: true }
}

/** Whether a place on the rim, in divisions from the end of twelve’s blows, is in a slot: an hour’s reaches to its half’s. */
export function inSlot(place: number, halves: Halves): boolean {
  const { divisions, slots } = countWheel(halves === 'one' ? 'one' : 'none')
  const wide = halves === 'one' ? 1 : 0
  return slots.some(({ after, atDeg }) => {
    if (!Number.isInteger(after)) return false
    const past = place - (atDeg * divisions) / 360
    const round = past - divisions * Math.floor((past + divisions / 2) / divisions)
    return round >= -SLOT_HALF && round <= wide + SLOT_HALF
  })
}

/** What the lock, the warning and the hammer make of what was counted. */
function released(struck: StruckHow, { warningDeg, hammerShare }: Standing): StruckHow {
  const runShare = warningDeg / 360 / WARNING_RATIO
  if (360 * runShare < LOCK_CLEAR_DEG)
    // The lock falls back in front of the pin that it has just let go.
    return { ...struck, blows: 0, quarters: struck.phrases.length, runsOn: false, relocked: true }
  if (warningDeg >= WARNING_PAST_DEG)
    return { ...struck, ranThrough: true, early: struck.blows + (struck.phrases.length > 0 ? 0 : struck.quarters) }
  const early = hammerShare < HAMMER_FALLS && hammerShare + runShare >= HAMMER_FALLS && struck.blows > 0 ? 1 : 0
  return { ...struck, early }
}
