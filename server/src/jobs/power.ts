import { POWER_METHOD_TITLES, type PowerOff } from '@treadle/contract'
import { markedWork, meshMarks, POWER_CARE, proofsFor } from '@treadle/core'
import { and, eq } from 'drizzle-orm'
import { clocks, jobs, powerOffs } from '../db/schema.ts'
import { sameValues, stale } from '../db/versioned.ts'
import type { JobDoing } from '../door/jobChange.ts'
import { badField, Refused } from '../http/problem.ts'
import { gatherJobs } from './gather.ts'

/** Confirms one train off; every proof that its power asks for must have been tried by hand. */
export async function powerOff({ tx, job, person, at, write }: JobDoing, body: PowerOff): Promise<void> {
  const found = await tx.select().from(clocks).where(eq(clocks.id, job.clockId))
  const clock = found[0]
  const train = clock?.trains.find((t) => t.train === body.train)
  if (!clock || !train) throw badField('train', `Train: this clock has no ${body.train} train`)
  if (!POWER_CARE[train.power].methods.includes(body.method))
    throw badField('method', `How it was let down: “${POWER_METHOD_TITLES[body.method]}” does not fit this power`)
  const asked = proofsFor(train.power, clock.kind, clock.work.mercury)
  const lacking = asked.filter((p) => !body.proofs.includes(p.key))
  if (lacking.length > 0)
    throw badField('proofs', `Proof: not tried yet: ${lacking.map((p) => p.says.toLowerCase()).join('; ')}`)
  const [made] = await tx
    .insert(powerOffs)
    .values({ ...body, jobId: job.id, at, ...person })
    .onConflictDoNothing()
    .returning()
  if (made) {
    const proofs = asked.map((p) => p.says.toLowerCase()).join('; ')
    await write(
      `The ${body.train} train is off: ${POWER_METHOD_TITLES[body.method]}. Proved by hand by ${person.who}: ${proofs}.`,
      { train: body.train, method: body.method, proofs: body.proofs },
    )
    return
  }
  const [there] = await tx.select().from(powerOffs).where(eq(powerOffs.id, body.id))
  if (there && sameValues({ ...body, jobId: job.id }, there)) return
  const [theirs] = await tx
    .select()
    .from(powerOffs)
    .where(and(eq(powerOffs.jobId, job.id), eq(powerOffs.train, body.train)))
  throw stale(there ?? theirs, 'This train was confirmed off already.')
}

/** Takes a confirmation back, as long as the plates are not parted on it. */
export async function powerBack({ tx, job, write }: JobDoing, id: string): Promise<void> {
  if (job.partedAt) throw new Refused(409, 'parted', 'The plates are parted; that confirmation stands.')
  const [gone] = await tx
    .delete(powerOffs)
    .where(and(eq(powerOffs.id, id), eq(powerOffs.jobId, job.id)))
    .returning()
  if (gone) await write(`Taken back: the ${gone.train} train is off. Treat it as wound.`)
}

/** Parts the plates: every train off or the gate overridden, and every mesh marked or waived. */
export async function partPlates({ tx, job, at, write }: JobDoing): Promise<void> {
  const [rows] = await gatherJobs(tx, [job.id])
  if (!rows || job.partedAt) return
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
  await tx
    .update(jobs)
    .set({ partedAt: at, version: job.version + 1 })
    .where(eq(jobs.id, job.id))
  await write(
    wound.length > 0
      ? `Parted the plates with the ${wound.join(' and ')} train not confirmed off; overridden.`
      : 'Parted the plates; every train was confirmed off.',
  )
}
