import { parseArgs } from 'node:util'
import { rateTrend, Watch, type WatchMinute } from '@treadle/core'
import { fileRefusal, refuse, rounded } from './refusal.ts'
import { readWavFile } from './wavFile.ts'

const LIMITS = { bph: [600, 40_000], ppm: [-10_000, 10_000] } as const

/** `watch FILE.wav --bph N [--ppm X]` prints one JSON line a minute, then one with the summary. */
export function main(args: string[]): number {
  let parsed
  try {
    parsed = parseArgs({
      args,
      allowPositionals: true,
      options: { bph: { type: 'string' }, ppm: { type: 'string' } },
    })
  } catch (error) {
    return refuse('watch', (error as Error).message)
  }
  const [file, ...rest] = parsed.positionals
  if (file === undefined || rest.length > 0)
    return refuse('watch', 'FILE is missing or there is more than one: give one WAV file')
  const numbers: { bph?: number; ppm?: number } = {}
  for (const name of ['bph', 'ppm'] as const) {
    const given = parsed.values[name]
    if (given === undefined) continue
    const [low, high] = LIMITS[name]
    const value = Number(given)
    if (given.trim() === '' || !(value >= low && value <= high))
      return refuse('watch', `--${name} is ${given}: it must be a number from ${low} to ${high}`)
    numbers[name] = value
  }
  const beatsPerHour = numbers.bph
  if (beatsPerHour === undefined) return refuse('watch', '--bph is missing: give the beats an hour of the clock')
  const minutes: WatchMinute[] = []
  const strikes: { atS: number; blows: number }[] = []
  let watch: Watch | undefined
  try {
    readWavFile(file, ({ sampleRate }) => {
      const opened = new Watch(
        sampleRate,
        { beatsPerHour, ppm: numbers.ppm },
        {
          minute: (row) => {
            minutes.push(row)
            process.stdout.write(`${JSON.stringify(lineOf(row))}\n`)
          },
          strike: ({ atS, blows }) => strikes.push({ atS: rounded(atS, 3), blows }),
        },
      )
      watch = opened
      return (block) => opened.push(block)
    })
  } catch (error) {
    return refuse('watch', fileRefusal(file, error))
  }
  const end = watch?.end() ?? { stoppedAtS: null, gaps: [] }
  const summary = {
    stoppedAtS: end.stoppedAtS === null ? null : rounded(end.stoppedAtS, 3),
    rateTrendSecondsPerDayPerHour: rateTrend(minutes)?.perHour ?? null,
    strikes,
    gaps: end.gaps.map(({ fromS, toS, why }) => ({ fromS: rounded(fromS, 3), toS: rounded(toS, 3), why })),
  }
  process.stdout.write(`${JSON.stringify({ summary })}\n`)
  return 0
}

function lineOf({ seconds: _, aheadS: _ahead, loudnessDb, ...row }: WatchMinute) {
  return { ...row, loudnessDb: loudnessDb === null ? null : (loudnessDb[0] + loudnessDb[1]) / 2 }
}
