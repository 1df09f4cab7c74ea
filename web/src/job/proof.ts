import type { JobPage, OilRow, Settings } from '@treadle/contract'
import {
  DRIVE_AGAIN,
  DRIVE_KEY,
  driveCompared,
  outOfBeatMs,
  rateBookOf,
  rateInWords,
  secondsOf,
  splitTold,
  strikesRight,
  strikeWanted,
  trialDaysFor,
  trialOf,
  type JobTrial,
} from '@treadle/core'
import { oilDueOf } from './oilDueOf.ts'
import { dayLike } from '../parts/say.ts'

/** How the trial of a job stands now; null: not begun. */
export function trialNow(data: JobPage, settings: Settings, nowS: number): JobTrial | null {
  return trialOf({
    events: data.events,
    strikeCounts: data.strikeCounts,
    strike: data.clock.work.strike ?? null,
    moon: data.clock.work.moon,
    days: trialDaysFor(data.clock, settings),
    nowS,
  })
}

export interface ProofLine {
  title: string
  words: string
}

/** What a trial has proved, figure by figure, for the owner; only what was measured. */
export function proofOf(data: JobPage, settings: Settings, oils: OilRow[], trial: JobTrial): ProofLine[] {
  const { clock, events, listenings, observations, readings, strikeCounts, witnesses } = data
  const long = (s: number) => dayLike(s * 1000, '27 November 2026')
  const since = events.filter((e) => secondsOf(e.at) >= trial.countsFromS)
  const wound = since.filter((e) => e.kind === 'winding').length
  const endS = Math.max(trial.endsAtS, trial.countsFromS)
  const heard = listenings.findLast((l) => ['beat', 'trial'].includes(l.purpose) && splitTold(l))
  const book = rateBookOf(data, { pendulum: clock.pendulum, settings })
  const of = (key: string) => observations.find((o) => o.key === key)
  const drive = driveCompared(of(DRIVE_KEY), of(DRIVE_AGAIN))
  const arc = of('arc')
  const strike = clock.work.strike
  const oil = oils.find((o) => o.id === data.oilSheets[0]?.pivotOilId)
  const due = oilDueOf(data, oils, settings)
  const month = (iso: string) => dayLike(iso, 'November 2026')
  const lines: (ProofLine | false)[] = [
    {
      title: 'Ran',
      words: `${trial.days} days without a stop or a change, from ${long(trial.countsFromS)} to ${long(endS)}; wound ${wound === 1 ? 'once' : `${wound} times`} since it counts.`,
    },
    heard !== undefined && {
      title: 'Beat',
      words: `${outOfBeatMs(heard).toFixed(1)} ± ${heard.outOfBeatStandardError.toFixed(1)} ms out when it was last heard, ${dayLike(heard.at, '27 November')}. It is set once more in its place.`,
    },
    book?.rateSecondsPerDay != null &&
      book.standardError !== null && {
        title: 'Rate',
        words: `It ${rateInWords(book.rateSecondsPerDay, book.standardError)}, from ${readings.length} readings.`,
      },
    arc?.figure != null && { title: 'Arc', words: `${arc.figure}° either side, as it came.` },
    drive !== null && {
      title: 'Drive',
      words: `It needed ${drive.before} ${drive.unit} to keep going as it came, and needs ${drive.now} ${drive.unit} now.`,
    },
    strike !== undefined &&
      strikeWanted(
        strike,
        strikeCounts.filter((c) => secondsOf(c.heardAt) >= trial.countsFromS),
      ).length === 0 && {
        title: 'Strike',
        words: `Counted right round the dial: all ${strikesRight(strike.kind, strike.halves).length} times right.`,
      },
    since.some((e) => e.kind === 'moon') && { title: 'Moon', words: 'Seen to move on by itself.' },
    due !== null && {
      title: 'Oil',
      words: `Oiled ${dayLike(due.oiledOn, '27 November 2026')}${oil ? ` with ${oil.name}` : ''}; to be looked at in ${month(due.checkOn)}, service in ${month(due.serviceOn)}.${witnesses.length > 0 ? ` ${witnesses.length} pictures of its sinks are kept.` : ''}`,
    },
  ]
  return lines.filter((l) => l !== false)
}
