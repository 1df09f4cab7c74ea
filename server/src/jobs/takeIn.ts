import type { NewJob } from '@treadle/contract'
import { eq } from 'drizzle-orm'
import type { Request } from 'express'
import type { Database } from '../db/connect.ts'
import { clocks, jobs, owners } from '../db/schema.ts'
import { sameValues, stale } from '../db/versioned.ts'
import { inTransaction } from '../door/transaction.ts'
import { nowOf } from '../http/now.ts'
import { writeJournal } from '../journal/write.ts'
import { nextNumber } from './nextNumber.ts'

/**
 * Takes in a clock; a repeated request (same job id) finds it taken in.
 *
 * An owner or a clock that is known must come as it stands: what was found and has been changed since is told, and an id
 * that is somebody else's takes nothing in.
 */
export async function takeIn(db: Database, req: Request, body: NewJob): Promise<{ created: boolean; id: string }> {
  const { person } = req
  const at = nowOf(req)
  return inTransaction(db, async (tx) => {
    const { owner, clock } = body
    const values = {
      complaint: body.complaint,
      cameWith: body.cameWith,
      promisedOn: body.promisedOn || null,
      standsAt: body.standsAt,
      movedLately: body.movedLately,
      lastServiced: body.lastServiced,
      clockId: clock.id,
    }
    const isTakenIn = async () => {
      const [known] = await tx.select().from(jobs).where(eq(jobs.id, body.id))
      // What was changed since it was taken in may differ; of what was not, all must be as it was sent.
      const same = known && (known.version > 1 ? known.clockId === clock.id : sameValues(values, known))
      if (known && !same) throw stale(known, 'Another job has this id already.')
      return known !== undefined
    }
    if (await isTakenIn()) return { created: false, id: body.id }
    const [newOwner] = await tx.insert(owners).values(owner).onConflictDoNothing().returning()
    if (!newOwner) {
      const [there] = await tx.select().from(owners).where(eq(owners.id, owner.id))
      if (!there || !sameValues(owner, there))
        throw stale(there, 'This owner is known by other words; look them up again.')
    }
    const [newClock] = await tx
      .insert(clocks)
      .values({ ...clock, ownerId: owner.id })
      .onConflictDoNothing()
      .returning()
    if (!newClock) {
      const [there] = await tx.select().from(clocks).where(eq(clocks.id, clock.id))
      if (!there || there.ownerId !== owner.id || !sameValues(clock, there))
        throw stale(there, 'This clock has been changed, or is another’s; look it up again.')
    }
    const number = await nextNumber(tx)
    const [job] = await tx
      .insert(jobs)
      .values({ ...values, id: body.id, number, bay: 'arrive', runs: 'not-tried', receivedAt: at })
      .onConflictDoNothing()
      .returning()
    // Taken in meanwhile: by the same request, sent twice at once, or as another, which undoes this one.
    if (!job) {
      await isTakenIn()
      return { created: false, id: body.id }
    }
    const shop = { at, ...person }
    if (newOwner)
      await writeJournal(tx, {
        ...shop,
        about: 'owner',
        aboutId: owner.id,
        kind: 'owner',
        text: `New: ${owner.name}.`,
        figures: { after: owner },
      })
    if (newClock)
      await writeJournal(tx, {
        ...shop,
        about: 'clock',
        aboutId: clock.id,
        kind: 'clock',
        text: `New: ${clock.name}, of ${owner.name}.`,
        figures: { after: clock },
      })
    const things = body.cameWith.filter((c) => c.state !== 'missing').map((c) => c.name)
    await writeJournal(tx, {
      ...shop,
      jobId: job.id,
      kind: 'job',
      text: `Took in ${clock.name} for ${owner.name} as number ${job.number}. “${body.complaint}”${things.length > 0 ? ` Came with it: ${things.join(', ')}.` : ''}`,
      figures: { number: job.number },
    })
    return { created: true, id: body.id }
  })
}
