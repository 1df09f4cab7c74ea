import { isHeld, type Bay, type Gate } from '../gates/gates.ts'
import type { ScopeKind, WaitsFor } from '../job/scope.ts'
import type { RateBook } from '../rate/book.ts'
import type { JobTrial } from '../trial/ofJob.ts'
import type { ClicksStanding } from '../wheel/clicks.ts'

export interface Owed {
  kind:
    | 'unreadable'
    | 'observe'
    | 'waits'
    | 'tell-owner'
    | 'counts'
    | 'dry'
    | 'oil'
    | 'send-on'
    | 'answer'
    | 'order'
    | 'make-safe'
    | 'mark'
    | 'take-apart'
    | 'clean'
    | 'bath'
    | 'measure'
    | 'pivots'
    | 'bush'
    | 'click'
    | 'assemble'
    | 'no-cutter'
    | 'beat'
    | 'reading'
    | 'turn'
    | 'wind'
    | 'strike'
    | 'trial'
    | 'stop'
    | 'promise'
    | 'card'
    | 'recall'
  /** when it falls due, Unix s; null: whenever the bench is free */
  dueS: number | null
  /** `must`: the clock can't go on or it is overdue; `watch`: soon; `sound`: in good order */
  weight: 'must' | 'watch' | 'sound'
  /** what to do, as an instruction */
  title: string
  /** why it is owed, in a sentence */
  why: string
  /** which of several of its kind: a timer's or a line's id */
  subject: string
}

/** What is known of a job, as far as the list of things owed asks. Times in Unix seconds. */
export interface OwedFacts {
  bay: Bay
  /** what this visit is for */
  scope: ScopeKind
  /** why the clock stands and waits, and until when, s; null: it does not */
  waits: { for: WaitsFor; note: string; untilS: number | null } | null
  /** lost or broken in our hands, and the owner not told */
  untold: { key: string; what: string }[]
  listenings: number
  /** the estimate that the owner has and has not answered, since when, s */
  answerAwaitedSinceS: number | null
  toOrder: { id: string; title: string }[]
  timers: { id: string; title: string; endsS: number }[]
  marksOpen: number
  stripSteps: number
  partsToClean: number
  woundTrains: string[]
  parted: boolean
  powerOverridden: boolean
  /** trains of which no arbor is written down; holes and pivots nobody has looked at */
  unknownTrains: string[]
  holesNotLooked: number
  pivotsNotLooked: number
  pivotsOpen: number
  holesOpen: number
  holesTotal: number
  holesToBush: number
  holesWithoutCutter: number
  /** trains with a spring whose click work nobody has judged, and those where it is bad */
  clicks: ClicksStanding
  dry: Gate
  oil: Gate
  beat: Gate
  rateAdvice: RateBook['advice'] | null
  turnSentence: string | null
  nextReadingAtS: number | null
  lastWoundS: number | null
  windsEveryDays: number | null
  trial: Gate
  trialAt: Pick<JobTrial, 'day' | 'days' | 'endsAtS' | 'over' | 'wanted'> | null
  /** steps of the strip log that have not gone back, nor a reason why not */
  partsToGoBack: number
  /** what of its strike is still to be heard, or was heard wrong; nothing where it has none */
  strikeWanted: string[]
  /** it stopped, and nobody has said what it was */
  stopUnanswered: { showed: string } | null
  promisedS: number | null
  nowS: number
}

const DAY_S = 86_400

/**
 * All that the workshop owes one clock, first things first: what is due, then what stops it, then what is next.
 *
 * The first entry is what its tag shows.
 */
export function owedTo(facts: OwedFacts): Owed[] {
  const list: Owed[] = [
    ...timers(facts),
    ...untold(facts),
    ...(facts.waits ? waiting(facts.waits, facts.nowS) : work(facts)),
    ...winding(facts),
    ...estimate(facts),
    ...promise(facts),
  ]
  const order = { must: 0, watch: 1, sound: 2 }
  return list.sort((a, b) => order[a.weight] - order[b.weight] || (a.dueS ?? Infinity) - (b.dueS ?? Infinity))
}

/** A clock that waits asks for nothing of its own, until the day it was put off to. */
function waiting(waits: NonNullable<OwedFacts['waits']>, nowS: number): Owed[] {
  const over = waits.untilS !== null && waits.untilS <= nowS
  const what = waits.for === 'parts' ? 'parts' : 'the owner'
  return [
    {
      ...owed(
        'waits',
        over ? `Ask after ${waits.for === 'parts' ? 'the parts' : 'the owner’s answer'}` : `Waits for ${what}`,
        waits.note === '' ? 'It stands until then.' : waits.note,
      ),
      dueS: waits.untilS,
      weight: over ? 'watch' : 'sound',
    },
  ]
}

function untold({ untold: losses }: OwedFacts): Owed[] {
  return losses.map(({ key, what }) => ({
    ...owed('tell-owner', `Tell the owner: ${what}`, 'Lost or broken in our hands.'),
    subject: key,
    weight: 'must',
  }))
}

function work(facts: OwedFacts): Owed[] {
  if (facts.scope === 'untouched' && !facts.parted)
    return [owed('card', 'Hand it back as it came', 'It goes back untouched.')]
  switch (facts.bay) {
    case 'arrive':
      return facts.listenings === 0
        ? [owed('observe', 'Hear it before touching it', 'Nobody has listened to it since it came in.')]
        : [owed('send-on', 'Send it on to the strip', 'It has been heard and taken in.')]
    case 'strip':
      return strip(facts)
    case 'mend':
      return mend(facts)
    case 'set':
      return set(facts)
    case 'return':
      return [owed('card', 'Print the owner’s card', 'The work is done; the owner needs its card.')]
  }
}

function strip(facts: OwedFacts): Owed[] {
  if (facts.woundTrains.length > 0 && !facts.parted && !facts.powerOverridden) {
    const trains = facts.woundTrains.join(' and ')
    const entry = owed(
      'make-safe',
      `Let down the ${trains} train`,
      `The plates can’t be parted: ${trains} not confirmed off.`,
    )
    return [{ ...entry, weight: 'must' }]
  }
  if (!facts.parted && facts.marksOpen > 0) {
    const n = facts.marksOpen
    return [
      owed(
        'mark',
        `Mark ${n} ${n === 1 ? 'place' : 'places'} before parting`,
        'They can’t be found again once the plates are apart.',
      ),
    ]
  }
  if (!facts.parted) return [owed('make-safe', 'Part the plates', 'Every train is confirmed off.')]
  if (facts.stripSteps === 0) return [owed('take-apart', 'Take it apart, step by step', 'Its strip log is empty.')]
  if (facts.partsToClean > 0) {
    const n = facts.partsToClean
    return [owed('clean', `Clean ${n} ${n === 1 ? 'part' : 'parts'}`, 'On the list, and not yet clean and dry.')]
  }
  return [owed('measure', 'Measure its holes', 'The plates are parted.')]
}

function mend(facts: OwedFacts): Owed[] {
  const out: Owed[] = []
  const { bad, open } = facts.clicks
  if (facts.parted && bad.length > 0)
    out.push({
      ...owed(
        'click',
        `Mend the click of the ${bad.join(' and ')} train`,
        'A slipping click breaks fingers and teeth.',
      ),
      weight: 'must',
    })
  if (facts.holesWithoutCutter > 0)
    out.push({
      ...owed(
        'no-cutter',
        'No cutter for one of its holes',
        `${facts.holesWithoutCutter} can’t be bushed with the cutters in the drawer.`,
      ),
      weight: 'watch',
    })
  const toLookAt = Math.max(facts.holesOpen, facts.holesNotLooked)
  if (facts.parted && facts.unknownTrains.length > 0) {
    const trains = facts.unknownTrains.join(' and ')
    out.push(
      owed('counts', `Write down the ${trains} train`, 'No arbor of it is known, so no hole of it can be missed.'),
    )
  } else if (facts.holesTotal === 0 && toLookAt > 0)
    out.push(owed('measure', 'List its holes', 'No hole is on the list yet.'))
  else if (toLookAt > 0)
    out.push(
      owed('measure', `Judge ${toLookAt} more ${toLookAt === 1 ? 'hole' : 'holes'}`, 'Nobody has looked at them yet.'),
    )
  else if (facts.pivotsOpen + facts.pivotsNotLooked > 0) {
    const n = facts.pivotsOpen + facts.pivotsNotLooked
    out.push(
      owed(
        'pivots',
        `${facts.pivotsOpen > 0 ? 'Finish' : 'Look at'} ${n} ${n === 1 ? 'pivot' : 'pivots'}`,
        'A bush is fitted to the finished pivot, so they come first.',
      ),
    )
  } else if (facts.holesToBush > 0)
    out.push(
      owed('bush', `Bush ${facts.holesToBush} ${facts.holesToBush === 1 ? 'hole' : 'holes'}`, 'All are measured.'),
    )
  else if (facts.parted && open.length > 0)
    out.push(
      owed(
        'click',
        `Judge the click of the ${open.join(' and ')} train`,
        'On every spring clock: does it fit the root, is its spring brisk, its rivet tight?',
      ),
    )
  else out.push(owed('assemble', 'Assemble it', 'Every hole is judged and done.'))
  return out
}

function set(facts: OwedFacts): Owed[] {
  const out: Owed[] = []
  if (facts.stopUnanswered) {
    const { showed } = facts.stopUnanswered
    const entry = owed(
      'stop',
      `It stopped${showed === '' ? '' : ` at ${showed}`}: find out why`,
      'Nobody has said what it was.',
    )
    out.push({ ...entry, weight: 'must' })
  }
  if (facts.partsToGoBack > 0) {
    const n = facts.partsToGoBack
    return [...out, owed('assemble', `Put back ${n} ${n === 1 ? 'part' : 'parts'}`, 'They are out, and not back in.')]
  }
  if (isHeld(facts.dry)) return [...out, owed('dry', 'Run it dry on little power', facts.dry.reason)]
  if (isHeld(facts.oil)) return [...out, owed('oil', 'Oil it', facts.oil.reason)]
  const beatHeld = isHeld(facts.beat)
  if (beatHeld) out.push({ ...owed('beat', 'Set it in beat', facts.beat.reason), weight: 'must' })
  else out.push(...rate(facts))
  if (facts.trialAt === null && facts.strikeWanted.length > 0)
    out.push(owed('strike', 'Count its strike round the dial', sentence(facts.strikeWanted.join('; '))))
  if (facts.trialAt !== null || !beatHeld) out.push(trial(facts))
  return out
}

function rate(facts: OwedFacts): Owed[] {
  const out: Owed[] = []
  if (facts.rateAdvice === 'turn' && facts.turnSentence)
    out.push({ ...owed('turn', facts.turnSentence, 'The readings support it.'), weight: 'watch' })
  if (facts.nextReadingAtS === null)
    return [...out, owed('reading', 'Take its first reading', 'Its rate is not known yet.')]
  const due = facts.nextReadingAtS <= facts.nowS
  out.push({
    ...owed(
      'reading',
      'Take a reading',
      due ? 'A reading now tells more about its rate.' : 'Sooner, a reading tells nothing new.',
    ),
    dueS: facts.nextReadingAtS,
    weight: due ? 'watch' : 'sound',
  })
  return out
}

/** What a trial still wants is said every day, and when its days are up. */
function trial({ trialAt, trial: gate }: OwedFacts): Owed {
  if (trialAt === null) return owed('trial', 'Begin its trial', gate.reason)
  const { day, days, endsAtS, over, wanted } = trialAt
  if (gate.passed) return { ...owed('trial', 'Its trial is over', gate.reason), dueS: endsAtS, weight: 'watch' }
  const ranOut = day > days || over
  return {
    ...owed(
      'trial',
      ranOut ? `Its trial still wants: ${wanted[0] ?? ''}` : `Trial, day ${day} of ${days}`,
      `Still wanted: ${wanted.join('; ')}.`,
    ),
    dueS: endsAtS,
    weight: ranOut ? 'watch' : 'sound',
  }
}

function sentence(words: string): string {
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}.`
}

function timers({ timers: running, nowS }: OwedFacts): Owed[] {
  return running.map(({ id, title, endsS }) => ({
    ...owed('bath', endsS <= nowS ? `Take it out: ${title}` : title, endsS <= nowS ? 'Its time is over.' : 'It runs.'),
    subject: id,
    dueS: endsS,
    weight: endsS <= nowS ? 'must' : 'watch',
  }))
}

/** An owner who has had a figure for so many days is asked again. */
const ANSWER_DAYS = 3

function estimate({ answerAwaitedSinceS, toOrder, nowS }: OwedFacts): Owed[] {
  const out: Owed[] = toOrder.map(({ id, title }) => ({
    ...owed('order', `Order: ${title}`, 'It is in the estimate that the owner accepted.'),
    subject: id,
    weight: 'watch',
  }))
  if (answerAwaitedSinceS !== null) {
    const dueS = answerAwaitedSinceS + ANSWER_DAYS * DAY_S
    const days = Math.floor((nowS - answerAwaitedSinceS) / DAY_S)
    out.push({
      ...owed(
        'answer',
        dueS <= nowS ? 'Ask the owner about the estimate' : 'The owner has the estimate',
        days === 0 ? 'Sent today.' : `Sent ${days} ${days === 1 ? 'day' : 'days'} ago, not answered.`,
      ),
      dueS,
      weight: dueS <= nowS ? 'watch' : 'sound',
    })
  }
  return out
}

function winding({ lastWoundS, windsEveryDays, nowS, bay }: OwedFacts): Owed[] {
  if (bay !== 'set' || lastWoundS === null || windsEveryDays === null) return []
  const dueS = lastWoundS + windsEveryDays * DAY_S
  if (dueS - nowS > DAY_S) return []
  const days = Math.round((nowS - lastWoundS) / DAY_S)
  return [
    {
      ...owed('wind', 'Wind it, all trains', `Wound ${days} days ago; it wants it every ${windsEveryDays}.`),
      dueS,
      weight: dueS < nowS ? 'must' : 'watch',
    },
  ]
}

function promise({ promisedS, nowS }: OwedFacts): Owed[] {
  if (promisedS === null || promisedS - nowS > 3 * DAY_S) return []
  const late = nowS > promisedS
  return [
    {
      ...owed(
        'promise',
        late ? 'Ring the owner: it is late' : 'Promised within three days',
        'The day it was promised for.',
      ),
      dueS: promisedS,
      weight: late ? 'must' : 'watch',
    },
  ]
}

function owed(kind: Owed['kind'], title: string, why: string): Owed {
  return { kind, title, why, dueS: null, weight: 'sound', subject: '' }
}
