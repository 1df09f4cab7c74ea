import { StrikeEar, strikings, type HeardBlow } from '@treadle/core'
import { fileRefusal, refuse, rounded } from './refusal.ts'
import { readWavFile } from './wavFile.ts'

/** `strike FILE.wav` prints the strikings that are heard over the ticking as one JSON object. */
export function main(args: string[]): number {
  const [file, ...rest] = args
  if (file === undefined || rest.length > 0 || file.startsWith('--'))
    return refuse('strike', 'FILE is missing or there is more than one: give one WAV file')
  const blows: HeardBlow[] = []
  let ear: StrikeEar | undefined
  try {
    readWavFile(file, ({ sampleRate }) => {
      const opened = new StrikeEar(sampleRate, (blow) => blows.push(blow))
      ear = opened
      return (block) => opened.push(block)
    })
  } catch (error) {
    return refuse('strike', fileRefusal(file, error))
  }
  ear?.end()
  const groups = strikings(blows).map(({ atS, blows: count, intervalsS }) => ({
    atS: rounded(atS, 3),
    blows: count,
    intervalsS: intervalsS.map((s) => rounded(s, 3)),
  }))
  process.stdout.write(`${JSON.stringify({ groups })}\n`)
  return 0
}
