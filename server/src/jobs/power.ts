import { POWER_METHOD_TITLES, type PowerOff } from '@treadle/contract'
import { meshMarks, POWER_CARE, proofsFor } from '@treadle/core'
import { and, eq, isNull } from 'drizzle-orm'
import type { Database } from '../db/connect.ts'
import { clocks, jobs, powerOffs } from '../db/schema.ts'
import { badField, Refused } from '../http/problem.ts'
import { writeJournal } from '../journal/write.ts'
import { openJob } from './find.ts'
import { gatherJobs } from './gather.ts'
import { markedWork } from './standing.ts'

/** Confirms one train off; every proof that its power asks for must have been tried by hand. */
export async function powerOff(db: Database, jobId: string, body: PowerOff, who: string, at: Date): Promise<void> {
  const job = await openJob(db, jobId)
  const found = await db.select().from(clocks).where(eq(clocks.id, job.clockId))
  const clock = found[0]
  const train = clock?.trains.find((t) => t.train === body.train)
  if (!clock || !train) throw badField('train', `Train: this clock has no ${body.train} train`)
  if (!POWER_CARE[train.power].methods.includes(body.method))
    throw badField('method', `How it was let down: “${POWER_METHOD_TITLES[body.method]}” does not fit this power`)
  const lacking = proofsFor(train.power, clock.kind, clock.work.mercury).filter((p) => !body.proofs.includes(p.key))
  if (lacking.length > 0)
    throw badField('proofs', `Proof: not tried yet: ${lacking.map((p) => p.says.toLowerCase()).join('; ')}`)
  await db.transaction(async (tx) => {
    const made = await tx
      .insert(powerOffs)
      .values({ ...body, jobId: job.id, at, who })
      .onConflictDoNothing()
      .returning()
    if (made[0])
      await writeJournal(tx, {
        jobId: job.id,
        at,
        who,
        kind: 'power',
        text: `The ${body.train} train is off: ${POWER_METHOD_TITLES[body.method]}. Proved by hand by ${who}: ${proofsFor(
          train.power,
          clock.kind,
          clock.work.mercury,
        )
          .map((p) => p.says.toLowerCase())
          .join('; ')}.`,
        figures: { train: body.train, method: body.method, proofs: body.proofs },
      })
  })
}

/** Parts the plates: every train off or the gate overridden, and every mesh marked or waived. */
export async function partPlates(db: Database, id: string, who: string, at: Date): Promise<void> {
  const job = await openJob(db, id)
  const [rows] = await gatherJobs(db, [id])
  if (!rows) return
  const off = new Set(rows.powerOffs.map((p) => p.train))
  const wound = rows.clock.trains.filter((t) => !off.has(t.train)).map((t) => t.train)
  const override = rows.overrides.find((o) => o.gate === 'power')
  if (wound.length > 0 && !override)
    throw new Refused(422, 'gate', 'The plates may not be parted yet.', {
      detail: `Not confirmed off: ${wound.join(', ')}. Treat each as wound until it is.`,
    })
  const made = new Set(rows.stripMarks.map((m) => m.key))
  const unmarked = meshMarks(markedWork(rows.clock)).filter((m) => !made.has(m.key))
  if (unmarked.length > 0)
    throw new Refused(422, 'gate', 'The plates may not be parted yet.', {
      detail: `Mark first, or waive with a reason: ${unmarked.map((m) => m.what.toLowerCase()).join('; ')}.`,
    })
  await db.transaction(async (tx) => {
    const parted = await tx
      .update(jobs)
      .set({ partedAt: at, version: job.version + 1 })
      .where(and(eq(jobs.id, id), isNull(jobs.partedAt)))
      .returning()
    if (parted[0]) {
      const text =
        wound.length > 0
          ? `Parted the plates with the ${wound.join(' and ')} train not confirmed off; overridden.`
          : 'Parted the plates; every train was confirmed off.'
      await writeJournal(tx, { jobId: id, at, who, kind: 'power', text })
    }
  })
}
