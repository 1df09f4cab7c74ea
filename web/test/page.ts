import { DEFAULT_SETTINGS, EMPTY_PENDULUM, PLAIN_WORK, type JobPage } from '@treadle/contract'
import { type HoleRules } from '@treadle/core'

/** A moment so many days into the made-up job. */
export const at = (day: number) => new Date(Date.UTC(2026, 2, 1 + day)).toISOString()

const event = (day: number, kind: JobPage['events'][number]['kind'], turns: number | null = null) => ({
  id: `${kind}${day}`,
  jobId: '',
  who: '',
  version: 1,
  at: at(day),
  kind,
  turns,
  note: '',
})
const reading = (day: number, errorSeconds: number) => ({
  id: String(day),
  jobId: '',
  who: '',
  version: 1,
  at: at(day),
  errorSeconds,
  sigmaSeconds: 0.5,
  way: 'eye' as const,
})

/** The default rules of holes, with a drawer of cutters. */
export const RULES: HoleRules = { bushing: DEFAULT_SETTINGS.bushing, cuttersMm: [1.6, 1.8, 2, 2.3, 2.7, 3] }

/** A job’s page with hardly anything on it yet. */
export const PAGE: JobPage = {
  job: {
    id: '',
    number: 4,
    clockId: '',
    bay: 'return',
    complaint: '',
    runs: 'runs',
    cameWith: [],
    promisedOn: null,
    standsAt: '',
    movedLately: 'unknown',
    lastServiced: null,
    receivedAt: at(0),
    partedAt: at(1),
    closedAt: null,
    ending: '',
    scope: 'whole',
    scopeTrain: '',
    scopeReason: '',
    waitsFor: '',
    waitsNote: '',
    waitsUntil: null,
    version: 1,
  },
  clock: {
    id: '',
    ownerId: '',
    name: 'Tall clock',
    kind: 'longcase',
    marks: '',
    version: 1,
    trains: [
      { train: 'going', power: 'weight' },
      { train: 'strike', power: 'weight' },
    ],
    pendulum: { ...EMPTY_PENDULUM, lengthMm: 994, pitchMm: 0.8, windsEveryDays: 8 },
    work: PLAIN_WORK,
  },
  owner: { id: '', name: '', phone: '', address: '' },
  powerOffs: [],
  holes: [],
  plateMap: null,
  arborTests: [],
  pivots: [],
  bushings: [],
  wheels: [],
  springs: [],
  suspensions: [],
  escapements: [],
  depths: [],
  madeParts: [],
  reservations: [],
  bushedBefore: [],
  listenings: [],
  photos: [],
  gates: [],
  owed: [],
  readings: [reading(0, 0), reading(2, -40), reading(4, -80), reading(6, -90), reading(8, -100)],
  events: [event(4.1, 'nut', 0.5), event(-0.5, 'oiled')],
  overrides: [],
  observations: [],
  conditions: [],
  confirmedCauses: [],
  trainSheets: [],
  estimates: [],
  stripMarks: [],
  stripSteps: [],
  cleanParts: [],
  timers: [],
}
