import type { JobPage, Standing } from '@treadle/contract'

interface Row {
  id: string
}
type Lists = { [K in keyof JobPage]: JobPage[K] extends Row[] ? K : never }[keyof JobPage]
type Order = (a: never, b: never) => number

const by =
  <K extends string>(key: K): Order =>
  (a: Record<K, string | number>, b: Record<K, string | number>) =>
    a[key] < b[key] ? -1 : a[key] > b[key] ? 1 : 0

/** Where the page shows each kind of row, and in which order; not those that change other rows too. */
const SHOWN: Record<string, [list: Lists, order: Order]> = {
  holes: ['holes', by('id')],
  'arbor-tests': ['arborTests', by('at')],
  pivots: ['pivots', by('id')],
  wheels: ['wheels', by('id')],
  suspensions: ['suspensions', by('at')],
  depths: ['depths', by('at')],
  'made-parts': ['madeParts', by('at')],
  'dry-runs': ['dryRuns', by('ranAt')],
  'oil-sheets': ['oilSheets', by('at')],
  witnesses: ['witnesses', by('at')],
  'strike-counts': ['strikeCounts', by('heardAt')],
  watches: ['watches', by('beganAt')],
  footings: ['footings', by('at')],
  pendulums: ['pendulums', by('at')],
  'run-downs': ['runDowns', by('ranAt')],
  observations: ['observations', by('at')],
  conditions: ['conditions', by('at')],
  causes: ['confirmedCauses', by('at')],
  'strip-marks': ['stripMarks', by('at')],
  'strip-steps': ['stripSteps', by('position')],
  'clean-parts': ['cleanParts', by('at')],
  timers: ['timers', by('endsAt')],
  estimates: ['estimates', by('revision')],
  invoices: ['invoices', by('at')],
  readings: ['readings', by('at')],
  events: ['events', by('at')],
}

/**
 * A job's page with the row that the server answered a change with, and the gates and what is owed that came with it.
 *
 * @param path - as the change was sent to: /jobs/ID/KIND/ROW, or /jobs/ID for the job itself
 * @returns null where the answer is no such row, or the page shows it in no list
 */
export function withRow(page: JobPage, path: string, answer: unknown): JobPage | null {
  const [, , , kind, id] = path.split('/')
  const { standing, ...row } = (answer ?? {}) as Row & { standing?: Standing }
  if (!standing) return null
  if (kind === undefined) return { ...page, ...standing, job: row as JobPage['job'] }
  const shown = SHOWN[kind]
  if (!shown || id === undefined) return null
  const [list, order] = shown
  const rows = [...(page[list] as Row[]).filter((r) => r.id !== row.id), row].sort(order as (a: Row, b: Row) => number)
  return { ...page, ...standing, [list]: rows }
}

interface Said {
  method: string
  path: string
  body?: unknown
}

/**
 * Rows of a kind with changes laid over them that are on their way, in the order of the page.
 *
 * @returns the rows themselves where nothing is on its way, or all that is has come in already
 */
export function laidOver<R extends Row & { version: number }>(kind: string, kept: R[], said: Said[]): R[] {
  const order = SHOWN[kind]?.[1]
  const rows = new Map(kept.map((row) => [row.id, row]))
  let changed = false
  for (const { method, path, body } of said) {
    const id = path.split('/')[4] ?? ''
    const there = rows.get(id)
    if (method === 'DELETE') changed = rows.delete(id) || changed
    // It was written at the version that it was changed from: what is newer has the change, or another's.
    else if (method === 'PUT' && (there?.version ?? 0) <= (body as R).version) {
      rows.set(id, { ...there, ...(body as R) })
      changed = true
    }
  }
  return changed ? [...rows.values()].sort(order as (a: R, b: R) => number) : kept
}

/** Lists of rows that change others too when they are written: the page is fetched after. */
const ALSO_SHOWN: Record<string, Lists> = {
  bushings: 'bushings',
  reservations: 'reservations',
  trains: 'trainSheets',
  springs: 'springs',
  escapements: 'escapements',
}

/** The row of a kind that a job's page shows; none where it shows none of that id. */
export function rowShown(page: JobPage, kind: string, id: string): object | undefined {
  const list = SHOWN[kind]?.[0] ?? ALSO_SHOWN[kind]
  return list && (page[list] as Row[]).find((row) => row.id === id)
}
