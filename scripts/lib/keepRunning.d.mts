import type { SpawnOptions } from 'node:child_process'
export function pauseMs(deaths: number): number
export function keepRunning(what: {
  what: string
  hint: string
  begin: () => { command: string; args: string[]; options: SpawnOptions }
  say?: (words: string) => void
}): {
  ready: Promise<boolean>
  pid: () => number | undefined
  restart: () => void
  end: () => Promise<void>
}
