import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { hearWav, WavError } from '@treadle/core'

const LIMITS = { bph: [600, 40_000], teeth: [3, 200], ppm: [-10_000, 10_000] } as const

/** `listen FILE.wav [--bph N] [--teeth N] [--ppm X]` prints what the recording says of the clock as one JSON object. */
export function main(args: string[]): number {
  const started = performance.now()
  let parsed
  try {
    parsed = parseArgs({
      args,
      allowPositionals: true,
      options: { bph: { type: 'string' }, teeth: { type: 'string' }, ppm: { type: 'string' } },
    })
  } catch (error) {
    return refuse((error as Error).message)
  }
  const [file, ...rest] = parsed.positionals
  if (file === undefined || rest.length > 0)
    return refuse('FILE is missing or there is more than one: give one WAV file')
  const numbers: Partial<Record<keyof typeof LIMITS, number>> = {}
  for (const name of ['bph', 'teeth', 'ppm'] as const) {
    const given = parsed.values[name]
    if (given === undefined) continue
    const [low, high] = LIMITS[name]
    const value = Number(given)
    if (given.trim() === '' || !(value >= low && value <= high) || (name === 'teeth' && !Number.isInteger(value)))
      return refuse(
        `--${name} is ${given}: it must be a ${name === 'teeth' ? 'whole number' : 'number'} from ${low} to ${high}`,
      )
    numbers[name] = value
  }
  try {
    const { result, remark } = hearWav(readFileSync(file), {
      beatsPerHour: numbers.bph,
      teeth: numbers.teeth,
      ppm: numbers.ppm,
    })
    if (!result.heard) return refuse(`${file}: ${result.sentence}${remark ? ` ${remark}` : ''}`)
    const { heard: _, beats: _beats, ...figures } = result
    const analysisSeconds = Math.round(performance.now() - started) / 1000
    process.stdout.write(`${JSON.stringify({ ...figures, ...(remark && { remark }), analysisSeconds })}\n`)
    if (remark) process.stderr.write(`listen: ${remark}\n`)
    return 0
  } catch (error) {
    if (error instanceof WavError) return refuse(`${file}: ${error.message}`)
    const code = (error as NodeJS.ErrnoException).code
    if (code === 'ENOENT') return refuse(`${file}: there is no such file`)
    if (code === 'EISDIR' || code === 'EACCES') return refuse(`${file}: it can't be read (${code})`)
    throw error
  }
}

function refuse(sentence: string): number {
  process.stderr.write(`listen: ${sentence.replaceAll('\n', ' ')}\n`)
  return 2
}
