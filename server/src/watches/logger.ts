import { mean } from 'simple-statistics'
import { MOST_TEMPERATURES, type WatchTemperatures } from '@treadle/contract'
import { readFigure } from '@treadle/core'
import { momentOf } from '../http/sheetMoment.ts'
import { sheetRecords } from '../http/sheetRecords.ts'

const MOST_ROWS = 60_000
const COLDEST = -40
const WARMEST = 60

type Temperatures = WatchTemperatures['temperatures']

export interface LoggerRead {
  temperatures: Temperatures
  wrong: { line: number; message: string }[]
}

/**
 * The temperatures of a logger's sheet, in order of time, thinned to what is kept.
 *
 * With a heading the columns are found by their names: time or date (day and time of day may stand in two), and
 * temperature, in °F where the heading says so; without one they are when and °C. Times without a zone are the
 * workshop's. What can't be read is named by its line and left out.
 */
export function readLogger(text: string, timeZone: string): LoggerRead {
  const records = sheetRecords(text, MOST_ROWS + 1)
  if (typeof records === 'string') return { temperatures: [], wrong: [{ line: 1, message: records }] }
  const heading = records.findIndex(({ record }) =>
    record.some((cell) => /temp|°\s*[cf]\b|celsius|fahrenheit/i.test(cell)),
  )
  const names = records[heading]?.record ?? []
  const warm = heading === -1 ? 1 : names.findIndex((n) => /temp|°\s*[cf]\b|celsius|fahrenheit/i.test(n))
  const inFahrenheit = /°\s*f\b|fahrenheit|\(f\)/i.test(names[warm] ?? '')
  const days = heading === -1 ? 0 : names.findIndex((n) => /time|date|when|day/i.test(n))
  const hours = heading === -1 ? -1 : names.findIndex((n, i) => i !== days && /time|hour/i.test(n))
  const read: Temperatures = []
  const wrong: LoggerRead['wrong'] = []
  for (const { record, info } of records.slice(heading + 1)) {
    const when = [record[days], hours === -1 ? '' : record[hours]].filter(Boolean).join(' ')
    const at = momentOf(when.replaceAll('/', '-'), timeZone)
    if (typeof at === 'string') {
      wrong.push({ line: info.lines, message: at })
      continue
    }
    const figure = readFigure((record[warm] ?? '').replace(/\s*°?\s*[cf]$/i, ''), '')
    const value = figure.read ? figure.value : null
    const celsius = value === null ? null : inFahrenheit ? ((value - 32) * 5) / 9 : value
    if (celsius === null || celsius < COLDEST || celsius > WARMEST) {
      wrong.push({
        line: info.lines,
        message: `Temperature: “${(record[warm] ?? '').slice(0, 20)}” must be from −40 to 60 °C`,
      })
      continue
    }
    read.push({ at: at.toISOString(), celsius })
  }
  return { temperatures: thinned(read), wrong }
}

/** In order of time, one of each moment, and no more than are kept: means of neighbours stand for them. */
export function thinned(temperatures: Temperatures, most = MOST_TEMPERATURES): Temperatures {
  const inTime = [...new Map(temperatures.map((t) => [t.at, t])).values()].sort(
    (a, b) => Date.parse(a.at) - Date.parse(b.at),
  )
  const together = Math.ceil(inTime.length / most)
  if (together <= 1) return inTime
  return Array.from({ length: Math.ceil(inTime.length / together) }, (_, i) => {
    const part = inTime.slice(i * together, (i + 1) * together)
    const at = new Date(Math.round(mean(part.map((t) => Date.parse(t.at)))))
    return { at: at.toISOString(), celsius: mean(part.map((t) => t.celsius)) }
  })
}
