import { FieldError } from '../check/require.ts'
import type { Halves } from './blows.ts'
import { STRIKE_KIND_FACTS, strikesRight, timeInWords, type StrikeKind, type StrikeTime } from './kinds.ts'
import { strikeRound, STANDS_RIGHT, type Standing, type StrikeSetUp } from './model.ts'

export interface StrikeFault {
  key: string
  title: string
  /** which part stands wrong, and over what figures it does */
  part: keyof Standing
  from: number
  to: number
  unit: string
  /** what is drawn first, and what is tried when a pattern is to be explained */
  usual: number[]
  cure: string
  kinds: (kind: StrikeKind, halves: Halves) => boolean
}

const counted = (kind: StrikeKind) => STRIKE_KIND_FACTS[kind].counts === 'count wheel'
const racked = (kind: StrikeKind) => STRIKE_KIND_FACTS[kind].counts === 'rack'
const quartered = (kind: StrikeKind) =>
  STRIKE_KIND_FACTS[kind].quarters === 'chime' || STRIKE_KIND_FACTS[kind].quarters === 'bird'
const withHalves = (kind: StrikeKind, halves: Halves) =>
  halves !== 'none' && STRIKE_KIND_FACTS[kind].quarters === 'none'
const every = () => true

/** What may stand wrong in a strike, with its cure: the likelier first. */
export const STRIKE_FAULTS: StrikeFault[] = [
  {
    ...{ key: 'out-of-step', title: 'Tripped out of step', part: 'outOfStep', from: 1, to: 11, unit: 'hours ahead' },
    usual: [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11],
    cure: 'Nothing is wrong inside: lift the detent by hand and let it strike on, hour by hour, to the hour that the hands show.',
    kinds: (kind) => counted(kind),
  },
  {
    ...{
      key: 'warning-close',
      title: 'Warning pin too close',
      part: 'warningDeg',
      from: 5,
      to: 45,
      unit: '° to its lever',
    },
    usual: [20],
    cure: 'Ease the plate at that corner and turn the warning wheel in its mesh, until its pin stands half a turn from the lever at rest.',
    kinds: every,
  },
  {
    ...{
      key: 'warning-past',
      title: 'Warning pin under its lever',
      part: 'warningDeg',
      from: 336,
      to: 358,
      unit: '° to its lever',
    },
    usual: [345],
    cure: 'Nothing holds it at the warning, so it strikes minutes early: turn the warning wheel in its mesh by half a turn.',
    kinds: every,
  },
  {
    ...{
      key: 'hammer-on-pin',
      title: 'Hammer tail on a pin at rest',
      part: 'hammerShare',
      from: 0.46,
      to: 0.94,
      unit: 'of a blow',
    },
    usual: [0.92, 0.7],
    cure: 'It starts under the hammer’s load, or lets a blow fall at the warning. Turn the pin wheel by a tooth in its mesh, until the tail is just free of its pin at rest.',
    kinds: every,
  },
  {
    ...{
      key: 'count-off',
      title: 'Count wheel off its slot',
      part: 'countOff',
      from: 0.31,
      to: 0.69,
      unit: 'divisions',
    },
    usual: [0.5],
    cure: 'The detent comes down on the rim. Turn the count wheel on its square or arbor until the detent is in the middle of a slot at rest.',
    kinds: (kind) => counted(kind),
  },
  {
    ...{
      key: 'gathering-late',
      title: 'Gathering pallet late',
      part: 'gatheringDeg',
      from: 40,
      to: 140,
      unit: '° late',
    },
    usual: [80],
    cure: 'It stands among the teeth at rest and holds the rack up. Set it on its square so that it has just let go of the last tooth when the train locks.',
    kinds: (kind) => racked(kind),
  },
  {
    ...{
      key: 'gathering-early',
      title: 'Gathering pallet early',
      part: 'gatheringDeg',
      from: -60,
      to: -21,
      unit: '° late',
    },
    usual: [-40],
    cure: 'Its tail misses the stop and goes round once more. Set it later on its square, a side of the square at a time, or bend the stop.',
    kinds: (kind) => racked(kind),
  },
  {
    ...{ key: 'rack-tail', title: 'Rack tail bent', part: 'rackOff', from: -2, to: 2, unit: 'teeth too far' },
    usual: [1, -1],
    cure: 'All hours are wrong by the same: bend the tail a little, or turn it on its hub, until one and twelve are both right.',
    kinds: (kind) => racked(kind),
  },
  {
    ...{
      key: 'rack-long',
      title: 'Rack tail too long or too short',
      part: 'rackStretch',
      from: -0.13,
      to: 0.13,
      unit: 'of a step',
    },
    usual: [0.067, 0.055, 0.045, 0.1, -0.067, -0.055, -0.1],
    cure: 'Low hours are right and high ones wrong: the tail’s length does not fit the snail. Shorten the tail if it strikes too many, lengthen it if too few; then try one and twelve again.',
    kinds: (kind) => racked(kind),
  },
  {
    ...{ key: 'snail', title: 'Snail a step out', part: 'snailOff', from: -1, to: 1, unit: 'hours ahead' },
    usual: [1, -1],
    cure: 'It strikes the next or the last hour’s: mesh the hour wheel anew, so that the tail comes down in the middle of a step; on a star wheel, see that it has jumped before the rack falls.',
    kinds: (kind) => racked(kind),
  },
  {
    ...{
      key: 'half-low',
      title: 'Lift of the half too low',
      part: 'halfLift',
      from: 0.1,
      to: 0.44,
      unit: 'of the hour’s',
    },
    usual: [0.3],
    cure: 'It is silent at the half: the pin or cam of the half is worn or bent. Bend the lifting piece’s tail toward it, and see that the hour still drops freely.',
    kinds: withHalves,
  },
  {
    ...{
      key: 'half-high',
      title: 'Lift of the half too high',
      part: 'halfLift',
      from: 0.8,
      to: 1,
      unit: 'of the hour’s',
    },
    usual: [0.9],
    cure: 'The rack drops to the snail at the half too: shorten or bend the half’s pin.',
    kinds: (kind, halves) => racked(kind) && withHalves(kind, halves) && halves === 'one',
  },
  {
    ...{
      key: 'hour-lift',
      title: 'Lift of the hour too low',
      part: 'hourLift',
      from: 0.46,
      to: 0.79,
      unit: 'of its height',
    },
    usual: [0.65],
    cure: 'It chimes the hour and does not strike: the fourth lift must be high enough to let the strike warn. Bend the lever, not the cam.',
    kinds: quartered,
  },
  {
    ...{
      key: 'quarter-lift',
      title: 'Lifts of the quarters too high',
      part: 'quarterLift',
      from: 0.8,
      to: 1,
      unit: 'of the hour’s',
    },
    usual: [0.9],
    cure: 'Every quarter lets the strike go: three lifts of the four are low. Ease the lever that lets the strike warn.',
    kinds: quartered,
  },
  {
    ...{ key: 'drum', title: 'Chime drum out', part: 'drumOff', from: 1, to: 4, unit: 'phrases ahead' },
    usual: [1, 2, 3, 4],
    cure: 'The number is right and the tune begins midway: loosen the drum’s wheel and turn the drum back to the phrase that the first quarter begins with.',
    kinds: (kind) => STRIKE_KIND_FACTS[kind].quarters === 'chime',
  },
  {
    ...{
      key: 'plate',
      title: 'Chime’s locking plate out of step',
      part: 'plateOff',
      from: 1,
      to: 3,
      unit: 'quarters ahead',
    },
    usual: [1, 2, 3],
    cure: 'It plays another quarter’s: let it run, a quarter at a time, until four come at the hour; one that corrects itself is put right by the high lift within the hour.',
    kinds: quartered,
  },
  {
    ...{
      key: 'hand',
      title: 'Minute hand turned on its bush',
      part: 'handMinutes',
      from: -10,
      to: 10,
      unit: 'minutes late',
    },
    usual: [3],
    cure: 'The strike is right and the hand is not: turn the hand on its bush until it points to the hour as it strikes.',
    kinds: every,
  },
]

/** The faults that a strike of this kind can have. */
export function faultsFor(kind: StrikeKind, halves: Halves): StrikeFault[] {
  return STRIKE_FAULTS.filter((f) => f.kinds(kind, halves))
}

/** The parts as they stand with one fault of so much. */
export function withFault(fault: StrikeFault, amount: number): Standing {
  if (!(amount >= fault.from && amount <= fault.to))
    throw new FieldError(fault.part, amount, `it must be from ${fault.from} to ${fault.to} ${fault.unit}`)
  return { ...STANDS_RIGHT, [fault.part]: amount }
}

/** What was heard at a time; what nobody counted is left out. */
export interface HeardStrike extends StrikeTime {
  quarters: number | null
  blows: number | null
}

const sameTime = (a: StrikeTime, b: StrikeTime) => a.hour === b.hour && a.quarter === b.quarter

/** What was heard that is not as it should be, with what it should be. */
export function wrongStrikes(
  { kind, halves }: Pick<StrikeSetUp, 'kind' | 'halves'>,
  heard: HeardStrike[],
): { heard: HeardStrike; quarters: number; blows: number }[] {
  const right = strikesRight(kind, halves)
  return heard.flatMap((h) => {
    const { quarters, blows } = right.find((r) => sameTime(r, h)) ?? { quarters: 0, blows: 0 }
    const off = (h.blows !== null && h.blows !== blows) || (h.quarters !== null && h.quarters !== quarters)
    return off ? [{ heard: h, quarters, blows }] : []
  })
}

export interface Explained {
  fault: StrikeFault
  amount: number
  /** of what was heard, how many times come out otherwise with this fault */
  misfits: number
}

/**
 * Which faults make the strike sound as it was heard, those that explain it best first; none where all was right.
 *
 * Every fault is put into the model, in every usual size, and the round it then strikes is laid beside what was heard.
 * What leaves more than a quarter of what was heard unexplained is not named.
 */
export function faultsOfPattern(
  { kind, halves }: Pick<StrikeSetUp, 'kind' | 'halves'>,
  heard: HeardStrike[],
): Explained[] {
  if (wrongStrikes({ kind, halves }, heard).length === 0) return []
  const tried = faultsFor(kind, halves).flatMap((fault) => {
    const all = fault.usual.map((amount) => {
      const round = strikeRound({ kind, halves, stands: withFault(fault, amount) })
      const misfits = heard.filter((h) => {
        const struck = round.find((s) => sameTime(s, h))
        return (
          (h.blows !== null && h.blows !== (struck?.blows ?? 0)) ||
          (h.quarters !== null && h.quarters !== (struck?.quarters ?? 0))
        )
      }).length
      return { fault, amount, misfits }
    })
    const best = all.reduce((a, b) => (b.misfits < a.misfits ? b : a))
    return 4 * best.misfits <= heard.length && best.misfits < heard.length ? [best] : []
  })
  const wrong = wrongStrikes({ kind, halves }, heard).length
  // A fault that explains no more than "all is right" does is no explanation.
  return tried.filter((t) => t.misfits < wrong).sort((a, b) => a.misfits - b.misfits)
}

/** What was heard, in the words in which a person would tell it. */
export function patternInWords({ kind, halves }: Pick<StrikeSetUp, 'kind' | 'halves'>, heard: HeardStrike[]): string {
  if (heard.length === 0) return 'Nothing is counted yet.'
  const wrong = wrongStrikes({ kind, halves }, heard)
  if (wrong.length === 0) return 'All that was counted is right.'
  const hours = heard.filter((h) => h.quarter === 0 && h.blows !== null)
  const wrongHours = wrong.filter((w) => w.heard.quarter === 0 && w.heard.blows !== w.blows)
  const others = wrong.filter((w) => !wrongHours.includes(w))
  return [hoursInWords(hours, wrongHours), othersInWords(heard, others)].filter((w) => w !== '').join('; ') + '.'
}

type Wrong = ReturnType<typeof wrongStrikes>[number]

function hoursInWords(hours: HeardStrike[], wrong: Wrong[]): string {
  if (wrong.length === 0) return ''
  const off = (w: Wrong) => (w.heard.blows ?? 0) - w.blows
  const first = wrong[0]
  if (!first) return ''
  if (wrong.every((w) => w.heard.blows === 0))
    return wrong.length === hours.length ? 'Silent at every hour' : said(wrong)
  const by = off(first)
  if (wrong.length > 1 && wrong.every((w) => off(w) === by)) {
    const words = `${Math.abs(by) === 1 ? 'one' : Math.abs(by)} too ${by > 0 ? 'many' : 'few'}`
    if (wrong.length === hours.length) return `${words.charAt(0).toUpperCase()}${words.slice(1)} at every hour counted`
    const least = Math.min(...wrong.map((w) => w.heard.hour))
    const above = hours.filter((h) => h.hour >= least)
    if (above.length === wrong.length) return `All ${words} after ${least - 1}`
  }
  if (wrong.length > 1 && wrong.length === hours.length && wrong.every((w) => w.heard.blows === first.heard.blows))
    return `${first.heard.blows} at every hour`
  return said(wrong)
}

function said(wrong: Wrong[]): string {
  const shown = wrong.slice(0, 4).map((w) => `${w.heard.blows ?? '?'} at ${timeInWords(w.heard)}`)
  return `${shown.join(', ')}${wrong.length > 4 ? ` and ${wrong.length - 4} more` : ''}`
}

function othersInWords(heard: HeardStrike[], wrong: Wrong[]): string {
  if (wrong.length === 0) return ''
  const halves = heard.filter((h) => h.quarter === 2)
  const silent = (w: Wrong) => (w.heard.blows ?? 0) + (w.heard.quarters ?? 0) === 0
  if (wrong.every((w) => w.heard.quarter === 2 && silent(w)) && wrong.length === halves.length)
    return 'Silent at the half'
  if (wrong.every(silent))
    return `Silent at ${wrong
      .slice(0, 4)
      .map((w) => timeInWords(w.heard))
      .join(', ')}`
  const words = (w: Wrong) =>
    w.heard.quarters !== null && w.heard.quarters !== w.quarters
      ? `${w.heard.quarters} for ${w.quarters} at ${timeInWords(w.heard)}`
      : `${w.heard.blows ?? '?'} at ${timeInWords(w.heard)}`
  return `${wrong.slice(0, 4).map(words).join(', ')}${wrong.length > 4 ? ` and ${wrong.length - 4} more` : ''}`
}
