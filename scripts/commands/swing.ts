import { parseArgs } from 'node:util'
import { FieldError, swingInFilm, type Place } from '@treadle/core'
import { FilmError, readFilm } from './readFilm.ts'
import { fileRefusal, refuse } from './refusal.ts'

/**
 * `swing FILM [--fps N] [--suspension X,Y]` prints the semi-arc in a film of a pendulum as one JSON object.
 *
 * FILM is a film file or a folder of PNG frames.
 */
export async function main(args: string[]): Promise<number> {
  let parsed
  try {
    parsed = parseArgs({
      args,
      allowPositionals: true,
      options: { fps: { type: 'string' }, suspension: { type: 'string' } },
    })
  } catch (error) {
    return refuse('swing', (error as Error).message)
  }
  const [film, ...rest] = parsed.positionals
  if (film === undefined || rest.length > 0)
    return refuse('swing', 'FILM is missing or there is more than one: give one film file or folder of PNG frames')
  const { fps, suspension } = parsed.values
  if (fps !== undefined && !(Number(fps) >= 1 && Number(fps) <= 1000))
    return refuse('swing', `--fps is ${fps}: it must be a number from 1 to 1000`)
  const place = suspension === undefined ? undefined : placeOf(suspension)
  if (place === null)
    return refuse('swing', `--suspension is ${suspension}: give its place in pixels right and down, as 160,-30`)
  try {
    const frames = await readFilm(film, fps === undefined ? undefined : Number(fps))
    const { semiArcDeg, standardError, periodS, middleDeg, by } = swingInFilm(frames, { suspension: place })
    process.stdout.write(`${JSON.stringify({ semiArcDeg, standardError, periodS, middleDeg, by })}\n`)
    return 0
  } catch (error) {
    if (error instanceof FieldError || error instanceof FilmError) return refuse('swing', `${film}: ${error.message}`)
    return refuse('swing', fileRefusal(film, error))
  }
}

function placeOf(text: string): Place | null {
  const [x, y, ...more] = text.split(',').map(Number)
  return more.length === 0 && Number.isFinite(x) && Number.isFinite(y) ? { x: x as number, y: y as number } : null
}
