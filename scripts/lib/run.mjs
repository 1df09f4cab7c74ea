import { spawn, spawnSync } from 'node:child_process'
import { ROOT } from './root.mjs'

/** Runs a command to its end, its output shown on standard error; throws when it fails. */
export function must(command, args, options = {}) {
  const done = spawnSync(command, args, { cwd: ROOT, stdio: ['ignore', 2, 2], ...options })
  if (done.error) throw done.error
  if (done.status !== 0) throw new Error(`${command} ${args.join(' ')} ended with ${done.status ?? done.signal}`)
}

/** Runs a command quietly and gives back what it printed, or null when it fails. */
export function ask(command, args, options = {}) {
  const done = spawnSync(command, args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'], ...options })
  return done.status === 0 ? (done.stdout ?? '').trim() : null
}

/** Runs a command to its end with its output shown and, besides, gathered; never throws for a failing command. */
export function watch(command, args, options = {}) {
  return gather(command, args, options, (chunk) => process.stdout.write(chunk))
}

/** Runs a command to its end and gathers its output, for one of several that run side by side. */
export function gather(command, args, options = {}, show = () => undefined) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], ...options })
    let output = ''
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk) => {
        output += chunk
        show(chunk)
      })
    child.on('error', reject)
    child.on('close', (status) => resolve({ status: status ?? 1, output }))
  })
}
