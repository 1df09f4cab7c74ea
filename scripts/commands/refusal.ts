import { WavError } from '@treadle/core'

/** One line about a file that can't be read, or the error thrown on where it is not the file's. */
export function fileRefusal(file: string, error: unknown): string {
  if (error instanceof WavError) return `${file}: ${error.message}`
  const code = (error as NodeJS.ErrnoException).code
  if (code === 'ENOENT') return `${file}: there is no such file`
  if (code === 'EISDIR' || code === 'EACCES') return `${file}: it can't be read (${code})`
  throw error
}

/** Says why nothing is answered, in one line, and gives the exit code of bad input. */
export function refuse(command: string, sentence: string): number {
  process.stderr.write(`${command}: ${sentence.replaceAll('\n', ' ')}\n`)
  return 2
}

/** A figure rounded to so many places, so that answers are not longer than what is known. */
export function rounded(value: number, places: number): number {
  return Math.round(value * 10 ** places) / 10 ** places
}
