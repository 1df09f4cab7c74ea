import { trialStanding } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, figure, only, string } from './fields.ts'
import { isoOf, secondsOf } from './moment.ts'

const moments = (label: string) => array(string().required()).max(5000).required().label(label)
const WITH_ZONE = 'moments with their zone'

/** Calculations of a trial. */
export const TRIAL: Calculation[] = [
  calculation({
    name: 'trial.standing',
    title: 'How a trial stands',
    about: 'Since when it counts, when it is over, and what is still wanted.',
    input: only({
      days: figure('Days').required(),
      startedAt: string().required().label('Started'),
      changes: moments('Changes'),
      windings: moments('Windings'),
      nowAt: string().required().label('Now'),
    }),
    fields: {
      days: { unit: 'days', example: 7 },
      startedAt: { unit: 'a moment with its zone', example: '2026-03-01T09:00:00Z' },
      changes: { unit: WITH_ZONE, example: ['2026-03-03T16:00:00Z'] },
      windings: { unit: WITH_ZONE, example: ['2026-03-08T09:00:00Z'] },
      nowAt: { unit: 'a moment with its zone', example: '2026-03-10T16:00:00Z' },
    },
    output: { countsFrom: '', endsAt: '', over: '', wanted: '' },
    run: (i) => {
      const standing = trialStanding({
        days: i.days,
        startedAtS: secondsOf('startedAt', i.startedAt),
        changesS: i.changes.map((at, n) => secondsOf(`changes[${n}]`, at)),
        windingsS: i.windings.map((at, n) => secondsOf(`windings[${n}]`, at)),
        nowS: secondsOf('nowAt', i.nowAt),
      })
      const { countsFromS, endsAtS, over, wanted } = standing
      return { countsFrom: isoOf(countsFromS), endsAt: isoOf(endsAtS), over, wanted }
    },
  }),
]
