import Big from 'big.js'
import { amount, twoPlaces } from '../estimate/money.ts'
import { lanternTrundles, TRUNDLE_TOLERANCE_MM } from './lantern.ts'
import type { ClickFound, ClickState, WheelFound } from './found.ts'

export const WAY_KEYS = [
  'leave',
  'dress',
  'reverse',
  'replace-teeth',
  'used-wheel',
  'new-wheel',
  'fresh-track',
  'new-pinion',
  'some-trundles',
  'all-trundles',
  'do-platform',
  'exchange-platform',
  'send-platform',
  'new-spring',
] as const
export type WayKey = (typeof WAY_KEYS)[number]

/** A way out, with the workshop’s figures. */
export interface Way {
  key: WayKey
  title: string
  /** by the piece: a tooth, a trundle, or the whole */
  price: string
  /** about how long it lasts */
  years: number
  /** whether it can be undone */
  undone: boolean
  remark: string
}

/** To begin with; the workshop puts its own figures. */
export const DEFAULT_WAYS: Way[] = [
  way('leave', 'Leave it as it is', '0.00', 5, true, 'Looked at again at the next service.'),
  way('dress', 'Dress the teeth', '18.00', 8, false, 'Straighten, take off burrs; as little as possible.'),
  way(
    'reverse',
    'Reverse the wheel on its arbor',
    '95.00',
    40,
    true,
    'The unworn flank works; click work moves across.',
  ),
  way('replace-teeth', 'Let in new teeth', '38.00', 40, false, 'By the tooth.'),
  way('used-wheel', 'A used wheel from the ledger', '60.00', 25, true, 'The old one is kept with the clock.'),
  way('new-wheel', 'A new wheel cut', '180.00', 60, true, 'The old one is kept with the clock.'),
  way('fresh-track', 'Move to a fresh track', '45.00', 25, true, 'The wheel runs beside its old groove.'),
  way('new-pinion', 'A new pinion', '160.00', 60, true, 'Cut from the solid, or a used arbor.'),
  way('some-trundles', 'Replace the bad trundles', '12.00', 20, true, 'By the trundle.'),
  way('all-trundles', 'Replace all trundles', '70.00', 40, true, 'All of one wire.'),
  way('new-spring', 'A new mainspring fitted', '65.00', 20, true, 'The old one is kept with the clock.'),
  way('do-platform', 'Do the platform here', '90.00', 5, true, 'Cleaned and oiled as a watch is.'),
  way('exchange-platform', 'Exchange the whole platform', '140.00', 25, true, 'The old one is kept with the clock.'),
  way('send-platform', 'Send the platform to a watchmaker', '210.00', 25, true, 'A new staff, a jewel.'),
]

function way(key: WayKey, title: string, price: string, years: number, undone: boolean, remark: string): Way {
  return { key, title, price, years, undone, remark }
}

export interface WayOut extends Way {
  /** pieces it is priced by */
  pieces: number
  total: string
  /** the total over the years it lasts */
  aYear: string
  /** empty: it may be done; else why not */
  whyNot: string
}

/** More than this share of its teeth is not let in anew: a wheel is cut. */
const MOST_TEETH = 1 / 6

/** What else the ways depend on, besides what was found of the part itself. */
export interface WaysBy {
  click: ClickFound | null
  teeth: number | null
  escape: boolean
  /** how many donors of the ledger fit, as they are or with some work */
  donors: number
  freshTrack: boolean
  toleranceMm?: number
}

/**
 * The ways out of what was found of a wheel or pinion, each with its price, cost a year and why it may not be done, what
 * may be done first and of those the cheapest a year.
 */
export function waysOut(found: WheelFound, by: WaysBy, table: Way[]): WayOut[] {
  return ordered(
    table.flatMap((one): WayOut[] => {
      const asked = ASKED[one.key]
      if (!asked?.parts.includes(found.part)) return []
      return [priced(one, asked.pieces?.(found, by) ?? 1, asked.whyNot(found, by))]
    }),
  )
}

/** A way by its pieces. */
export function priced(one: Way, pieces: number, whyNot: string): WayOut {
  const total = amount('price', one.price).times(Math.max(1, pieces))
  return {
    ...one,
    pieces,
    total: twoPlaces(total),
    aYear: twoPlaces(one.years > 0 ? total.div(new Big(one.years)) : total),
    whyNot,
  }
}

export function ordered(ways: WayOut[]): WayOut[] {
  return ways.sort((a, b) => rank(a) - rank(b) || Number(a.aYear) - Number(b.aYear))
}

/** What may be done, then leaving it, which costs nothing and mends nothing, then what may not. */
function rank({ key, whyNot }: WayOut): number {
  return whyNot !== '' ? 2 : key === 'leave' ? 1 : 0
}

interface Asked {
  parts: WheelFound['part'][]
  pieces?: (found: WheelFound, by: WaysBy) => number
  whyNot: (found: WheelFound, by: WaysBy) => string
}

const lost = (found: WheelFound) => found.faults.filter((f) => f.fault === 'missing' || f.fault === 'cracked')
const toLetIn = (found: WheelFound) => found.faults.filter((f) => f.fault !== 'worn')
const badTrundles = (found: WheelFound, by: WaysBy) => {
  const all = found.trundlesMm.filter((mm): mm is number => mm !== null)
  if (all.length < 3) return null
  return lanternTrundles(all, by.toleranceMm ?? TRUNDLE_TOLERANCE_MM)
}

const ASKED: Partial<Record<WayKey, Asked>> = {
  leave: {
    parts: ['wheel', 'pinion', 'lantern'],
    whyNot: (found, { click }) => {
      if (click && Object.values(click).includes('bad'))
        return 'Its click work is bad: a slipping click breaks fingers and teeth.'
      return lost(found).length > 0 ? 'A tooth that is gone or cracked takes its neighbours with it.' : ''
    },
  },
  dress: {
    parts: ['wheel'],
    whyNot: (found) => {
      if (lost(found).length > 0) return 'What is missing or cracked can’t be dressed.'
      if (found.faults.some((f) => f.fault === 'short'))
        return 'A short tooth is not made longer by dressing the others.'
      return found.worn === 'both' ? 'Worn on both flanks there is nothing left to dress to.' : ''
    },
  },
  reverse: {
    parts: ['wheel'],
    whyNot: (found, { escape }) => {
      if (escape) return 'An escape wheel’s teeth lean one way.'
      if (found.worn !== 'working') return 'It helps only where just the flank that works is worn.'
      return lost(found).length > 0 ? 'First the missing or cracked teeth.' : ''
    },
  },
  'replace-teeth': {
    parts: ['wheel'],
    pieces: (found) => toLetIn(found).length,
    whyNot: (found, { teeth }) => {
      const n = toLetIn(found).length
      if (n === 0) return 'No tooth is bent, short, cracked or missing.'
      return teeth !== null && n > teeth * MOST_TEETH ? 'So many teeth are not let in: a wheel is cut.' : ''
    },
  },
  'used-wheel': {
    parts: ['wheel', 'pinion'],
    whyNot: (_, { donors }) => (donors === 0 ? 'No donor of the ledger fits.' : ''),
  },
  'new-wheel': { parts: ['wheel'], whyNot: () => '' },
  'fresh-track': {
    parts: ['pinion'],
    whyNot: (_, by) => (by.freshTrack ? '' : 'No side of the groove has room for the wheel.'),
  },
  'new-pinion': { parts: ['pinion'], whyNot: () => '' },
  'some-trundles': {
    parts: ['lantern'],
    pieces: (found, by) => badTrundles(found, by)?.replace.length ?? 0,
    whyNot: (found, by) => {
      const bad = badTrundles(found, by)
      if (!bad) return 'Gauge the trundles first.'
      if (bad.replace.length === 0) return 'All lie within the tolerance of each other.'
      return bad.verdict === 'replace all' ? 'Half of them or more would go.' : ''
    },
  },
  'all-trundles': { parts: ['lantern'], whyNot: () => '' },
}

export interface PlatformFound {
  /** turns freely and comes to rest slowly, both ways */
  balance: ClickState
  staff: '' | 'polished' | 'worn' | 'bent' | 'broken'
  jewel: '' | 'sound' | 'bored' | 'cracked'
  roller: ClickState
}

/**
 * What to do with a platform: do it here, exchange it, or send it, each with its price and the risk that rules it out.
 *
 * A new staff is watchmaker’s work, turned by hand in tenths and fitted to its jewel; so is a cracked jewel. What is only
 * dry and dirty is cleaned, oiled and never forced.
 */
export function platformWays(found: PlatformFound, donors: number, table: Way[]): WayOut[] {
  const staff = found.staff === 'worn' || found.staff === 'bent' || found.staff === 'broken'
  const jewel = found.jewel === 'bored' || found.jewel === 'cracked'
  const here = staff
    ? 'A new staff is watchmaker’s work: turned by hand, in tenths, and fitted to its jewel.'
    : jewel
      ? 'A bored or cracked jewel is set anew by a watchmaker.'
      : found.roller === 'bad'
        ? 'A loose roller is seated under a watchmaker’s staking tool.'
        : ''
  return ordered(
    table.flatMap((one): WayOut[] => {
      if (one.key === 'do-platform') return [priced(one, 1, here)]
      if (one.key === 'exchange-platform')
        return [priced({ ...one, remark: donors > 0 ? `${donors} in the ledger. ${one.remark}` : one.remark }, 1, '')]
      return one.key === 'send-platform' ? [priced(one, 1, '')] : []
    }),
  )
}
