import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const NAME = /^treadle-(\d{4})-(\d\d)-(\d\d)\.jsonl\.gz$/
const DAY_MS = 86_400_000

/** The name of a day's backup. */
export function nameOf(at) {
  const two = (n) => String(n).padStart(2, '0')
  return `treadle-${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}.jsonl.gz`
}

/** Whether a backup of this day is still to be made. */
export function isDue(folder, now) {
  return !existsSync(join(folder, nameOf(now)))
}

/**
 * Of the daily backups, those that may go: kept are the newest `days`, and of the weeks before, the newest of each of
 * `weeks`. Other files in the folder are nobody's business.
 */
export function mayGo(names, days, weeks) {
  const daily = names
    .flatMap((name) => {
      const [, year, month, day] = NAME.exec(name) ?? []
      return year === undefined ? [] : [{ name, day: Date.UTC(year, month - 1, day) / DAY_MS }]
    })
    .sort((a, b) => b.day - a.day)
  const kept = new Set(daily.slice(0, days).map((d) => d.name))
  // Weeks begin on Monday; day 0, 1 January 1970, was a Thursday.
  const week = (d) => Math.floor((d.day + 3) / 7)
  const newestOfWeeks = daily.filter((d, i) => i === 0 || week(d) !== week(daily[i - 1]))
  for (const { name } of newestOfWeeks.slice(0, weeks)) kept.add(name)
  return daily.filter((d) => !kept.has(d.name)).map((d) => d.name)
}

/** Makes the day's backup and lets old ones go; tells beside them how it ended. `write` puts one at a path. */
export async function makeDaily(folder, now, { days, weeks }, write) {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const file = join(folder, nameOf(now))
  try {
    await write(file)
    for (const name of mayGo(readdirSync(folder), days, weeks)) rmSync(join(folder, name))
    tell(folder, { failed: null })
    return { file, bytes: statSync(file).size }
  } catch (error) {
    tell(folder, { failed: { at: now.toISOString(), why: error.message } })
    throw error
  }
}

/** What the pages show of it. */
function tell(folder, last) {
  const file = join(folder, 'last.json')
  writeFileSync(`${file}.part`, JSON.stringify(last), { mode: 0o600 })
  renameSync(`${file}.part`, file)
}
