import { calendarSetting } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { figure, only, string } from './fields.ts'

/** Calculations of a calendar. */
export const CALENDAR: Calculation[] = [
  calculation({
    name: 'calendar.set',
    title: 'Clicks to a calendar of 31 days',
    about: 'How far it is moved forward to the date, and when it next needs a hand.',
    input: only({
      showsDay: figure('It shows').required(),
      date: string().required().label('Date'),
    }),
    fields: {
      showsDay: { unit: 'day, 1 to 31', example: 28 },
      date: { unit: 'YYYY-MM-DD', example: '2026-03-01' },
    },
    output: { clicksForward: 'of 31', nextByHand: 'date, clicks' },
    run: (i) => ({ ...calendarSetting(i.showsDay, i.date) }),
  }),
]
