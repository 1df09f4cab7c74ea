import { RUNS_TITLES, type JobChange, type VisitChange } from '@treadle/contract'
import { BAYS, isHeld, mayClose, SCOPE_TITLES } from '@treadle/core'
import { eq } from 'drizzle-orm'
import { isDeepStrictEqual } from 'node:util'
import { jobs } from '../db/schema.ts'
import type { JobDoing } from '../door/jobChange.ts'
import { Refused } from '../http/refusals.ts'
import { letGo, promiseAgain } from '../stock/reopened.ts'
import { gatherJob } from './gather.ts'
import { standingNow } from './standingNow.ts'

/** Tells the journal what of a job was changed, each thing in a line of its own. */
export async function writeJobChange({ job: before, write }: JobDoing, now: Omit<JobChange, 'version'>): Promise<void> {
  if (before.bay !== now.bay) await write(`Moved to ${BAYS.find((b) => b.bay === now.bay)?.title ?? now.bay}.`)
  if (before.runs !== now.runs) await write(`Observed before touching: ${RUNS_TITLES[now.runs]}.`)
  if (before.complaint !== now.complaint)
    await write(`The owner’s words now read: “${now.complaint}” (were: “${before.complaint}”).`)
  if (
    before.standsAt !== now.standsAt ||
    before.movedLately !== now.movedLately ||
    before.lastServiced !== now.lastServiced
  )
    await write(
      `At home: stands ${now.standsAt || 'nobody said where'}; moved lately: ${now.movedLately}; last serviced: ${now.lastServiced ?? 'not known'}.`,
    )
  if (before.promisedOn !== (now.promisedOn ?? null)) await write(`Promised for ${now.promisedOn ?? 'no day'}.`)
  if (!isDeepStrictEqual(before.cameWith, now.cameWith)) {
    const list = now.cameWith.map((c) => `${c.name} (${c.returned ? 'ticked off' : c.state})`)
    await write(`What came with it: ${list.join(', ') || 'nothing'}.`)
  }
}

/** Tells the journal what a visit is for now, and whether it waits. */
export async function writeVisitChange(
  { job: before, write }: JobDoing,
  now: Omit<VisitChange, 'version'>,
): Promise<void> {
  if (before.scope !== now.scope || before.scopeReason !== now.scopeReason || before.scopeTrain !== now.scopeTrain) {
    const train = now.scopeTrain === '' ? '' : `, the ${now.scopeTrain} train`
    await write(`What is done on this visit: ${SCOPE_TITLES[now.scope]}${train}${ended(now.scopeReason)}`)
  }
  if (before.waitsFor !== now.waitsFor || before.waitsNote !== now.waitsNote || before.waitsUntil !== now.waitsUntil)
    await write(
      now.waitsFor === ''
        ? 'It waits no longer.'
        : `Waits for ${now.waitsFor === 'parts' ? 'parts' : 'the owner'}${now.waitsUntil === null ? '' : ` until ${now.waitsUntil}`}${ended(now.waitsNote)}`,
    )
}

function ended(reason: string): string {
  return reason === '' ? '.' : `: ${reason.replace(/\.?$/, '.')}`
}

/** Calls a job off: kept in the book and out of the way; not once its plates were parted. */
export async function callOffJob(doing: JobDoing, reason: string): Promise<void> {
  const { tx, job, at, write } = doing
  if (job.partedAt) throw new Refused('parted')
  await tx
    .update(jobs)
    .set({ closedAt: at, ending: 'called-off', version: job.version + 1 })
    .where(eq(jobs.id, job.id))
  const free = await letGo(doing)
  await write(
    `Called off: ${reason.replace(/\.?$/, '.')}${free.length > 0 ? ` Let go of what was promised to it: ${free.join(', ')}.` : ''}`,
  )
}

/** Hands the clock over, once every gate is passed or overridden. */
export async function closeJob({ tx, job, at, write }: JobDoing): Promise<void> {
  if (job.closedAt) return
  const rows = await gatherJob(tx, job.id)
  if (rows && rows.unreadable.length > 0)
    throw new Refused('may-not-close', {
      detail: 'Rows of it can’t be read, so nobody can tell what they say: see to them first, at the head of its page.',
    })
  const { gates } = await standingNow(tx, job.id, at)
  if (!mayClose(gates)) {
    const held = gates.filter(isHeld)
    throw new Refused('may-not-close', { detail: held.map((g) => g.reason).join(' ') })
  }
  await tx
    .update(jobs)
    .set({ closedAt: at, version: job.version + 1 })
    .where(eq(jobs.id, job.id))
  await write('Handed over; the job is closed.')
}

/** Opens a closed job again; gives what was promised to it and can't be had any more, in words. */
export async function reopenJob(doing: JobDoing): Promise<string[]> {
  const { tx, job, write } = doing
  if (!job.closedAt) return []
  await tx
    .update(jobs)
    .set({ closedAt: null, ending: '', version: job.version + 1 })
    .where(eq(jobs.id, job.id))
  const lost = await promiseAgain(doing)
  await write(
    `Reopened.${lost.length > 0 ? ` No longer to be had of what was promised to it: ${lost.join(', ')}.` : ''}`,
  )
  return lost
}
