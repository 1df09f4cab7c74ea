import { planOfHole, type HoleRules, type JobPage, type Settings } from '@treadle/contract'
import { arborsOfPeriod, driveMargin, gradeBeat, trainSheet, type FoundElsewhere } from '@treadle/core'

/** What the other surfaces of a job have found, for the trouble finder. `lastHere` is when it was last handed over. */
export function foundElsewhere(
  data: JobPage,
  settings: Settings,
  rules: HoleRules,
  lastHere: string | null,
  now: Date,
): FoundElsewhere {
  const { job, listenings, observations, holes, trainSheets } = data
  const heard = listenings.at(-1)
  const drive = observations.find((o) => o.key === 'drive')
  const plans = holes.map((h) => planOfHole(h, rules)).filter((p) => p !== null)
  return {
    movedLately: job.movedLately,
    yearsSinceOil: yearsSince(lastHere, job.lastServiced, now),
    beat: heard
      ? gradeBeat(
          (100 * Math.max(heard.firstToSecondMs, heard.secondToFirstMs)) /
            (heard.firstToSecondMs + heard.secondToFirstMs),
          Math.abs(heard.firstToSecondMs - heard.secondToFirstMs) / 2,
          settings.beat,
        )
      : null,
    driveMarginPercent: drive?.figure && drive.second ? driveMargin(drive.figure, drive.second).marginPercent : null,
    holesToBush: plans.filter((p) => p.verdict === 'bush').length,
    holesMeasured: plans.length,
    periodicWheel: periodicWheel(trainSheets),
  }
}

function yearsSince(lastHere: string | null, lastServiced: number | null, now: Date): number | null {
  if (lastHere !== null) return Math.max(0, (now.getTime() - Date.parse(lastHere)) / (365.25 * 86_400_000))
  return lastServiced === null ? null : Math.max(0, now.getFullYear() - lastServiced)
}

function periodicWheel(sheets: JobPage['trainSheets']): string | null {
  for (const sheet of sheets) {
    if (sheet.faultPeriodS === null) continue
    const named = arborsOfPeriod(trainSheet(sheet.arbors, sheet.hourly, sheet.escape), sheet.faultPeriodS)[0]
    if (named) return named.name
  }
  return null
}
