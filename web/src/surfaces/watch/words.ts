import type { WatchPage, WatchRow } from '@treadle/contract'
import { SECONDS_PER_PPM, type WatchTells } from '@treadle/core'
import { toTheSecond } from '../../parts/say.ts'

/** How a watch stands, in large words. */
export function headline(watch: WatchRow | null, page: WatchPage | undefined, nowMs: number): string {
  if (!watch) return 'No watch has been kept'
  const stop = stopOf(page)
  if (stop !== null) return `It stopped ${shown(watch, stop)}`
  const untilMs = watch.endedAt === null ? nowMs : Date.parse(watch.endedAt)
  const long = duration((untilMs - Date.parse(watch.beganAt)) / 1000)
  return watch.endedAt === null ? `Watching, ${long}` : `Watched for ${long}`
}

/** When it stopped for good, s from the beginning; null: it goes, or nobody knows. */
export function stopOf(page: WatchPage | undefined): number | null {
  return page?.marks.find((m) => m.kind === 'silent' && m.toS === null)?.fromS ?? null
}

/** A moment of a watch as the clock on the wall showed it. */
export function shown(watch: Pick<WatchRow, 'beganAt'>, s: number): string {
  return toTheSecond(Date.parse(watch.beganAt) + 1000 * s)
}

export function duration(s: number): string {
  if (s < 90) return `${Math.round(s)} s`
  const minutes = Math.round(s / 60)
  if (minutes < 120) return `${minutes} min`
  const hours = Math.floor(minutes / 60)
  return hours < 48
    ? `${hours} h${minutes % 60 === 0 ? '' : ` ${minutes % 60} min`}`
    : `${Math.floor(hours / 24)} days ${hours % 24} h`
}

/** What a watch tells, each in a sentence: what it is and what to do about it. */
export function tellsInWords(
  { rate, sinceWinding, perDegree, settled, wheels }: WatchTells,
  names: string[],
  wound: boolean,
  bySpring: boolean,
  ppmError: number | null,
): { state: 'sound' | 'watch' | 'must' | 'none'; text: string }[] {
  const falls = wound && bySpring
  const gains = (s: number) => (s >= 0 ? 'gains' : 'loses')
  return [
    ...(rate
      ? [
          {
            state: 'none' as const,
            text: `Over ${duration(rate.toS - rate.fromS)} without a break it ${gains(rate.secondsPerDay)} ${Math.abs(rate.secondsPerDay).toFixed(1)} ± ${Math.hypot(rate.standardError, SECONDS_PER_PPM * (ppmError ?? 0)).toFixed(1)} s a day${ppmError === null ? ', and what the sound card’s own clock is off: it has not been compared' : ''}.`,
          },
        ]
      : []),
    ...(settled
      ? [
          {
            state: 'watch' as const,
            text: `Its first half hour ${settled.secondsPerDay > 0 ? 'gained' : 'lost'} ${Math.abs(settled.secondsPerDay).toFixed(1)} s a day against the hours after: it was settling. Judge it by what came later.`,
          },
        ]
      : []),
    ...(sinceWinding
      ? [
          {
            state: 'watch' as const,
            text: `${falls ? 'As its power falls' : wound ? 'As the hours since its winding go' : 'As the hours go'} it ${sinceWinding.perHour > 0 ? 'gains' : 'loses'} ${Math.abs(sinceWinding.perHour).toFixed(2)} ± ${sinceWinding.standardError.toFixed(2)} s a day more every hour, over ${sinceWinding.hours.toFixed(0)} h${falls ? ': not isochronous. A long spring, an even pull or a steadier arc would help; so does winding it oftener' : wound ? ': a weight pulls evenly, so look for a line that piles up, a weight that rubs, or warmth' : ' (no winding is written down in this time)'}.`,
          },
        ]
      : []),
    ...(perDegree
      ? [
          {
            state: 'watch' as const,
            text: `Each degree warmer it ${perDegree.perC > 0 ? 'gains' : 'loses'} ${Math.abs(perDegree.perC).toFixed(2)} ± ${perDegree.standardError.toFixed(2)} s a day more, as it changed by ${perDegree.celsius.toFixed(1)} °C.`,
          },
        ]
      : []),
    ...wheels.arbors.map((a) => ({
      state: 'must' as const,
      text: `${names[a.arbor] ?? 'An arbor'}: every ${duration(a.periodS)} it comes early and late by ${a.amplitudeMs.toFixed(1)} ms.`,
    })),
    ...wheels.meshes.map((m) => ({
      state: 'watch' as const,
      text: `The ${m.teeth} teeth on ${names[m.arbor] ?? 'an arbor'}: every ${duration(m.periodS)}, ${m.amplitudeMs.toFixed(1)} ms.`,
    })),
  ]
}
