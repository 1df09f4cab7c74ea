import { FieldError } from '../check/require.ts'
import type { TroubleCheck, TroubleTable } from './table.ts'

/** What is known of one check: yes, no, years, or nothing. */
export type Answer = 'yes' | 'no' | 'unknown' | number | null

export interface RankedCause {
  cause: string
  title: string
  remark: string
  probability: number
  /** what spoke for it (factor above 1) and against it, strongest first */
  because: { check: string; question: string; answer: Answer; factor: number }[]
}

export interface RankedCheck {
  check: string
  question: string
  how: string
  minutes: number
  /** what its answer is expected to tell, bits */
  tells: number
}

export interface Reasoned {
  causes: RankedCause[]
  /** the checks not made yet, the one that tells most a minute first */
  checks: RankedCheck[]
}

/** How many cases the table's own shares are worth against the workshop's confirmed ones. */
const TABLE_CASES = 30
/** No single answer may settle a matter: chances are kept this far from nought and one. */
const FLOOR = 0.02

/**
 * Causes by their probability, and the checks by what they are expected to tell for each minute.
 *
 * Bayes' rule with one cause at work, answers independent given the cause: P(c|answers) ∝ share(c)·∏P(answer|c). A
 * check tells the mutual information of its answer and the cause, H(C) − Σ P(a)·H(C|a), in bits. "Don't know" counts
 * for nothing. Answers that hang together (cold and dry oil) are counted as if they did not, so high figures are
 * somewhat too high; two causes at once are not weighed.
 *
 * @param confirmed - how often the workshop found each cause; shares become (30·share + count)/(30 + all counts)
 * @throws FieldError for an answer that is none
 */
export function reasonTrouble(
  table: TroubleTable,
  answers: Record<string, Answer | undefined>,
  confirmed: Record<string, number> = {},
): Reasoned {
  const priors = sharpened(table, confirmed)
  const made = table.checks.flatMap((check) => {
    const answer = answers[check.key] ?? null
    const outcome = outcomeOf(check, answer)
    return outcome === null ? [] : [{ check, answer, outcome }]
  })
  const weights = table.causes.map(({ key }, i) =>
    made.reduce((p, { check, outcome }) => p * chance(check, key, outcome), priors[i] ?? 0),
  )
  const now = normal(weights)
  const causes = table.causes
    .map(({ key, title, remark }, i): RankedCause => ({
      cause: key,
      title,
      remark,
      probability: now[i] ?? 0,
      because: made
        .map(({ check, answer, outcome }) => ({
          check: check.key,
          question: check.question,
          answer,
          factor:
            chance(check, key, outcome) /
            table.causes.reduce((sum, c, k) => sum + (priors[k] ?? 0) * chance(check, c.key, outcome), 0),
        }))
        .sort((a, b) => Math.abs(Math.log(b.factor)) - Math.abs(Math.log(a.factor))),
    }))
    .sort((a, b) => b.probability - a.probability)
  const checks = table.checks
    .filter((check) => !made.some((m) => m.check === check))
    .map((check): RankedCheck => {
      const { key, question, how, minutes } = check
      return { check: key, question, how, minutes, tells: tells(table, check, now) }
    })
    .sort((a, b) => b.tells / b.minutes - a.tells / a.minutes)
  return { causes, checks }
}

/** The shares of the table, sharpened by what the workshop found; they sum to one. */
export function sharpened(table: TroubleTable, confirmed: Record<string, number>): number[] {
  const shares = normal(table.causes.map((c) => c.weight))
  return normal(table.causes.map((c, i) => TABLE_CASES * (shares[i] ?? 0) + (confirmed[c.key] ?? 0)))
}

/** A probability in a word that claims no more than it. */
export function likelihoodWord(probability: number): string {
  if (probability >= 0.85) return 'very likely'
  if (probability >= 0.5) return 'likely'
  if (probability >= 0.2) return 'possible'
  return probability >= 0.05 ? 'less likely' : 'hardly'
}

function outcomeOf(check: TroubleCheck, answer: Answer): number | null {
  if (answer === null || answer === 'unknown') return null
  if (check.yearsUpTo) {
    if (typeof answer !== 'number' || !Number.isFinite(answer) || answer < 0 || answer > 500)
      throw new FieldError(`observations.${check.key}`, answer, 'it must be years from 0 to 500')
    const place = check.yearsUpTo.findIndex((end) => answer < end)
    return place < 0 ? check.yearsUpTo.length : place
  }
  if (answer !== 'yes' && answer !== 'no')
    throw new FieldError(`observations.${check.key}`, answer, 'it must be yes, no or unknown')
  return answer === 'yes' ? 0 : 1
}

function chance(check: TroubleCheck, cause: string, outcome: number): number {
  const p = (check.given[cause] ?? check.otherwise)[outcome] ?? 0
  return Math.min(1 - FLOOR, Math.max(FLOOR, p))
}

function tells(table: TroubleTable, check: TroubleCheck, now: number[]): number {
  let left = 0
  // Kept from nought and one, the chances of a check's answers need not sum to one: they are made to, cause by cause.
  const rows = table.causes.map((c) => normal(check.otherwise.map((_, a) => chance(check, c.key, a))))
  check.otherwise.forEach((_, a) => {
    const joint = now.map((p, i) => p * (rows[i]?.[a] ?? 0))
    const of = joint.reduce((x, y) => x + y, 0)
    if (of > 0) left += of * entropy(normal(joint))
  })
  return Math.max(0, entropy(now) - left)
}

function entropy(p: number[]): number {
  return p.reduce((h, x) => (x > 0 ? h - x * Math.log2(x) : h), 0)
}

function normal(weights: number[]): number[] {
  const sum = weights.reduce((a, b) => a + b, 0)
  return weights.map((w) => w / sum)
}
