import { OIL_PARTS, oilPlan, oilSink, SINK_FILL, SINK_SHAPES, type OilPart, type SinkShape } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, figure, only, string } from './fields.ts'

/** Calculations of oiling. */
export const OIL: Calculation[] = [
  calculation({
    name: 'oil.sink',
    title: 'The drop for an oil sink',
    about: 'What a sink holds, and how much of it to fill.',
    input: only({
      acrossMm: figure('Across, at the plate').required(),
      depthMm: figure('Deep').required(),
      shape: string<SinkShape>().oneOf(SINK_SHAPES).label('Shape'),
      fill: figure('Filled'),
    }),
    fields: {
      acrossMm: { unit: 'mm', example: 2.4 },
      depthMm: { unit: 'mm', example: 0.8 },
      shape: { unit: '', example: 'cup', note: 'cup: part of a sphere; when not given' },
      fill: { unit: 'share', note: `${SINK_FILL} when not given` },
    },
    output: { fullMicrolitres: 'µl', microlitres: 'µl to put in' },
    run: (i) => ({ ...oilSink(i.acrossMm, i.depthMm, i.shape, i.fill) }),
  }),
  calculation({
    name: 'oil.plan',
    title: 'What is oiled, and with what',
    about: 'For each point: pivot oil, heavy oil, grease or nothing, how much, and why.',
    input: only({
      points: array(only({ name: string().required(), part: string<OilPart>().oneOf(OIL_PARTS).required() }))
        .min(1)
        .max(400)
        .required()
        .label('Points'),
    }),
    fields: {
      points: {
        unit: 'name, part',
        example: [
          { name: 'Escape, front', part: 'pivot' },
          { name: 'Great wheel, front', part: 'great pivot' },
          { name: 'Third wheel', part: 'wheel teeth' },
        ],
      },
    },
    output: { points: 'name, with, howMuch, why' },
    run: (i) => ({ ...oilPlan(i.points) }),
  }),
]
