import {
  addedMassSecondsPerDay,
  compoundPendulum,
  gravityAt,
  gravityChangeSecondsPerDay,
  HOLDS_AT,
  mercuryColumn,
  PART_SHAPES,
  pendulumDecay,
  temperatureSecondsPerDay,
  type HoldsAt,
  type PartShape,
} from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, boolean, figure, number, only, string } from './fields.ts'

const partsOf = () =>
  array(
    only({
      shape: string<PartShape>().oneOf(PART_SHAPES).required(),
      massG: number().required(),
      centreMm: number().required(),
      lengthMm: number(),
      radiusMm: number(),
      moves: boolean(),
      alphaPerMillion: number(),
      holdsAt: string<HoldsAt>().oneOf(HOLDS_AT),
    }),
  )
    .max(200)
    .required()
    .label('Parts')

const PARTS = {
  unit: 'g, mm below the suspension',
  note: 'a rod is thin, a disc is seen face on; expansion in millionths a degree, as the rod’s when not given',
  example: [
    { shape: 'rod', massG: 180, centreMm: 510, lengthMm: 1020 },
    { shape: 'disc', massG: 4200, centreMm: 985, radiusMm: 85, moves: true, holdsAt: 'bottom', alphaPerMillion: 19 },
  ],
}
const ROD = { unit: 'millionths a degree', example: 11.5, note: 'steel 11.5, brass 19, pine 4.5' }
const place = (label: string) => only({ latitudeDeg: number().required(), altitudeM: number() }).label(label)

/** Calculations of the whole pendulum and its run-down. */
export const COMPOUND: Calculation[] = [
  calculation({
    name: 'pendulum.compound',
    title: 'A pendulum of real parts',
    about: 'Centre of gravity and of oscillation, beats, and what raising the bob or turning its nut really does.',
    input: only({ parts: partsOf(), gravity: figure('Gravity'), pitchMm: figure('Pitch of the nut') }),
    fields: {
      parts: PARTS,
      gravity: { unit: 'm/s²', note: '9.80665 when not given' },
      pitchMm: { unit: 'mm', example: 0.8 },
    },
    output: {
      massG: 'g',
      cgMm: 'mm',
      lengthMm: 'mm, to the centre of oscillation',
      beatsPerHour: 'of a very small swing',
      secondsPerDayPerMm: 's/day for a mm that all moving parts are raised, + gains',
      secondsPerDayPerTurn: 's/day a turn',
    },
    run: ({ parts, gravity, pitchMm }) => ({ ...compoundPendulum(parts, gravity, pitchMm) }),
  }),
  calculation({
    name: 'pendulum.addMass',
    title: 'A small weight on the pendulum',
    about: 'What it does to the rate; above the centre of oscillation the clock gains, most at half length.',
    input: only({
      massG: figure('Weight').required(),
      atMm: figure('Laid at').required(),
      pendulumMassG: figure('Pendulum').required(),
      cgMm: figure('Centre of gravity').required(),
      lengthMm: figure('Length').required(),
    }),
    fields: {
      massG: { unit: 'g', example: 1, note: 'negative: taken off' },
      atMm: { unit: 'mm', example: 497, note: 'below the suspension' },
      pendulumMassG: { unit: 'g', example: 5000 },
      cgMm: { unit: 'mm', example: 960 },
      lengthMm: { unit: 'mm', example: 994, note: 'to the centre of oscillation' },
    },
    output: { secondsPerDay: 's/day, + gains' },
    run: (i) => ({
      secondsPerDay: addedMassSecondsPerDay(i.massG, i.atMm, i.pendulumMassG, i.cgMm, i.lengthMm),
    }),
  }),
  calculation({
    name: 'pendulum.temperature',
    title: 'Warmth and the whole pendulum',
    about: 'What a degree does to the rate, each part growing about the point at which it rests on the rod.',
    input: only({ parts: partsOf(), rodAlphaPerMillion: figure('Expansion of the rod').required() }),
    fields: { parts: PARTS, rodAlphaPerMillion: ROD },
    output: { secondsPerDayPerC: 's/day for each °C, + gains when warmer' },
    run: (i) => ({ secondsPerDayPerC: temperatureSecondsPerDay(i.parts, i.rodAlphaPerMillion) }),
  }),
  calculation({
    name: 'pendulum.mercury',
    title: 'Height of the mercury',
    about: 'The column whose centre of oscillation stays where it is, warm or cold; jar and rod without mass.',
    input: only({
      jarBottomMm: figure('Bottom of the jar').required(),
      rodAlphaPerMillion: figure('Expansion of the rod').required(),
      jarRadiusMm: figure('Radius of the jar').required(),
      jarAlphaPerMillion: figure('Expansion of the jar'),
    }),
    fields: {
      jarBottomMm: { unit: 'mm', example: 1060, note: 'inside, below the suspension' },
      rodAlphaPerMillion: ROD,
      jarRadiusMm: { unit: 'mm', example: 25, note: 'inside' },
      jarAlphaPerMillion: { unit: 'millionths a degree', note: '9 when not given: glass' },
    },
    output: { columnMm: 'mm high', massG: 'g of mercury' },
    run: (i) => ({ ...mercuryColumn(i) }),
  }),
  calculation({
    name: 'pendulum.moved',
    title: 'A clock moved to another place',
    about: 'What gravity there does to a clock that was right here.',
    input: only({ from: place('From'), to: place('To') }),
    fields: {
      from: { unit: '°, m above the sea', example: { latitudeDeg: 45, altitudeM: 0 } },
      to: { unit: '°, m above the sea', example: { latitudeDeg: 60, altitudeM: 0 } },
    },
    output: { secondsPerDay: 's/day, + gains' },
    run: ({ from, to }) => ({
      secondsPerDay: gravityChangeSecondsPerDay(
        gravityAt(from.latitudeDeg, from.altitudeM),
        gravityAt(to.latitudeDeg, to.altitudeM),
      ),
    }),
  }),
  calculation({
    name: 'pendulum.decay',
    title: 'A pendulum that runs down',
    about: 'Its quality, and what each swing costs it, from the arc at a few moments with nothing driving it.',
    input: only({
      readings: array(only({ atS: number().required(), semiArcDeg: number().required() }))
        .max(1000)
        .required()
        .label('Arcs'),
      lengthMm: figure('Length').required(),
      massG: figure('Pendulum').required(),
      cgMm: figure('Centre of gravity').required(),
      semiArcDeg: figure('Asked at a semi-arc of').required(),
    }),
    fields: {
      readings: {
        unit: 's and °',
        example: [
          { atS: 0, semiArcDeg: 3 },
          { atS: 600, semiArcDeg: 2.2 },
          { atS: 1200, semiArcDeg: 1.65 },
        ],
      },
      lengthMm: { unit: 'mm', example: 994 },
      massG: { unit: 'g', example: 5000 },
      cgMm: { unit: 'mm', example: 960 },
      semiArcDeg: { unit: '°', example: 2 },
    },
    output: {
      quality: 'ω·τ/2',
      qualityStandardError: '',
      tauS: 's to 1/e, as it falls at that arc',
      lossPerPeriodMicroJ: 'µJ',
      lossPerBeatMicroJ: 'µJ',
      squareShare: 'of the loss at that arc, with the square of the speed',
      scatterDeg: '°, of the readings about the curve',
    },
    run: (i) => {
      const { arcAt: _, ...told } = pendulumDecay(i.readings, i.lengthMm, i.massG, i.cgMm, i.semiArcDeg)
      return told
    },
  }),
]
