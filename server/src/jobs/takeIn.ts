import type { NewJob } from '@treadle/contract'
import type { Database } from '../db/connect.ts'
import { clocks, jobs, owners } from '../db/schema.ts'
import { writeJournal } from '../journal/write.ts'

/** Takes in a clock; a repeated request (same job id) finds it taken in. */
export async function takeIn(
  db: Database,
  body: NewJob,
  who: string,
  now: Date,
): Promise<{ created: boolean; id: string }> {
  return db.transaction(async (tx) => {
    await tx.insert(owners).values(body.owner).onConflictDoNothing()
    await tx
      .insert(clocks)
      .values({ ...body.clock, ownerId: body.owner.id })
      .onConflictDoNothing()
    const values = {
      complaint: body.complaint,
      cameWith: body.cameWith,
      promisedOn: body.promisedOn || null,
      standsAt: body.standsAt,
      movedLately: body.movedLately,
      lastServiced: body.lastServiced,
      clockId: body.clock.id,
    }
    const made = await tx
      .insert(jobs)
      .values({ ...values, id: body.id, bay: 'arrive', runs: 'not-tried', receivedAt: now })
      .onConflictDoNothing()
      .returning()
    const job = made[0]
    if (job) {
      const things = body.cameWith.filter((c) => c.state !== 'missing').map((c) => c.name)
      await writeJournal(tx, {
        jobId: job.id,
        at: now,
        who,
        kind: 'job',
        text: `Took in ${body.clock.name} for ${body.owner.name} as number ${job.number}. “${body.complaint}”${things.length > 0 ? ` Came with it: ${things.join(', ')}.` : ''}`,
        figures: { number: job.number },
      })
    }
    return { created: job !== undefined, id: body.id }
  })
}
