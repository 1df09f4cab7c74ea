import { circularLossSecondsPerDay, gravityAt, nutTurnFor, pendulumLengthMm, secondsPerDayPerTurn } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { figure, only } from './fields.ts'

/** Calculations of the pendulum. */
export const PENDULUM: Calculation[] = [
  calculation({
    name: 'pendulum.length',
    title: 'Length of the pendulum',
    about: 'Suspension to centre of oscillation of the simple pendulum that makes so many beats an hour.',
    input: only({ beatsPerHour: figure('Beats an hour').required(), gravity: figure('Gravity') }),
    fields: {
      beatsPerHour: { unit: '', example: 7200 },
      gravity: { unit: 'm/s²', note: '9.80665 when not given' },
    },
    output: { lengthMm: 'mm' },
    run: (i) => ({ lengthMm: pendulumLengthMm(i.beatsPerHour, i.gravity) }),
  }),
  calculation({
    name: 'pendulum.gravity',
    title: 'Gravity at a place',
    about: 'Normal gravity on the WGS 84 ellipsoid, with height.',
    input: only({ latitudeDeg: figure('Latitude').required(), altitudeM: figure('Altitude') }),
    fields: { latitudeDeg: { unit: '°', example: 57 }, altitudeM: { unit: 'm', note: '0 when not given' } },
    output: { gravity: 'm/s²' },
    run: (i) => ({ gravity: gravityAt(i.latitudeDeg, i.altitudeM) }),
  }),
  calculation({
    name: 'pendulum.circularLoss',
    title: 'Circular error',
    about: 'What a free pendulum loses at a semi-arc against a very small swing; exact.',
    input: only({ semiArcDeg: figure('Semi-arc').required() }),
    fields: { semiArcDeg: { unit: '°', example: 3 } },
    output: { secondsPerDay: 's/day lost' },
    run: (i) => ({ secondsPerDay: circularLossSecondsPerDay(i.semiArcDeg) }),
  }),
  calculation({
    name: 'pendulum.nut',
    title: 'Turn of the rating nut',
    about: 'How far to turn the nut for a rate. Lower is slower.',
    input: only({
      rateSecondsPerDay: figure('Rate, + gains').required(),
      lengthMm: figure('Length').required(),
      pitchMm: figure('Pitch').required(),
      share: figure('Share of the bob'),
    }),
    fields: {
      rateSecondsPerDay: { unit: 's/day', example: -9 },
      lengthMm: { unit: 'mm', example: 994 },
      pitchMm: { unit: 'mm', example: 0.8 },
      share: { unit: '', note: '1 when not given: a heavy bob on a light rod' },
    },
    output: { turns: 'turns', move: 'raise or lower', secondsPerDayPerTurn: 's/day a turn' },
    run: (i) => {
      const perTurn = secondsPerDayPerTurn(i.lengthMm, i.pitchMm, i.share)
      return { ...nutTurnFor(i.rateSecondsPerDay, perTurn), secondsPerDayPerTurn: perTurn }
    },
  }),
]
