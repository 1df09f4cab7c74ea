import type { Halves } from './blows.ts'

/** How a clock strikes. */
export const STRIKE_KINDS = [
  'count-outside',
  'count-inside',
  'rack',
  'ting-tang',
  'chime',
  'bird-two',
  'bird-three',
  'repeater',
] as const
export type StrikeKind = (typeof STRIKE_KINDS)[number]

export interface StrikeKindFacts {
  title: string
  /** what tells the number of blows */
  counts: 'count wheel' | 'rack'
  /** what it does at the quarters besides striking the hours */
  quarters: 'none' | 'pairs' | 'chime' | 'bird'
  /** what it may strike at the half */
  halves: Halves[]
}

const STRIKES: Halves[] = ['none', 'one']

export const STRIKE_KIND_FACTS: Record<StrikeKind, StrikeKindFacts> = {
  'count-outside': {
    title: 'Count wheel, outside the plate',
    counts: 'count wheel',
    quarters: 'none',
    halves: STRIKES,
  },
  'count-inside': {
    title: 'Count wheel, between the plates',
    counts: 'count wheel',
    quarters: 'none',
    halves: STRIKES,
  },
  rack: { title: 'Rack and snail', counts: 'rack', quarters: 'none', halves: ['none', 'one', 'hour'] },
  'ting-tang': { title: 'Quarters in pairs of notes, one train', counts: 'rack', quarters: 'pairs', halves: ['none'] },
  chime: { title: 'Chime, three trains', counts: 'rack', quarters: 'chime', halves: ['none'] },
  'bird-two': { title: 'Bird and bellows, two trains', counts: 'count wheel', quarters: 'none', halves: STRIKES },
  'bird-three': {
    title: 'Two birds and bellows, three trains',
    counts: 'count wheel',
    quarters: 'bird',
    halves: ['none'],
  },
  repeater: { title: 'Rack, repeats by a cord', counts: 'rack', quarters: 'none', halves: ['none', 'one'] },
}

/** A time at which a clock may strike: the hour, 1 to 12, and its quarter, 0 to 3; quarter 2 of hour 3 is half past three. */
export interface StrikeTime {
  hour: number
  quarter: number
}

/** What is struck at a time: phrases, pairs of notes or calls of the quarters, and blows of the hour. */
export interface Struck extends StrikeTime {
  quarters: number
  blows: number
}

/** The usual strike of a clock by what is known of its work: the start of its sheet. */
export function likelyStrike(work: {
  strikeWork: 'count-wheel' | 'rack' | null
  trains: { train: string }[]
}): StrikeKind | null {
  const has = (train: string) => work.trains.some((t) => t.train === train)
  if (has('chime')) return 'chime'
  if (!has('strike')) return null
  return work.strikeWork === 'rack' ? 'rack' : 'count-outside'
}

/** The times of one round of the dial, from a quarter past twelve to twelve. */
export const ROUND_OF_TIMES: readonly StrikeTime[] = [12, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11].flatMap((hour) => [
  { hour, quarter: 1 },
  { hour, quarter: 2 },
  { hour, quarter: 3 },
  { hour: (hour % 12) + 1, quarter: 0 },
])

/** What a clock of this kind strikes when all is right, at every time of the round at which it strikes at all. */
export function strikesRight(kind: StrikeKind, halves: Halves): readonly Struck[] {
  const key = `${kind} ${halves}`
  const known = RIGHT.get(key)
  if (known) return known
  const right = reckonRight(kind, halves)
  RIGHT.set(key, right)
  return right
}

/** Of every kind and way of the halves, reckoned once. */
const RIGHT = new Map<string, readonly Struck[]>()

function reckonRight(kind: StrikeKind, halves: Halves): Struck[] {
  const { quarters } = STRIKE_KIND_FACTS[kind]
  return ROUND_OF_TIMES.flatMap(({ hour, quarter }) => {
    const struck = { hour, quarter, quarters: 0, blows: 0 }
    if (quarter === 0) struck.blows = hour
    if (quarters === 'chime' || quarters === 'bird') struck.quarters = quarter === 0 ? 4 : quarter
    if (quarters === 'pairs') struck.quarters = quarter
    if (quarters === 'none' && quarter === 2) struck.blows = { none: 0, one: 1, hour }[halves]
    return struck.blows + struck.quarters > 0 ? [struck] : []
  })
}

/** A time as one word, to tell it from the others. */
export function timeKey({ hour, quarter }: StrikeTime): string {
  return `${hour}:${quarter}`
}

/** A time as it is said: "three", "half past three", "quarter to four". */
export function timeInWords({ hour, quarter }: StrikeTime): string {
  const next = (hour % 12) + 1
  return quarter === 0
    ? `${hour} o’clock`
    : quarter === 1
      ? `quarter past ${hour}`
      : quarter === 2
        ? `half past ${hour}`
        : `quarter to ${next}`
}
