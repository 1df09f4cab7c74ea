import type { Observation } from '@treadle/contract'
import {
  DEFAULT_TROUBLE_TABLE,
  journeySteps,
  JOURNEYS,
  LOSS_KEY,
  MERCURY_GATE,
  MERCURY_QUESTIONS,
  MERCURY_WAYS,
  mercurySteps,
  setUpSteps,
} from '@treadle/core'

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

/** One of each kind of clock that is set up or carried otherwise. */
const KINDS_SET_UP = ['longcase', 'wall', 'mantel', 'other'].flatMap((kind) =>
  ['weight', 'spring'].map((power) => ({
    kind,
    trains: [
      { train: 'going', power },
      { train: 'chime', power },
    ],
    work: { moon: true, calendar: true, mercury: true },
  })),
)

const JOURNEY_WORDS = { away: 'Taken away', home: 'Brought home', owner: 'Moved by its owner' }

const ANSWERS: Record<string, string> = {
  watch: 'to be watched',
  must: 'must be seen to',
  counted: 'counted',
}

/** The steps that are led by the foot, by the key that each is kept under. */
const LED = new Map([
  ...KINDS_SET_UP.flatMap((clock) =>
    [true, false].flatMap((level) => led('set-up', 'Set up', setUpSteps(clock, level))),
  ),
  ...KINDS_SET_UP.flatMap((clock) =>
    JOURNEYS.flatMap((way) =>
      led(`journey ${way}`, JOURNEY_WORDS[way], journeySteps({ ...clock, mercury: true, things: [] }, way)),
    ),
  ),
  ...MERCURY_WAYS.flatMap((way) => led(`mercury ${way}`, 'Mercury', mercurySteps(way))),
])

function led(walk: string, said: string, steps: { key: string; title: string }[]): [key: string, words: string][] {
  return steps.map(({ key, title }) => [`${walk}: ${key}`, `${said}: ${title.replace(/^./, (c) => c.toLowerCase())}`])
}

const GATE: Record<string, string> = Object.fromEntries(
  MERCURY_GATE.map(([key, words]) => [`mercury gate: ${key}`, words]),
)
const ASKED: Record<string, string> = Object.fromEntries(
  MERCURY_QUESTIONS.map(([key, question]) => [`mercury asked: ${key}`, question]),
)

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
  const step = LED.get(key)
  if (step !== undefined) return told(answer === '' ? `${step}, not done` : step)
  if (GATE[key] !== undefined) return `Mercury: ${answer === 'so' ? '' : 'no longer so: '}${GATE[key]}.`
  if (ASKED[key] !== undefined) return `Asked of the authority: ${ASKED[key]} ${note}`
  const [looked, what, train] = key.split(':')
  if (looked === 'looked') return `All other ${what} of the ${train} train were looked at, and are sound.`
  if (key.startsWith('pegged: ')) return `${answer === 'clean' ? 'Pegged clean' : 'Not pegged yet'}: ${key.slice(8)}.`
  return told(WALK[key] ?? key.replace(/^./, (c) => c.toUpperCase()))
}

/** What is taken back, in the same words. */
export function takenBackWords(row: Omit<Observation, 'id' | 'version'>): string {
  return `Taken back: ${observationWords(row).replace(/^./, (c) => c.toLowerCase())}`
}
