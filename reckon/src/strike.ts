import { countWheel, HALVES, strikeBlows, strikeTrain, strikeTrips, type Halves } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, figure, number, only, string } from './fields.ts'

/** Calculations of the strike. */
export const STRIKE: Calculation[] = [
  calculation({
    name: 'strike.blows',
    title: 'Blows of a round of the dial',
    about: 'How often it strikes in twelve hours and in a day, by what it strikes at the half hour.',
    input: only({ halves: string<Halves>().oneOf(HALVES).required().label('At the half hour') }),
    fields: { halves: { unit: '', example: 'one' } },
    output: { inTwelveHours: 'blows', aDay: 'blows' },
    run: (i) => ({ ...strikeBlows(i.halves) }),
  }),
  calculation({
    name: 'strike.train',
    title: 'Whether a strike train locks right',
    about: 'Turns of every arbor at a blow, whether the locking arbor stands right after each, and days of striking.',
    input: only({
      wheels: array(number().required()).required().label('Wheels'),
      pinions: array(number().required()).required().label('Pinions'),
      pinWheel: only({ arbor: number().required(), pins: number().required() }).label('Pin wheel'),
      lockingArbor: figure('Locking arbor').required(),
      halves: string<Halves>().oneOf(HALVES).label('At the half hour'),
      turnsOfGreat: figure('Turns of the great wheel'),
    }),
    fields: {
      wheels: { unit: 'teeth, from the great wheel up', example: [84, 78, 70, 60] },
      pinions: { unit: 'leaves, from the second arbor up', example: [12, 6, 7, 6] },
      pinWheel: { unit: 'arbor (0 = great), pins', example: { arbor: 1, pins: 13 } },
      lockingArbor: { unit: 'arbor (0 = great)', example: 2 },
      halves: { unit: '', example: 'none' },
      turnsOfGreat: { unit: 'at one winding', example: 14 },
    },
    output: {
      turnsPerBlow: 'turns of each arbor',
      locksRight: '',
      days: 'days, or null',
      faults: '',
    },
    run: (i) => ({ ...strikeTrain(i) }),
  }),
  calculation({
    name: 'strike.countWheel',
    title: 'Slots of a count wheel',
    about: 'Its divisions, and where the blows of each hour, and of each half, end.',
    input: only({
      halves: string<'none' | 'one'>()
        .oneOf(['none', 'one'] as const)
        .required()
        .label('At the half hour'),
    }),
    fields: { halves: { unit: '', example: 'none' } },
    output: {
      divisions: 'blows a turn',
      slots: 'after (hour; 1.5 is half past one), atDeg (° round from the end of twelve’s)',
    },
    run: (i) => ({ ...countWheel(i.halves) }),
  }),
  calculation({
    name: 'strike.trips',
    title: 'A count wheel out of step',
    about: 'How often it is tripped by hand until it has the right hour next, and the blows on the way.',
    input: only({
      willStrike: figure('Will strike next').required(),
      shouldStrike: figure('Should strike next').required(),
      halves: string<'none' | 'one'>()
        .oneOf(['none', 'one'] as const)
        .required()
        .label('At the half hour'),
    }),
    fields: {
      willStrike: { unit: 'hour', example: 3 },
      shouldStrike: { unit: 'hour', example: 7 },
      halves: { unit: '', example: 'one' },
    },
    output: { trips: '', blows: '' },
    run: (i) => ({ ...strikeTrips(i.willStrike, i.shouldStrike, i.halves) }),
  }),
]
