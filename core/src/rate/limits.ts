/** What may be asked of a clock's rate by what it is, s/day: workshop rules of thumb. */
export interface RateLimit {
  secondsPerDay: number
  words: string
}

/** A pendulum as long as a metre's is held to a regulator's rate, one shorter than a hand's breadth to a novelty's, mm. */
const LONG_MM = 600
const SHORT_MM = 130

/**
 * Limits by kind: regulators and others with a long pendulum within 5 s a day, ordinary eight-day clocks within a minute
 * a week to a minute a day, short-pendulum and novelty clocks one to two minutes a day.
 */
export function rateLimitFor(lengthMm: number | null): RateLimit | null {
  if (lengthMm === null) return null
  if (lengthMm >= LONG_MM) return { secondsPerDay: 5, words: 'a clock with a long pendulum: within 5 s a day' }
  if (lengthMm >= SHORT_MM)
    return { secondsPerDay: 60, words: 'an ordinary clock: from a minute a week to a minute a day' }
  return { secondsPerDay: 120, words: 'a short pendulum: within one or two minutes a day' }
}
