import type { Clock } from '@treadle/contract'
import type { Bay, Owed } from '@treadle/core'
import type { ComponentType } from 'react'

export interface Surface {
  /** its place in the address, after the job's id */
  path: string
  /** the bay it is a part of; null: of the whole job */
  bay: Bay | null
  title: string
  load: () => Promise<ComponentType>
  /** the chart that it draws, a large part of its own: fetched while the page is idle, before it is wanted */
  chart?: () => Promise<unknown>
  /** shown only for clocks that have what it is about */
  of?: (clock: Clock) => boolean
  /** where a clock's work in this bay goes on when nothing is owed to it */
  home?: true
  /** what is owed to a clock and done here */
  owes?: Owed['kind'][]
}

/** Every surface of a job, in the order of the work: the routes, the job's page and what points to work read it. */
export const SURFACES: Surface[] = [
  {
    path: 'arrive',
    home: true,
    bay: 'arrive',
    title: 'Receive',
    load: async () => (await import('./arrive/ArriveSurface.tsx')).ArriveSurface,
    owes: ['send-on'],
  },
  {
    path: 'observe',
    bay: 'arrive',
    title: 'Observe',
    load: async () => (await import('./observe/ObserveSurface.tsx')).ObserveSurface,
  },
  {
    path: 'trains',
    bay: 'arrive',
    title: 'Trains',
    load: async () => (await import('./trains/TrainsSurface.tsx')).TrainsSurface,
    owes: ['counts'],
  },
  {
    path: 'trouble',
    bay: 'arrive',
    title: 'Trouble',
    load: async () => (await import('./trouble/TroubleSurface.tsx')).TroubleSurface,
  },
  {
    path: 'condition',
    bay: 'arrive',
    title: 'Condition',
    load: async () => (await import('./condition/ConditionSurface.tsx')).ConditionSurface,
  },
  {
    path: 'estimate',
    bay: 'arrive',
    title: 'Estimate',
    load: async () => (await import('./estimate/EstimateSurface.tsx')).EstimateSurface,
    owes: ['answer', 'order'],
  },
  {
    path: 'papers',
    bay: 'arrive',
    title: 'Tag and receipt',
    load: async () => (await import('./papers/PapersSurface.tsx')).PapersSurface,
  },
  {
    path: 'power',
    home: true,
    bay: 'strip',
    title: 'Power',
    load: async () => (await import('./power/PowerSurface.tsx')).PowerSurface,
    owes: ['make-safe'],
  },
  {
    path: 'strip',
    bay: 'strip',
    title: 'Take apart',
    load: async () => (await import('./strip/StripSurface.tsx')).StripSurface,
    owes: ['mark', 'take-apart'],
  },
  {
    path: 'clean',
    bay: 'strip',
    title: 'Clean',
    load: async () => (await import('./clean/CleanSurface.tsx')).CleanSurface,
    owes: ['clean', 'bath'],
  },
  {
    path: 'plates',
    bay: 'mend',
    title: 'Plates',
    load: async () => (await import('./plates/PlatesSurface.tsx')).PlatesSurface,
  },
  {
    path: 'between-plates',
    bay: 'mend',
    title: 'Between the plates',
    load: async () => (await import('./betweenPlates/BetweenPlatesSurface.tsx')).BetweenPlatesSurface,
  },
  {
    path: 'pivots',
    bay: 'mend',
    title: 'Pivots',
    load: async () => (await import('./pivots/PivotsSurface.tsx')).PivotsSurface,
    owes: ['pivots'],
  },
  {
    path: 'holes',
    home: true,
    bay: 'mend',
    title: 'Holes',
    load: async () => (await import('./holes/HolesSurface.tsx')).HolesSurface,
    owes: ['measure', 'no-cutter'],
  },
  {
    path: 'bushings',
    bay: 'mend',
    title: 'Bushings',
    load: async () => (await import('./bushings/BushingsSurface.tsx')).BushingsSurface,
    owes: ['bush'],
  },
  {
    path: 'wheels',
    bay: 'mend',
    title: 'Wheels',
    owes: ['click'],
    load: async () => (await import('./wheels/WheelsSurface.tsx')).WheelsSurface,
  },
  {
    path: 'springs',
    bay: 'mend',
    title: 'Springs',
    load: async () => (await import('./springs/SpringsSurface.tsx')).SpringsSurface,
    chart: () => import('./springs/TorqueChart.tsx'),
  },
  {
    path: 'escapement',
    bay: 'mend',
    title: 'Escapement',
    load: async () => (await import('./escapement/EscapementSurface.tsx')).EscapementSurface,
  },
  {
    path: 'depthing',
    bay: 'mend',
    title: 'Depthing',
    load: async () => (await import('./depthing/DepthingSurface.tsx')).DepthingSurface,
  },
  {
    path: 'make',
    bay: 'mend',
    title: 'Make',
    load: async () => (await import('./make/MakeSurface.tsx')).MakeSurface,
  },
  {
    path: 'assemble',
    bay: 'set',
    title: 'Assemble',
    load: async () => (await import('./assemble/AssembleSurface.tsx')).AssembleSurface,
    owes: ['assemble', 'dry'],
  },
  {
    path: 'oil',
    bay: 'set',
    title: 'Oil',
    load: async () => (await import('./oil/OilSurface.tsx')).OilSurface,
    owes: ['oil'],
  },
  {
    path: 'strike',
    bay: 'set',
    title: 'Strike',
    load: async () => (await import('./strike/StrikeSurface.tsx')).StrikeSurface,
    owes: ['strike'],
  },
  {
    path: 'listen',
    home: true,
    bay: 'set',
    title: 'Beat',
    load: async () => (await import('./listen/JobListen.tsx')).JobListen,
    owes: ['observe', 'beat'],
  },
  {
    path: 'footing',
    bay: 'set',
    title: 'Footing',
    load: async () => (await import('./footing/FootingSurface.tsx')).FootingSurface,
  },
  {
    path: 'swing',
    bay: 'set',
    title: 'Swing',
    load: async () => (await import('./swing/SwingSurface.tsx')).SwingSurface,
  },
  {
    path: 'rate',
    bay: 'set',
    title: 'Rate',
    load: async () => (await import('./rate/RateSurface.tsx')).RateSurface,
    chart: () => import('./rate/RateChart.tsx'),
    owes: ['reading', 'turn', 'wind'],
  },
  {
    path: 'pendulum',
    bay: 'set',
    title: 'Pendulum',
    load: async () => (await import('./pendulum/PendulumSurface.tsx')).PendulumSurface,
  },
  {
    path: 'watch',
    bay: 'set',
    title: 'Watch',
    load: async () => (await import('./watch/WatchSurface.tsx')).WatchSurface,
    chart: () => import('./watch/WatchChart.tsx'),
  },
  {
    path: 'trial',
    bay: 'set',
    title: 'Trial',
    load: async () => (await import('./trial/TrialSurface.tsx')).TrialSurface,
    owes: ['trial', 'stop'],
  },
  {
    path: 'journey',
    bay: 'return',
    title: 'Journey',
    load: async () => (await import('./journey/JourneySurface.tsx')).JourneySurface,
  },
  {
    path: 'set-up',
    bay: 'return',
    title: 'Set up',
    load: async () => (await import('./setUp/SetUpSurface.tsx')).SetUpSurface,
  },
  {
    path: 'hands',
    bay: 'return',
    title: 'Hands',
    load: async () => (await import('./hands/HandsSurface.tsx')).HandsSurface,
  },
  {
    path: 'moon',
    bay: 'return',
    title: 'Moon and date',
    of: ({ work }) => work.moon || work.calendar,
    load: async () => (await import('./moon/MoonSurface.tsx')).MoonSurface,
  },
  {
    path: 'mercury',
    bay: 'return',
    title: 'Mercury',
    of: ({ work }) => work.mercury,
    load: async () => (await import('./mercury/MercurySurface.tsx')).MercurySurface,
  },
  {
    path: 'card',
    home: true,
    bay: 'return',
    title: 'Card',
    load: async () => (await import('./card/CardSurface.tsx')).CardSurface,
    owes: ['card', 'promise'],
  },
  {
    path: 'invoice',
    bay: 'return',
    title: 'Invoice',
    load: async () => (await import('./invoice/InvoiceSurface.tsx')).InvoiceSurface,
  },
  {
    path: 'report',
    bay: 'return',
    title: 'Report',
    load: async () => (await import('./report/ReportSurface.tsx')).ReportSurface,
  },
  {
    path: 'visit',
    bay: null,
    title: 'This visit',
    load: async () => (await import('./visit/VisitSurface.tsx')).VisitSurface,
    owes: ['waits', 'tell-owner', 'recall'],
  },
  {
    path: 'journal',
    bay: null,
    title: 'Journal',
    load: async () => (await import('./journal/JournalSurface.tsx')).JournalSurface,
  },
]

/** Where something that is owed is done: the path of its surface. */
export function whereOwed(kind: Owed['kind']): string {
  return SURFACES.find((s) => s.owes?.includes(kind))?.path ?? 'arrive'
}

/** Where a clock's work goes on when nothing is owed to it. */
export function whereInBay(bay: Bay): string {
  return SURFACES.find((s) => s.bay === bay && s.home)?.path ?? 'arrive'
}
