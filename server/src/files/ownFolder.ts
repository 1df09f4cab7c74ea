import { readdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'

/**
 * A folder within `all` for this process alone, named by it and by when it began, so that no other is ever taken for it;
 * those of processes that are gone, with what they had begun to receive, are cleared away. It is not made before it is
 * needed.
 */
export function ownFolder(all: string): string {
  for (const name of namesIn(all))
    if (!isAlive(name)) rmSync(join(all, name), { recursive: true, force: true, maxRetries: 2 })
  return join(all, nameOf(process.pid) ?? String(process.pid))
}

function namesIn(folder: string): string[] {
  try {
    return readdirSync(folder)
  } catch {
    return []
  }
}

function isAlive(name: string): boolean {
  const pid = Number(/^(\d+)-\d+$/.exec(name)?.[1])
  return Number.isInteger(pid) && nameOf(pid) === name
}

/** A process by its number and when it began, in ticks since the machine did; null where there is none. */
function nameOf(pid: number): string | null {
  try {
    // Its name, in brackets, may hold anything; field 22 is the 20th behind it.
    const began = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1)?.split(' ')[19]
    return began === undefined ? null : `${pid}-${began}`
  } catch {
    return null
  }
}
