import { secondsOf, type Moment } from '../care/moment.ts'

/** How a train that was run dry was judged; empty: not yet. */
export const DRY_VERDICTS = ['', 'free', 'tight'] as const
export type DryVerdict = (typeof DRY_VERDICTS)[number]

export interface DryRun {
  train: string
  verdict: DryVerdict
  ranAt: Moment
}

export interface DryStanding {
  /** trains that nobody has run dry and judged */
  open: string[]
  tight: string[]
  /** when the last of all of them was judged free, Unix s; null while one is not */
  freeAtS: number | null
}

/** How the trains stand that have to run dry before anything is oiled. */
export function dryStanding(trains: string[], runs: DryRun[]): DryStanding {
  const of = (train: string) => runs.find((r) => r.train === train)
  const tight = trains.filter((t) => of(t)?.verdict === 'tight')
  const open = trains.filter((t) => (of(t)?.verdict ?? '') === '')
  const free = tight.length === 0 && open.length === 0 && trains.length > 0
  return {
    open,
    tight,
    freeAtS: free ? Math.max(...trains.map((t) => secondsOf(of(t)?.ranAt ?? new Date(0)))) : null,
  }
}

/** By which keys the drive test is kept: as the clock came, and once it is together again. */
export const DRIVE_KEY = 'drive'
export const DRIVE_AGAIN = 'drive-again'

export interface DriveCompared {
  /** what it needs now against what it needed, %; below 0: less */
  changePercent: number
  /** least that kept it going, as it came and now, in their unit */
  before: number
  now: number
  unit: string
}

/** The drive test of arrival laid beside its repeat; null where one of them is not there, or they are of two kinds. */
export function driveCompared(
  before: { answer: string; second: number | null } | undefined,
  now: { answer: string; second: number | null } | undefined,
): DriveCompared | null {
  if (!before?.second || !now?.second || before.answer !== now.answer) return null
  return {
    changePercent: 100 * (now.second / before.second - 1),
    before: before.second,
    now: now.second,
    unit: now.answer === 'turns' ? 'turns' : 'kg',
  }
}
