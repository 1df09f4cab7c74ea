import { DEFAULT_TROUBLE_TABLE, reasonTrouble } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { number, only, string } from './fields.ts'

const yesNoChecks = DEFAULT_TROUBLE_TABLE.checks.filter((c) => c.yearsUpTo === null)
const observations = only({
  ...Object.fromEntries(yesNoChecks.map((c) => [c.key, string().oneOf(['yes', 'no', 'unknown'] as const)])),
  yearsSinceOil: number().nullable(),
})

/** Calculations of finding what is wrong. */
export const TROUBLE: Calculation[] = [
  calculation({
    name: 'trouble.next',
    title: 'What is wrong with it',
    about: 'Likely causes, and the checks that tell most for each minute; rules of thumb, not proofs.',
    input: only({ observations: observations.label('Observations') }),
    fields: {
      observations: {
        unit: 'yes, no, unknown; years',
        example: { movedLately: 'yes', evenBeat: 'no', tiltCures: 'yes', yearsSinceOil: 6 },
        note: `${yesNoChecks.map((c) => c.key).join(', ')}; yearsSinceOil is a number`,
      },
    },
    output: { causes: 'cause, probability', checks: 'check, minutes, tells (bits)' },
    run: (i) => {
      const { causes, checks } = reasonTrouble(DEFAULT_TROUBLE_TABLE, i.observations)
      return {
        causes: causes.map(({ cause, title, probability }) => ({ cause, probability, title })),
        checks: checks.map(({ check, minutes, tells, question, how }) => ({ check, minutes, tells, question, how })),
      }
    },
  }),
]
