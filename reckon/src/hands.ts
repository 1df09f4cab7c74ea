import { dayMinutes, HALVES, handsPlan, shownMinutes, type Halves } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { boolean, figure, only, string } from './fields.ts'

/** Calculations of the hands. */
export const HANDS: Calculation[] = [
  calculation({
    name: 'hands.plan',
    title: 'Hands from what it shows to what it should',
    about:
      'Forward through every strike, stopped until its time comes round, or back: stops, blows, and the least work.',
    input: only({
      shows: string().required().label('It shows'),
      trueTime: string().required().label('The true time'),
      halves: string<Halves>().oneOf(HALVES).label('At the half hour'),
      quarters: boolean().label('Stops at each quarter'),
      secondsPerBlow: figure('A blow takes'),
      backAllowed: boolean().label('Its kind allows the hand to go back'),
    }),
    fields: {
      shows: { unit: 'H:MM, on a dial of twelve hours', example: '10:50' },
      trueTime: { unit: 'HH:MM', example: '13:04' },
      halves: { unit: '', example: 'none', note: 'left out: it does not strike' },
      quarters: { unit: '', example: false },
      secondsPerBlow: { unit: 's', example: 1.5 },
      backAllowed: { unit: '', example: false, note: 'only where its maker says so' },
    },
    output: {
      forwardMinutes: 'min',
      stops: 'times to let it strike or chime',
      blows: '',
      waitMinutes: 'min, until its time comes round',
      advise: 'forward, wait or back',
      why: '',
    },
    run: ({ shows, trueTime, ...strike }) => {
      const { way: _, ...plan } = handsPlan({
        ...strike,
        showsMinutes: shownMinutes('shows', shows),
        trueMinutes: dayMinutes('trueTime', trueTime),
      })
      return plan
    },
  }),
]
