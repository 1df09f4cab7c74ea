import { MERCURY_WAYS } from './steps.ts'

/** What was seen or weighed, as far as mercury's steps ask. */
export interface MercurySeen {
  key: string
  answer: string
  figure?: number | null
  second?: number | null
}

/** By which keys it is kept what must be so before a cap is opened, and what was weighed. */
export const mercuryGateKey = (key: string) => `mercury gate: ${key}`
export const MERCURY_JAR = 'mercury: jar'
export const MERCURY_BOTTLES = 'mercury: bottles'
/** The name of a walk; its steps are kept under it and their own keys. */
export const mercuryWalk = (way: string) => `mercury ${way}`

/** Whether a key keeps anything of mercury: most of what is seen of a clock does not. */
export function isOfMercury(key: string): boolean {
  return key.startsWith('mercury ')
}

/** Which step of mercury's walks a key keeps; null: none. */
export function mercuryWalkOf(key: string): string | null {
  const walk = MERCURY_WAYS.map((way) => `${mercuryWalk(way)}: `).find((begin) => key.startsWith(begin))
  return walk === undefined ? null : key.slice(walk.length)
}

/** Why a step can't be said to be done for want of a weight; null: it can. */
export function mercuryNotWeighed(step: string, seen: MercurySeen[]): string | null {
  const of = (key: string) => seen.find((o) => o.key === key)
  const [jar, bottles] = [of(MERCURY_JAR), of(MERCURY_BOTTLES)]
  if (step === 'weigh-before' && jar?.figure == null) return 'Write down what the jar weighs.'
  if (step === 'weigh-after' && (jar?.second == null || bottles?.figure == null))
    return 'Write down what the jar weighs now, and what is in the bottles.'
  return null
}
