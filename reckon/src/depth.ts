import { depthTool } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { figure, only } from './fields.ts'

/** Calculations of the depth of gearing. */
export const DEPTH: Calculation[] = [
  calculation({
    name: 'depth.tool',
    title: 'Setting the depthing tool',
    about: 'How far apart a wheel and a pinion run, and what a caliper shows across the runners.',
    input: only({
      wheelTeeth: figure('Wheel').required(),
      pinionLeaves: figure('Pinion').required(),
      moduleMm: figure('Module'),
      centreDistanceMm: figure('Centre distance'),
      runnerMm: figure('Runner, across'),
    }),
    fields: {
      wheelTeeth: { unit: 'teeth', example: 64 },
      pinionLeaves: { unit: 'leaves', example: 8 },
      moduleMm: { unit: 'mm', example: 0.5, note: 'this or the centre distance' },
      centreDistanceMm: { unit: 'mm' },
      runnerMm: { unit: 'mm', note: '0 when not given' },
    },
    output: {
      moduleMm: 'mm',
      centreDistanceMm: 'mm',
      wheelPitchMm: 'mm across',
      pinionPitchMm: 'mm across',
      acrossRunnersMm: 'mm; the centre distance and one runner',
    },
    run: ({ wheelTeeth, pinionLeaves, runnerMm, ...given }) => ({
      ...depthTool(wheelTeeth, pinionLeaves, given, runnerMm ?? 0),
    }),
  }),
]
