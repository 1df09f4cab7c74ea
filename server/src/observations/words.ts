import type { Observation } from '@treadle/contract'
import { DEFAULT_TROUBLE_TABLE, LOSS_KEY } from '@treadle/core'

/** The stops of the walk before touching, as they are said. */
const WALK: Record<string, string> = {
  hands: 'Hands',
  dial: 'Dial',
  case: 'Case',
  arc: 'Arc',
  drive: 'Drive margin, fitted and least, kg',
  'strike-round': 'Strike, round the dial',
  wear: 'Wear, with the power on',
  bath: 'The bath preferred for it',
  'in-place': 'Serviced in place',
  'suspension to tip': 'From suspension to tip, mm',
}

const ANSWERS: Record<string, string> = {
  watch: 'to be watched',
  must: 'must be seen to',
  counted: 'counted',
}

/** What was observed, as one clockmaker would say it to another. */
export function observationWords({ key, answer, figure, second, note }: Omit<Observation, 'id' | 'version'>): string {
  const said = [ANSWERS[answer] ?? answer, figure, second].filter((v) => v !== '' && v !== null).join(', ')
  const told = (what: string) => [what, said, note].filter(Boolean).join(': ').replace(/\.?$/, '.')
  if (key.startsWith(LOSS_KEY))
    return `Lost or broken in our hands: ${note}. The owner ${answer === 'told' ? 'was told' : 'does not know yet'}.`
  if (key.startsWith('ask ')) {
    const check = DEFAULT_TROUBLE_TABLE.checks.find((c) => c.key === key.slice(4))
    return check ? `${check.question} ${said}.${note === '' ? '' : ` ${note}`}` : told(key.slice(4))
  }
  const [looked, what, train] = key.split(':')
  if (looked === 'looked') return `All other ${what} of the ${train} train were looked at, and are sound.`
  if (key.startsWith('pegged: ')) return `${answer === 'clean' ? 'Pegged clean' : 'Not pegged yet'}: ${key.slice(8)}.`
  return told(WALK[key] ?? key.replace(/^./, (c) => c.toUpperCase()))
}

/** What is taken back, in the same words. */
export function takenBackWords(row: Omit<Observation, 'id' | 'version'>): string {
  return `Taken back: ${observationWords(row).replace(/^./, (c) => c.toLowerCase())}`
}
