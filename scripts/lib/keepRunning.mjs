import { spawn } from 'node:child_process'

const FIRST_PAUSE_MS = 500
const LONGEST_PAUSE_MS = 30_000
/** Whoever was ready did not die of how it was started: it is started again as good as at once. */
const WAS_READY_MS = 100
/** So many deaths in a row are worth a word of what to do. */
const KEEPS_DYING = 4

/** How long to wait before the `deaths`-th start anew of what never became ready, ms: twice as long each time, up to half a minute. */
export function pauseMs(deaths) {
  return Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (deaths - 1))
}

/**
 * Keeps a process running: one that dies is started again, at once where it had been ready, else after a pause that grows
 * as long as it keeps dying before it is.
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
  let restarts = 0
  let tellReady = () => undefined
  const ready = new Promise((resolve) => (tellReady = resolve))
  const start = () => {
    waiting = null
    let wasReady = false
    let over = false
    const { command, args, options } = begin()
    const mine = spawn(command, args, options)
    child = mine
    const died = (how) => {
      if (over) return
      over = true
      child = null
      if (ended) return
      deaths = wasReady ? 0 : deaths + 1
      const pause = wasReady ? WAS_READY_MS : pauseMs(deaths)
      restarts++
      say(`${what} has stopped (${how}). It is started again in ${(pause / 1000).toFixed(1)} s.`)
      if (deaths >= KEEPS_DYING) say(`It has stopped ${deaths} times in a row: ${hint}`)
      waiting = setTimeout(start, pause)
    }
    mine.once('message', () => {
      wasReady = true
      if (restarts > 0) say(`${what} runs again.`)
      tellReady(true)
    })
    mine.once('exit', (code, signal) => died(signal ?? code))
    // There was no room for another process, or no memory: it is tried again like any other death.
    mine.on('error', (error) => died(error.code ?? error.message))
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
