import { spawn } from 'node:child_process'

const FIRST_PAUSE_MS = 500
const LONGEST_PAUSE_MS = 30_000
/** Whoever ran for so long did not die of how it was started. */
const STEADY_MS = 60_000
/** So many deaths in a row are worth a word of what to do. */
const KEEPS_DYING = 4

/** How long to wait before the `deaths`-th start anew, ms: twice as long each time, up to half a minute. */
export function pauseMs(deaths) {
  return Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (deaths - 1))
}

/**
 * Keeps a process running: one that dies is started again, after a pause that grows as long as it keeps dying.
 *
 * @param begin - gives the command, its arguments and its options, asked anew at each start
 * @param what - what it is called when it is told of
 * @param hint - what to look at when it keeps dying
 * @returns whether it is ready for the first time, and how to end it for good
 */
export function keepRunning({ what, hint, begin, say = console.error }) {
  let child = null
  let waiting = null
  let ended = false
  let deaths = 0
  let tellReady = () => undefined
  const ready = new Promise((resolve) => (tellReady = resolve))
  const start = () => {
    waiting = null
    const startedAt = Date.now()
    const { command, args, options } = begin()
    child = spawn(command, args, options)
    child.once('message', () => {
      if (deaths > 0) say(`${what} runs again.`)
      tellReady(true)
    })
    child.once('exit', (code, signal) => {
      child = null
      if (ended) return
      deaths = Date.now() - startedAt > STEADY_MS ? 1 : deaths + 1
      const pause = pauseMs(deaths)
      say(`${what} has stopped (${signal ?? code}). It is started again in ${(pause / 1000).toFixed(1)} s.`)
      if (deaths >= KEEPS_DYING) say(`It has stopped ${deaths} times in a row: ${hint}`)
      waiting = setTimeout(start, pause)
    })
  }
  start()
  return {
    ready,
    /** the process that runs now, none while it is waited for */
    pid: () => child?.pid,
    /** ends the one that runs, to be started anew with what `begin` now says */
    restart: () => child?.kill('SIGTERM'),
    end: () =>
      new Promise((resolve) => {
        ended = true
        clearTimeout(waiting)
        tellReady(false)
        if (!child) {
          resolve()
          return
        }
        child.once('exit', resolve)
        child.kill('SIGTERM')
      }),
  }
}
