import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import {
  FieldError,
  hearTrack,
  hearWav,
  trackFor,
  trainBeats,
  type GoingCounts,
  type ListenOptions,
  type PowerTrack,
} from '@treadle/core'
import { fileRefusal, refuse } from './refusal.ts'
import { readWavFile } from './wavFile.ts'

const LIMITS = { bph: [600, 40_000], teeth: [3, 200], ppm: [-10_000, 10_000] } as const

/** A count that is farther off than this is of another clock. */
const SAME_COUNT = 0.02

/**
 * `listen FILE.wav [--bph N] [--teeth N] [--ppm X] [--train JSON]` prints what the recording says of the clock as one
 * JSON object.
 */
export function main(args: string[]): number {
  const started = performance.now()
  let parsed
  try {
    parsed = parseArgs({
      args,
      allowPositionals: true,
      options: {
        bph: { type: 'string' },
        teeth: { type: 'string' },
        ppm: { type: 'string' },
        train: { type: 'string' },
      },
    })
  } catch (error) {
    return refuse('listen', (error as Error).message)
  }
  const [file, ...rest] = parsed.positionals
  if (file === undefined || rest.length > 0)
    return refuse('listen', 'FILE is missing or there is more than one: give one WAV file')
  const numbers: Partial<Record<keyof typeof LIMITS, number>> = {}
  for (const name of ['bph', 'teeth', 'ppm'] as const) {
    const given = parsed.values[name]
    if (given === undefined) continue
    const [low, high] = LIMITS[name]
    const value = Number(given)
    if (given.trim() === '' || !(value >= low && value <= high) || (name === 'teeth' && !Number.isInteger(value)))
      return refuse(
        'listen',
        `--${name} is ${given}: it must be a ${name === 'teeth' ? 'whole number' : 'number'} from ${low} to ${high}`,
      )
    numbers[name] = value
  }
  let train: GoingCounts | undefined
  let trainMakes: number | undefined
  if (parsed.values.train !== undefined)
    try {
      train = readTrain(parsed.values.train)
      trainMakes = trainBeats(train.wheels, train.pinions, train.escapeTeeth).beatsPerHour
    } catch (error) {
      return refuse('listen', `--train: ${(error as Error).message}`)
    }
  if (numbers.bph !== undefined && trainMakes !== undefined && Math.abs(trainMakes / numbers.bph - 1) > SAME_COUNT)
    return refuse(
      'listen',
      `--train makes ${trainMakes.toFixed(1)} beats an hour and --bph is ${numbers.bph}: they must agree to 2 %`,
    )
  try {
    const { result, remark } = hearFile(file, {
      beatsPerHour: numbers.bph ?? trainMakes,
      teeth: numbers.teeth ?? train?.escapeTeeth,
      ppm: numbers.ppm,
      train,
    })
    if (!result.heard) return refuse('listen', `${file}: ${result.sentence}${remark ? ` ${remark}` : ''}`)
    const { heard: _, beats: _beats, sides, periodic, ...heard } = result
    const figures = {
      ...heard,
      ...(periodic && { periodic: periodic.arbors, periodicMeshes: periodic.meshes }),
      knocks: sides.map((side) => side.knocks),
      loudnessDb: sides.map((side) => side.loudnessDb),
    }
    const analysisSeconds = Math.round(performance.now() - started) / 1000
    process.stdout.write(`${JSON.stringify({ ...figures, ...(remark && { remark }), analysisSeconds })}\n`)
    if (remark) process.stderr.write(`listen: ${remark}\n`)
    return 0
  } catch (error) {
    return refuse('listen', fileRefusal(file, error))
  }
}

/** Of one channel block by block: ten minutes need not be in memory at once. Which way two belong together, all of them say. */
function hearFile(file: string, options: ListenOptions) {
  let track: PowerTrack | undefined
  const header = readWavFile(file, (head) => {
    if (head.channels !== 1) return null
    const made = (track = trackFor(head))
    return (block) => made.push(block)
  })
  return track ? hearTrack(header, track, options) : hearWav(readFileSync(file), options)
}

function readTrain(json: string): GoingCounts {
  const given = JSON.parse(json) as Partial<GoingCounts> | null
  const whole = (list: unknown) => Array.isArray(list) && list.every((v) => typeof v === 'number')
  if (given === null || typeof given !== 'object') throw new FieldError('train', given, 'give one JSON object')
  if (!whole(given.wheels)) throw new FieldError('wheels', given.wheels, 'give a list of the teeth of each wheel')
  if (!whole(given.pinions)) throw new FieldError('pinions', given.pinions, 'give a list of the leaves of each pinion')
  return {
    wheels: given.wheels,
    pinions: given.pinions,
    escapeTeeth: given.escapeTeeth as number,
  }
}
