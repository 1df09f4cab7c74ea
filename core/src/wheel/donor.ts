export const DONOR_KINDS = ['wheel', 'pinion', 'escape wheel', 'platform', 'spring'] as const
export type DonorKind = (typeof DONOR_KINDS)[number]
export const DONOR_SIDES = ['', 'front', 'back'] as const

/** A used part of the ledger, by what decides whether it fits; mm. Of a spring the outside is its width. */
export interface DonorFacts {
  kind: DonorKind
  /** teeth or leaves */
  count: number | null
  moduleMm: number | null
  boreMm: number | null
  outsideMm: number | null
  arborMm: number | null
  /** the side of the wheel its collet sits on */
  side: (typeof DONOR_SIDES)[number]
}

/** What is wanted: the same figures of the part it stands in for. */
export type DonorWanted = DonorFacts

export interface DonorFit {
  fits: 'as it is' | 'with work' | 'no'
  /** 0: the same part; grows with what is different and how much */
  apart: number
  /** what is different, and what has to be done for it */
  words: string[]
}

/** A module this near is the same, and this near can be made to run by the depth; shares. */
const MODULE = { same: 0.01, near: 0.03 }
const SAME_MM = 0.03

/**
 * How nearly a donor fits: the count must be the same; module, bore, outside, arbor and side may be made to.
 *
 * What the ledger or the sheet does not say is no reason against a donor, and is told as still to be measured.
 */
export function donorFit(wanted: DonorWanted, donor: DonorFacts): DonorFit {
  if (wanted.kind !== donor.kind) return no(`It is a ${donor.kind}.`)
  const counted = wanted.kind !== 'platform' && wanted.kind !== 'spring'
  if (counted && wanted.count !== null && donor.count !== null && wanted.count !== donor.count)
    return no(`It has ${donor.count}; ${wanted.count} are wanted.`)
  const words: string[] = []
  let apart = 0
  let work = false
  const needs = (weight: number, said: string) => {
    work = true
    apart += weight
    words.push(said)
  }
  const unknown = (what: string) => {
    apart += 0.2
    words.push(`${what} is still to be measured.`)
  }
  if (counted && (wanted.count === null || donor.count === null)) unknown('Its count')
  if (wanted.moduleMm !== null && counted) {
    if (donor.moduleMm === null) unknown('Its module')
    else {
      const off = donor.moduleMm / wanted.moduleMm - 1
      if (Math.abs(off) > MODULE.near) return no(`Its module is ${percent(off)}: the teeth would not pass each other.`)
      if (Math.abs(off) > MODULE.same)
        needs(Math.abs(off) * 30, `Its module is ${percent(off)}: the depth has to be set anew.`)
      else apart += Math.abs(off) * 30
    }
  }
  if (wanted.outsideMm !== null) {
    if (donor.outsideMm === null) unknown('Its outside')
    else {
      const off = donor.outsideMm / wanted.outsideMm - 1
      if (Math.abs(off) > MODULE.near) needs(Math.abs(off) * 20, `Across it is ${percent(off)}.`)
      else apart += Math.abs(off) * 10
    }
  }
  if (wanted.boreMm !== null && donor.boreMm !== null) {
    const off = donor.boreMm - wanted.boreMm
    if (off > SAME_MM)
      needs(0.5 + off * 0.2, `Its bore is ${off.toFixed(2)} mm larger: bush it, or turn a collet for it.`)
    else if (off < -SAME_MM) needs(0.3 - off * 0.1, `Its bore is ${(-off).toFixed(2)} mm smaller: open it.`)
  } else if (wanted.boreMm !== null) unknown('Its bore')
  if (wanted.arborMm !== null && donor.arborMm !== null && Math.abs(donor.arborMm - wanted.arborMm) > 0.5)
    needs(0.3, `Its arbor is ${donor.arborMm} mm; ${wanted.arborMm} mm was there: change it over.`)
  if (wanted.side !== '' && donor.side !== '' && wanted.side !== donor.side)
    needs(0.4, 'Its collet sits on the other side: turn it about.')
  return { fits: work ? 'with work' : 'as it is', apart, words }
}

/** The donors that fit, nearest first; at most so many. */
export function rankDonors<D extends DonorFacts>(wanted: DonorWanted, donors: D[], most = 20): (D & DonorFit)[] {
  return donors
    .flatMap((donor) => {
      const fit = donorFit(wanted, donor)
      return fit.fits === 'no' ? [] : [{ ...donor, ...fit }]
    })
    .sort((a, b) => a.apart - b.apart)
    .slice(0, most)
}

function no(why: string): DonorFit {
  return { fits: 'no', apart: Infinity, words: [why] }
}

function percent(off: number): string {
  return `${(Math.abs(off) * 100).toFixed(1)} % ${off > 0 ? 'larger' : 'smaller'}`
}
