export function nameOf(at: Date): string
export function isDue(folder: string, now: Date): boolean
export function mayGo(names: string[], days: number, weeks: number): string[]
export function makeDaily(
  folder: string,
  now: Date,
  kept: { days: number; weeks: number },
  write: (file: string) => Promise<unknown>,
): Promise<{ file: string; bytes: number }>
