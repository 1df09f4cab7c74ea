import { moonAge, moonClicks } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { figure, only, string } from './fields.ts'
import { isoOf, secondsOf } from './moment.ts'

/** Calculations of the moon’s disc. */
export const MOON: Calculation[] = [
  calculation({
    name: 'moon.age',
    title: 'Age of the moon',
    about: 'Days since the last new moon, how much of it is lit, and the next new and full moon.',
    input: only({ at: string().required().label('At') }),
    fields: { at: { unit: 'moment with its zone', example: '2026-03-01T09:30:00Z' } },
    output: { ageDays: 'days', illuminatedPercent: '%', nextNewAt: 'moment', nextFullAt: 'moment' },
    run: (i) => {
      const { nextNewAtS, nextFullAtS, ...moon } = moonAge(secondsOf('at', i.at))
      return { ...moon, nextNewAt: isoOf(nextNewAtS), nextFullAt: isoOf(nextFullAtS) }
    },
  }),
  calculation({
    name: 'moon.set',
    title: 'Clicks to a moon disc',
    about: 'How far its disc is moved forward, from the age that it shows to the true one.',
    input: only({
      at: string().required().label('At'),
      showsAgeDays: figure('It shows').required(),
      clicksPerLunation: figure('Clicks of a lunation'),
    }),
    fields: {
      at: { unit: 'moment with its zone', example: '2026-03-01T09:30:00Z' },
      showsAgeDays: { unit: 'days since new moon', example: 4 },
      clicksPerLunation: { unit: '', example: 59 },
    },
    output: { clicksForward: 'clicks' },
    run: (i) => ({
      clicksForward: moonClicks(moonAge(secondsOf('at', i.at)).ageDays, i.showsAgeDays, i.clicksPerLunation),
    }),
  }),
]
