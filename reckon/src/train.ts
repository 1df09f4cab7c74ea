import { missingCounts, motionWork, trainBeats, trainDirections, trainDuration, TURNS } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, figure, number, only, string } from './fields.ts'

const countOrLost = () => number().nullable().defined()

/** Calculations of trains and motion work. */
export const TRAIN: Calculation[] = [
  calculation({
    name: 'train.beats',
    title: 'Beats of a train',
    about: 'Beats an hour and the turning time of each arbor, from the one that turns once an hour.',
    input: only({
      wheels: array(number().required()).required().label('Wheels'),
      pinions: array(number().required()).required().label('Pinions'),
      escapeTeeth: figure('Escape wheel').required(),
    }),
    fields: {
      wheels: { unit: 'teeth', example: [64, 60], note: 'from the wheel that turns once an hour' },
      pinions: { unit: 'leaves', example: [8, 8] },
      escapeTeeth: { unit: 'teeth', example: 30 },
    },
    output: { beatsPerHour: '', periodsS: 's' },
    run: (i) => ({ ...trainBeats(i.wheels, i.pinions, i.escapeTeeth) }),
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
]
