import {
  bathCheck,
  DEFAULT_BATHS,
  DEFAULT_TROUBLE_TABLE,
  driveMargin,
  estimateTotal,
  feltEnergy,
  missingCounts,
  motionWork,
  reasonTrouble,
  springEnergy,
  trainDirections,
  trainDuration,
  TURNS,
} from '@treadle/core'
import { mixed } from 'yup'
import { array, boolean, number, only, string } from '../fields.ts'
import { calculation, type Calculation } from './calculation.ts'

const figure = (label: string) => number().label(label)
const countOrLost = () => number().nullable().defined()

const yesNoChecks = DEFAULT_TROUBLE_TABLE.checks.filter((c) => c.yearsUpTo === null)
const observations = only({
  ...Object.fromEntries(yesNoChecks.map((c) => [c.key, string().oneOf(['yes', 'no', 'unknown'] as const)])),
  yearsSinceOil: number().nullable(),
})

/** The calculations of a clock's arrival and of taking it apart. */
export const ARRIVE_AND_STRIP: Calculation[] = [
  calculation({
    name: 'spring.energy',
    title: 'What a mainspring holds',
    about: 'Turns, torque and energy of a mainspring in its barrel: the pure bending of a strip from slack.',
    input: only({
      widthMm: figure('Width').required(),
      thicknessMm: figure('Thickness').required(),
      lengthMm: figure('Length').required(),
      barrelInsideMm: figure('Barrel, inside diameter').required(),
      arborMm: figure('Arbor, diameter').required(),
      turns: figure('Turns wound'),
      elasticGpa: figure('Elasticity'),
    }),
    fields: {
      widthMm: { unit: 'mm', example: 19 },
      thicknessMm: { unit: 'mm', example: 0.4 },
      lengthMm: { unit: 'mm', example: 1500 },
      barrelInsideMm: { unit: 'mm', example: 44 },
      arborMm: { unit: 'mm', example: 14 },
      turns: { unit: 'turns', note: 'all of them when not given' },
      elasticGpa: { unit: 'GPa', note: '205 when not given: spring steel' },
    },
    output: {
      turnsAvailable: 'turns',
      bestLengthMm: 'mm',
      turnsAtBest: 'turns',
      torqueNmm: 'N·mm',
      energyJ: 'J',
      dropOf1kgMm: 'mm',
      felt: '',
    },
    run: ({ turns, elasticGpa, ...spring }) => {
      const energy = springEnergy(spring, turns, elasticGpa)
      return { ...energy, felt: feltEnergy(energy.energyJ) }
    },
  }),
  calculation({
    name: 'train.missing',
    title: 'A lost wheel or pinion',
    about: 'All counts that give the beat asked for, nearest first, then the plainest.',
    input: only({
      wheels: array(countOrLost()).required().label('Wheels'),
      pinions: array(countOrLost()).required().label('Pinions'),
      escapeTeeth: countOrLost().label('Escape wheel'),
      beatsPerHour: figure('Beats an hour').required(),
      tolerancePercent: figure('Within'),
    }),
    fields: {
      wheels: { unit: 'teeth', example: [64, null], note: 'from the wheel that turns once an hour; null: lost' },
      pinions: { unit: 'leaves', example: [8, 8], note: 'null: lost' },
      escapeTeeth: { unit: 'teeth', example: 30, note: 'null: lost' },
      beatsPerHour: { unit: '', example: 3600 },
      tolerancePercent: { unit: '%', note: '0.5 when not given' },
    },
    output: { candidates: 'counts, beats an hour, % off' },
    run: (i) => ({
      candidates: missingCounts(i.wheels, i.pinions, i.escapeTeeth, i.beatsPerHour, i.tolerancePercent),
    }),
  }),
  calculation({
    name: 'train.duration',
    title: 'How long it runs',
    about: 'Days on one winding, from the great wheel to the arbor that turns once an hour.',
    input: only({
      greatWheelTeeth: figure('Great wheel').required(),
      centrePinionLeaves: figure('Centre pinion').required(),
      turns: figure('Turns of the great wheel').required(),
      between: array(only({ pinion: number().required(), wheel: number().required() })).label('Arbors between'),
    }),
    fields: {
      greatWheelTeeth: { unit: 'teeth', example: 96 },
      centrePinionLeaves: { unit: 'leaves', example: 8 },
      turns: { unit: 'turns', example: 16 },
      between: { unit: 'pinion, wheel', note: 'from the great wheel up; none when not given' },
    },
    output: { days: 'days', hoursPerTurn: 'h' },
    run: (i) => ({ ...trainDuration(i.greatWheelTeeth, i.centrePinionLeaves, i.turns, i.between) }),
  }),
  calculation({
    name: 'train.motion',
    title: 'Motion work',
    about: 'Turns of the minute hand for one of the hour hand; right at 12:1.',
    input: only({
      cannonPinion: figure('Cannon pinion').required(),
      minuteWheel: figure('Minute wheel').required(),
      minutePinion: figure('Minute pinion').required(),
      hourWheel: figure('Hour wheel').required(),
    }),
    fields: {
      cannonPinion: { unit: 'leaves', example: 12 },
      minuteWheel: { unit: 'teeth', example: 36 },
      minutePinion: { unit: 'leaves', example: 10 },
      hourWheel: { unit: 'teeth', example: 40 },
    },
    output: { ratio: ': 1', right: 'true at 12:1' },
    run: (i) => ({ ...motionWork(i.cannonPinion, i.minuteWheel, i.minutePinion, i.hourWheel) }),
  }),
  calculation({
    name: 'train.directions',
    title: 'Which way each arbor turns',
    about: 'As seen from the front; each mesh turns the next about.',
    input: only({
      meshes: figure('Meshes').required(),
      first: string().oneOf(TURNS).required().label('The first turns'),
    }),
    fields: { meshes: { unit: '', example: 3 }, first: { unit: '', example: 'anticlockwise' } },
    output: { turns: 'one an arbor' },
    run: (i) => ({ turns: trainDirections(i.meshes, i.first) }),
  }),
  calculation({
    name: 'drive.margin',
    title: 'Drive margin',
    about: 'What is to spare of the fitted weight, over the least that keeps it going.',
    input: only({ fittedKg: figure('Fitted').required(), leastKg: figure('Least that goes').required() }),
    fields: { fittedKg: { unit: 'kg', example: 4 }, leastKg: { unit: 'kg', example: 2.6 } },
    output: { marginPercent: '% of the fitted', verdict: 'good, watch or poor' },
    run: (i) => ({ ...driveMargin(i.fittedKg, i.leastKg) }),
  }),
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
  calculation({
    name: 'bath.check',
    title: 'What stays out of a bath',
    about: 'Which parts must stay dry, each with why, and how long the rest may stay.',
    input: only({
      bath: string()
        .oneOf(DEFAULT_BATHS.map((b) => b.key))
        .required()
        .label('Bath'),
      parts: array(only({ name: string().required(), material: string().required(), finish: string().nullable() }))
        .required()
        .label('Parts'),
    }),
    fields: {
      bath: { unit: '', example: 'ammoniated' },
      parts: {
        unit: 'name, material, finish',
        example: [
          { name: 'plates', material: 'brass' },
          { name: 'dial', material: 'brass', finish: 'silvered' },
          { name: 'mainspring', material: 'mainspring' },
        ],
      },
    },
    output: { keepOut: 'name, why', minutes: 'min' },
    run: (i) => ({
      ...bathCheck(
        i.bath,
        i.parts.map((p) => ({ ...p, finish: p.finish ?? undefined })),
      ),
    }),
  }),
  calculation({
    name: 'estimate.total',
    title: 'Total of an estimate',
    about: 'Net, tax and gross in exact decimals; net and tax each rounded once, half up.',
    input: only({
      lines: array(
        only({
          quantity: mixed<number | string>((v): v is number | string =>
            ['number', 'string'].includes(typeof v),
          ).required(),
          unitPrice: string().required(),
          taxed: boolean(),
        }),
      )
        .required()
        .label('Lines'),
      taxPercent: string().required().label('Tax'),
    }),
    fields: {
      lines: {
        unit: 'quantity, price, taxed',
        example: [
          { quantity: 4, unitPrice: '18.00' },
          { quantity: 1, unitPrice: '95.00' },
        ],
        note: 'taxed unless said otherwise',
      },
      taxPercent: { unit: '%', example: '21' },
    },
    output: { net: '', tax: '', gross: '' },
    run: (i) => ({ ...estimateTotal(i.lines, i.taxPercent) }),
  }),
]
