import { bobKeptG, driveMargin, drivePerBeat, feltEnergy, springEnergy } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { figure, only } from './fields.ts'

/** Calculations of springs and weights. */
export const DRIVE: Calculation[] = [
  calculation({
    name: 'spring.energy',
    title: 'What a mainspring holds',
    about: 'Turns, torque and energy of a mainspring in its barrel, the set it takes reckoned with.',
    input: only({
      widthMm: figure('Width').required(),
      thicknessMm: figure('Thickness').required(),
      lengthMm: figure('Length').required(),
      barrelInsideMm: figure('Barrel, inside diameter').required(),
      arborMm: figure('Arbor, diameter').required(),
      turns: figure('Turns wound'),
      elasticGpa: figure('Elasticity'),
      yieldMpa: figure('Elastic limit'),
    }),
    fields: {
      widthMm: { unit: 'mm', example: 19 },
      thicknessMm: { unit: 'mm', example: 0.4 },
      lengthMm: { unit: 'mm', example: 1500 },
      barrelInsideMm: { unit: 'mm', example: 44 },
      arborMm: { unit: 'mm', example: 14 },
      turns: { unit: 'turns', note: 'from run down; all of them when not given' },
      elasticGpa: { unit: 'GPa', note: '205 when not given: spring steel' },
      yieldMpa: { unit: 'MPa', note: '1800 when not given; safety reckons with 2000' },
    },
    output: {
      turnsAvailable: 'turns',
      bestLengthMm: 'mm',
      turnsAtBest: 'turns',
      torqueWoundNmm: 'N·mm fully wound',
      torqueRunDownNmm: 'N·mm run down',
      torqueNmm: 'N·mm at the turns asked for',
      energyJ: 'J given out from there to run down',
      dropOf1kgMm: 'mm',
      felt: '',
    },
    run: ({ turns, elasticGpa, yieldMpa, ...spring }) => {
      const energy = springEnergy(spring, turns, elasticGpa, yieldMpa)
      return { ...energy, felt: feltEnergy(energy.energyJ) }
    },
  }),
  calculation({
    name: 'drive.perBeat',
    title: 'What a weight gives each beat',
    about: 'The fall of a weight shared out over its beats, and how much of it reaches the pendulum.',
    input: only({
      weightKg: figure('Weight').required(),
      fallMm: figure('Fall').required(),
      hours: figure('In').required(),
      beatsPerHour: figure('Beats an hour').required(),
      lossPerBeatMicroJ: figure('A beat costs the pendulum'),
    }),
    fields: {
      weightKg: { unit: 'kg', example: 5 },
      fallMm: { unit: 'mm', example: 1200, note: 'how far the weight itself sinks' },
      hours: { unit: 'h', example: 192 },
      beatsPerHour: { unit: '', example: 3600 },
      lossPerBeatMicroJ: { unit: 'µJ', example: 25, note: 'from its run-down' },
    },
    output: { microJPerBeat: 'µJ', efficiencyPercent: '% of it reaches the pendulum' },
    run: (i) => ({ ...drivePerBeat(i.weightKg, i.fallMm, i.hours, i.beatsPerHour, i.lossPerBeatMicroJ) }),
  }),
  calculation({
    name: 'drive.bob',
    title: 'The bob that a drive keeps',
    about: 'How heavy a pendulum its drive keeps swinging, where the old one is lost.',
    input: only({
      microJPerBeat: figure('Each beat is given').required(),
      sharePercent: figure('Reaches the pendulum').required(),
      quality: figure('Quality').required(),
      lengthMm: figure('Length').required(),
      semiArcDeg: figure('Semi-arc').required(),
    }),
    fields: {
      microJPerBeat: { unit: 'µJ', example: 44, note: 'what a weight gives each beat' },
      sharePercent: { unit: '%', example: 30, note: 'a tenth to two thirds in a healthy clock' },
      quality: { unit: '', example: 5000, note: 'a few hundred of a short pendulum, thousands of a long heavy one' },
      lengthMm: { unit: 'mm', example: 994 },
      semiArcDeg: { unit: '°', example: 2 },
    },
    output: { massG: 'g' },
    run: (i) => ({
      massG: bobKeptG(i.microJPerBeat, i.sharePercent / 100, i.quality, i.lengthMm, i.semiArcDeg),
    }),
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
]
