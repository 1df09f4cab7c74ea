import type { Router } from 'express'
import { execFile } from 'node:child_process'
import { promisify } from 'node:util'
import { apiRouter } from '../http/router.ts'

const run = promisify(execFile)
const PATIENCE_MS = 2000

/** Whether this computer keeps its clock by network time: true, false, or null where it can't be asked. */
async function isSynchronised(): Promise<boolean | null> {
  try {
    const { stdout } = await run('timedatectl', ['show', '--property=NTPSynchronized', '--value'], {
      timeout: PATIENCE_MS,
    })
    const word = stdout.trim()
    return word === 'yes' ? true : word === 'no' ? false : null
  } catch {
    return null
  }
}

/** How well the computer itself is held to the time, for those who compare a sound card with it. */
export function computerClockRoutes(): Router {
  return apiRouter().get('/computer-clock', async (_req, res) => {
    res.json({ synchronised: await isSynchronised() })
  })
}
