import { blankOilSheet, EMPTY_PENDULUM, type NewJob, type Owner } from '@treadle/contract'
import { demoId, type DemoApi } from './api.ts'
import { listHole, moveTo, partPlates, putEvent, putRow } from './history.ts'
import { clock, job, owner, things } from './island.ts'

const DAY_MS = 86_400_000

interface PastVisit {
  key: string
  of: keyof typeof OF
  /** days ago */
  came: number
  left: number
  complaint: string
  oil: 'Pale pivot oil' | 'Old yellow oil'
  cause: string
  /** arbors of the back plate that were bushed, and with which kind of bush */
  bushed?: [arbor: string, index: number, source: 'stock' | 'turned'][]
}

const spring = [{ train: 'going' as const, power: 'spring' as const }]
const weight = [{ train: 'going' as const, power: 'weight' as const, weightKg: 3, fallMm: 900 }]

const plain = (
  key: string,
  name: string,
  kind: NewJob['clock']['kind'],
  trains: NewJob['clock']['trains'],
  bph: number,
) =>
  clock(key, {
    name,
    kind,
    marks: '',
    trains,
    pendulum: { ...EMPTY_PENDULUM, beatsPerHour: bph, windsEveryDays: 8 },
  })

const OF: Record<string, { clock: NewJob['clock']; owner: Owner }> = {
  infirmary: {
    clock: plain('infirmary', 'Infirmary wall clock', 'wall', spring, 9000),
    owner: owner('infirmary', 'Ternholm infirmary', 'Upper Lane 12, Ternholm'),
  },
  smithy: {
    clock: plain('smithy', 'Smithy drop dial', 'wall', spring, 7200),
    owner: owner('smithy', 'The smithy', 'Forge Yard, Ternholm'),
  },
  library: {
    clock: plain('library', 'Reading-room tall clock', 'longcase', weight, 3600),
    owner: owner('library', 'Reading room', 'Long Quay 16, Ternholm'),
  },
  ropery: {
    clock: plain('ropery', 'Ropewalk office clock', 'wall', weight, 4800),
    owner: owner('ropery', 'Ropewalk', 'The Ropewalk, Ternholm'),
  },
  mill: {
    clock: plain('mill', 'Tide-mill mantel clock', 'mantel', spring, 8400),
    owner: owner('mill', 'The miller', 'Tide mill, Ternholm'),
  },
  vestry: {
    clock: plain('vestry', 'Vestry bracket clock', 'bracket', spring, 7200),
    owner: owner('vestry', 'Chapel wardens', 'Chapel Hill, Ternholm'),
  },
}

const VISITS: PastVisit[] = [
  {
    key: 'a',
    of: 'infirmary',
    came: 1190,
    left: 1150,
    complaint: 'Stops at night.',
    oil: 'Old yellow oil',
    cause: 'oil-dry',
    bushed: [['Third arbor', 2, 'turned']],
  },
  {
    key: 'b',
    of: 'smithy',
    came: 1105,
    left: 1072,
    complaint: 'Full of soot.',
    oil: 'Old yellow oil',
    cause: 'dirt',
    bushed: [['Escape arbor', 3, 'stock']],
  },
  { key: 'c', of: 'library', came: 1880, left: 1795, complaint: 'A service.', oil: 'Pale pivot oil', cause: 'oil-dry' },
  {
    key: 'd',
    of: 'ropery',
    came: 830,
    left: 801,
    complaint: 'Loses ten minutes a day.',
    oil: 'Pale pivot oil',
    cause: 'worn-holes',
    bushed: [
      ['Great wheel', 0, 'turned'],
      ['Third arbor', 2, 'stock'],
    ],
  },
  {
    key: 'e',
    of: 'smithy',
    came: 604,
    left: 571,
    complaint: 'Stopped again, black all over.',
    oil: 'Pale pivot oil',
    cause: 'dirt',
    bushed: [['Escape arbor', 3, 'turned']],
  },
  {
    key: 'f',
    of: 'mill',
    came: 760,
    left: 733,
    complaint: 'Damp got into it.',
    oil: 'Pale pivot oil',
    cause: 'suspension',
  },
  {
    key: 'g',
    of: 'infirmary',
    came: 331,
    left: 302,
    complaint: 'It stops after a week.',
    oil: 'Pale pivot oil',
    cause: 'worn-holes',
    bushed: [['Centre', 1, 'stock']],
  },
  {
    key: 'h',
    of: 'vestry',
    came: 256,
    left: 221,
    complaint: 'Out of beat since it was dusted.',
    oil: 'Pale pivot oil',
    cause: 'beat-out',
  },
  {
    key: 'i',
    of: 'ropery',
    came: 205,
    left: 190,
    complaint: 'Stops when the wind is in the east.',
    oil: 'Pale pivot oil',
    cause: 'beat-out',
    bushed: [['Great wheel', 0, 'turned']],
  },
  { key: 'j', of: 'mill', came: 118, left: 96, complaint: 'It limps.', oil: 'Pale pivot oil', cause: 'beat-out' },
]

/** What the workshop did before: clocks at home, some due, some that came back too soon. */
export function jobsBefore(): NewJob[] {
  return VISITS.map(({ key, of, complaint }) => {
    const { clock: one, owner: whose } = OF[of]!
    return job(`before ${key}`, one, whose, complaint, things('pendulum'))
  })
}

export async function layDownYearsBefore(api: DemoApi, nowMs: number): Promise<void> {
  const ago = (days: number) => new Date(nowMs - days * DAY_MS)
  const jobs = jobsBefore()
  // In order of time: a clock has one visit at a time.
  const order = VISITS.map((visit, i) => ({ visit, taken: jobs[i]! })).sort((a, b) => b.visit.came - a.visit.came)
  for (const { visit, taken } of order) {
    const { id } = taken
    await api.at(ago(visit.came), 'Ida Vos').send('POST', '/jobs', taken)
    const power = taken.clock.trains[0]?.power === 'weight' ? 'weight-off' : 'let-down'
    await partPlates(api.at(ago(visit.came - 2)), id, [{ train: 'going', method: power }])
    for (const [arbor, arborIndex, source] of visit.bushed ?? []) {
      const hole = { train: 'going', arbor, arborIndex, plate: 'back' as const }
      await listHole(api, id, { ...hole, measured: [1.5, 1.3, 75, 1.22, 2.4] })
      await putRow(api, id, 'bushings', `bush ${id} ${arbor}`, {
        holeId: demoId(`hole ${id} going ${arbor} back`),
        method: 'hand',
        spoilt: false,
        source,
        stockId: null,
        cutterMm: 2.3,
        outsideMm: 2.32,
        insideMm: 1.2,
        lengthMm: 2.5,
        pivotMm: 1.22,
        finishedMm: 1.27,
        done: [],
        note: '',
      })
      await listHole(api, id, { ...hole, measured: [1.5, 1.3, 75, 1.22, 2.4], bushed: true, more: { version: 1 } })
    }
    await putRow(api.at(ago(visit.left + 8)), id, 'causes', `cause ${id}`, { cause: visit.cause, note: '' })
    const { id: _, version: _v, ...sheet } = blankOilSheet('')
    await putRow(api, id, 'oil-sheets', `oil ${id}`, { ...sheet, pivotOilId: demoId(`oil ${visit.oil}`) })
    for (const gate of ['dry', 'oil', 'beat', 'rate', 'trial', 'parts', 'holes', 'pivots'])
      await api.send('POST', `/jobs/${id}/overrides`, {
        id: demoId(`before ${id} ${gate}`),
        gate,
        reason: 'Written over from the paper book.',
      })
    await putEvent(api.at(ago(visit.left + 7)), id, `${id} oiled`, 'oiled', null, `With ${visit.oil}.`)
    await moveTo(api.at(ago(visit.left + 1)), id, 'return', 'runs')
    await api.at(ago(visit.left)).send('POST', `/jobs/${id}/close`, {})
  }
}
