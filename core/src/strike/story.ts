import { ROUND_OF_TIMES, STRIKE_KIND_FACTS, timeInWords, type StrikeTime } from './kinds.ts'
import {
  DRUM_PHRASES,
  HAMMER_FALLS,
  inSlot,
  LIFTS_HIGH,
  liftAt,
  strikeOnce,
  TAIL_MEETS,
  UNLOCKS,
  WARNING_RATIO,
  beforeRound,
  type StrikeSetUp,
  type StrikeState,
  type StruckHow,
} from './model.ts'

/** Where every part stands at a moment: what a drawing asks for. */
export interface Pose {
  /** minutes that the hand shows, from the time itself: below 0 before it */
  minute: number
  /** height of the lifting piece in shares of the hour’s lift */
  lift: number
  /** the detent or rack hook is up */
  hookUp: boolean
  /** the lock holds the locking wheel */
  locked: boolean
  /** the warning lever holds the warning pin */
  held: boolean
  /** turns of the locking wheel since rest; the warning wheel makes WARNING_RATIO of each */
  lockTurns: number
  /** ° from the warning pin to its lever */
  warningDeg: number
  /** how high the hammer is, 0 to 1 */
  hammer: number
  /** divisions of the count wheel since the end of twelve’s */
  count: number
  /** the detent is in a slot, where it feels */
  inSlot: boolean
  /** teeth of the rack below its lock */
  rack: number
  /** ° of the gathering pallet from where it should rest */
  palletDeg: number
  /** phrases of the drum since the hour */
  drum: number
  /** blows and quarters that have sounded */
  blows: number
  quarters: number
}

export interface StrikeMoment {
  key: string
  title: string
  says: string
  pose: Pose
}

const LIFT_BEGINS = -10
const WARNS = -5

/** What a strike does at one time, moment by moment, as the hands come up to it; and the wheels before it. */
export interface Story {
  moments: StrikeMoment[]
  struck: StruckHow
}

/** The wheels as they stand just before a time of the round, everything before it struck. */
export function stateBefore(setUp: StrikeSetUp, time: StrikeTime): StrikeState {
  let state = beforeRound(setUp)
  for (const one of ROUND_OF_TIMES) {
    if (one.hour === time.hour && one.quarter === time.quarter) break
    state = strikeOnce(setUp, state, one).state
  }
  return state
}

/** The hammer’s height at a share of a blow. */
export function hammerHeight(share: number): number {
  const s = ((share % 1) + 1) % 1
  if (s < TAIL_MEETS || s >= HAMMER_FALLS) return 0
  return (s - TAIL_MEETS) / (HAMMER_FALLS - TAIL_MEETS)
}

/** The story of one time, from the lift to the lock. */
export function strikeStory(setUp: StrikeSetUp, time: StrikeTime): Story {
  const { stands, kind } = setUp
  const facts = STRIKE_KIND_FACTS[kind]
  const { struck } = strikeOnce(setUp, stateBefore(setUp, time), time)
  const top = liftAt(setUp, time)
  const counts = facts.counts === 'count wheel'
  const rest: Pose = {
    minute: -15,
    lift: 0,
    hookUp: false,
    locked: true,
    held: false,
    lockTurns: 0,
    warningDeg: stands.warningDeg,
    hammer: hammerHeight(stands.hammerShare),
    count: struck.countFrom,
    inSlot: !counts || feels(setUp, struck.countFrom),
    rack: 0,
    palletDeg: stands.gatheringDeg,
    drum: struck.drumFrom + stands.drumOff,
    blows: 0,
    quarters: 0,
  }
  const hand = -stands.handMinutes
  const moments: StrikeMoment[] = []
  const add = (key: string, title: string, says: string, part: Partial<Pose>) => {
    const before = moments.at(-1)?.pose ?? rest
    moments.push({ key, title, says, pose: { ...before, ...part } })
  }
  add('rest', 'At rest', restWords(rest, counts), {})
  if (top === 0) {
    add('nothing', 'Nothing lifts', `At ${timeInWords(time)} no pin lifts: it stays as it is.`, { minute: hand })
    return { moments, struck }
  }
  add('lifting', 'The lift begins', 'A pin of the hands’ arbor comes under the lifting piece and raises it.', {
    minute: LIFT_BEGINS + hand,
    lift: 0.25 * top,
  })
  if (top < UNLOCKS) {
    add('too-low', 'It is not lifted high enough', 'The lock is not freed: nothing runs.', {
      minute: WARNS + hand,
      lift: top,
    })
    add('drop', 'It drops again', 'The pin has passed; nothing was let go.', { minute: hand, lift: 0 })
    return { moments, struck }
  }
  warning(setUp, struck, top, hand, add)
  const falls = { minute: hand, lift: 0, held: false }
  if (struck.phrases.length > 0) {
    add('drop', 'It drops', 'The warning lever lets the quarters go.', falls)
    quarters(setUp, struck, add)
  } else if (struck.ranThrough) add('drop', 'It drops', 'It has struck already.', falls)
  else if (!struck.relocked)
    add('drop', 'It drops', 'The lifting piece falls off its pin and the warning lever lets the train go.', falls)
  if (struck.relocked) {
    const caught = 'The locking pin had not cleared its lock: it is caught again, with no blow.'
    add('relocked', 'It drops, and locks at once', caught, {
      ...falls,
      ...{ hookUp: false, locked: true, inSlot: true, rack: 0 },
    })
    return { moments, struck }
  }
  if (!struck.ranThrough) strokes(setUp, struck, add)
  if (struck.runsOn)
    add('runs-on', 'It does not stop', 'The detent finds no slot: it strikes on until its power is off.', {})
  else
    add('locked', 'Locked', lockWords(struck, counts), {
      ...{ hookUp: false, locked: true, held: false, rack: 0, inSlot: counts ? feels(setUp, struck.countTo) : true },
      ...{
        warningDeg: stands.warningDeg,
        hammer: hammerHeight(stands.hammerShare),
        lift: 0,
        palletDeg: stands.gatheringDeg,
      },
    })
  return { moments, struck }
}

const THROUGH = 'The pin is past its lever: nothing holds it, and it strikes now, minutes early.'

type Add = (key: string, title: string, says: string, part: Partial<Pose>) => void

/** From the lock to the warning: how far it runs, and whether anything holds it there. */
function warning(setUp: StrikeSetUp, struck: StruckHow, top: number, hand: number, add: Add): void {
  const { stands, kind } = setUp
  const run = stands.warningDeg / 360 / WARNING_RATIO
  const teeth = struck.teeth
  const chimes = struck.phrases.length > 0
  const up = { minute: WARNS + hand, lift: top, hookUp: true, locked: false, inSlot: false, rack: teeth }
  if (chimes) {
    const what = STRIKE_KIND_FACTS[kind].quarters === 'chime' ? 'The chime' : 'The quarter bird'
    const strikes = top >= LIFTS_HIGH
    const says = `${what} is let go and held again${strikes ? '; the lift is high enough to let the strike warn after it' : '; the lift is low, so the strike stays locked'}.`
    add('warning', `${what} warns`, says, {
      ...up,
      ...(strikes
        ? { held: true, blows: struck.ranThrough ? 0 : struck.early }
        : { hookUp: false, locked: true, rack: 0, inSlot: true }),
    })
    if (struck.ranThrough) {
      add('through', 'The strike runs through its warning', THROUGH, up)
      strokes(setUp, struck, add)
    }
    return
  }
  if (struck.ranThrough) {
    add('through', 'It runs through the warning', THROUGH, up)
    strokes(setUp, struck, add)
    return
  }
  add(
    'warning',
    'It warns',
    struck.relocked
      ? 'It is let go and held again almost where it stood: the locking pin has not cleared the lock.'
      : struck.early > 0
        ? 'It runs to the warning, and on the way the first blow falls, minutes early.'
        : `It is let go, runs ${Math.round(stands.warningDeg)}° of the warning wheel and is held by the warning lever.`,
    {
      ...up,
      held: true,
      lockTurns: run,
      warningDeg: 0,
      hammer: hammerHeight(stands.hammerShare + run),
      palletDeg: stands.gatheringDeg + 360 * run,
      blows: struck.early,
    },
  )
}

/** Phrase after phrase, or call after call. */
function quarters(setUp: StrikeSetUp, struck: StruckHow, add: Add): void {
  const { kind, stands } = setUp
  const chime = STRIKE_KIND_FACTS[kind].quarters === 'chime'
  struck.phrases.forEach((phrase, i) =>
    add(
      `phrase-${i + 1}`,
      chime ? `Phrase ${phrase}` : `Quarter call ${i + 1}`,
      chime ? 'The drum turns on by a phrase.' : 'The quarter bird calls.',
      {
        quarters: i + 1,
        drum: struck.drumFrom + stands.drumOff + i + 1,
      },
    ),
  )
}

/** Blow after blow, or pair after pair. */
function strokes(setUp: StrikeSetUp, struck: StruckHow, add: Add): void {
  const counts = STRIKE_KIND_FACTS[setUp.kind].counts === 'count wheel'
  const bird = setUp.kind === 'bird-two' || setUp.kind === 'bird-three'
  const pairs = struck.phrases.length === 0 ? struck.quarters : 0
  const times = Math.max(struck.blows, pairs)
  const already = struck.ranThrough ? 0 : struck.early
  for (let i = already; i < times; i++) {
    const left = Math.max(0, struck.teeth - i - 1)
    add(
      `blow-${i + 1}`,
      pairs > 0 ? `Pair ${i + 1}` : bird ? `Call ${i + 1}` : `Blow ${i + 1}`,
      counts
        ? 'The count wheel goes on by a division; the detent feels for a slot.'
        : `The gathering pallet takes up a tooth; ${left} ${left === 1 ? 'is' : 'are'} left.`,
      {
        ...(pairs > 0 ? { quarters: i + 1 } : { blows: i + 1 }),
        lockTurns: i + 1,
        hammer: 0,
        count: counts ? struck.countFrom + i + 1 : 0,
        inSlot: counts ? feels(setUp, struck.countFrom + i + 1) : false,
        rack: left,
        palletDeg: 360 * (i + 1) + setUp.stands.gatheringDeg,
        held: false,
      },
    )
  }
}

/** Whether the detent is in a slot with the count wheel there. */
function feels({ halves, stands }: StrikeSetUp, count: number): boolean {
  return inSlot(count + stands.countOff, halves)
}

function restWords(rest: Pose, counts: boolean): string {
  return (
    [
      counts
        ? rest.inSlot
          ? 'The detent is in its slot'
          : 'The detent stands on the rim'
        : 'The rack is up on its hook',
      rest.hammer > 0 ? 'the hammer tail stands on a pin' : 'the hammer tail is just free of its pin',
      `the warning pin is ${Math.round(rest.warningDeg)}° from its lever`,
    ].join(', ') + '.'
  )
}

function lockWords(struck: StruckHow, counts: boolean): string {
  const what = counts ? 'The detent falls into a slot' : 'The rack is home and the pallet’s tail is caught'
  const many = struck.blows === 1 ? 'one blow' : `${struck.blows} blows`
  return `${what}: locked${struck.blows > 0 ? ` after ${many}` : ''}.`
}

/** Where the drum’s phrase stands that is next, from 1. */
export function phraseAt(drum: number): number {
  return (((drum % DRUM_PHRASES) + DRUM_PHRASES) % DRUM_PHRASES) + 1
}
