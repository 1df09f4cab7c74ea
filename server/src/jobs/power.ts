import { POWER_METHOD_TITLES, type PowerOff } from '@treadle/contract'
import { POWER_CARE, proofsFor } from '@treadle/core'
import { and, eq } from 'drizzle-orm'
import { clocks, jobs, powerOffs } from '../db/schema.ts'
import { sameValues, stale } from '../db/versioned.ts'
import type { JobDoing } from '../door/jobChange.ts'
import { requireGate } from '../gates/requireGate.ts'
import { badField } from '../http/problem.ts'
import { Refused } from '../http/refusals.ts'
import { gatherJob } from './gather.ts'

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

/** Takes a confirmation back, as long as nothing stands on it. */
export async function powerBack(doing: JobDoing, id: string): Promise<void> {
  const { tx, job, write } = doing
  if (job.partedAt) throw new Refused('power-stands')
  const [gone] = await tx
    .delete(powerOffs)
    .where(and(eq(powerOffs.id, id), eq(powerOffs.jobId, job.id)))
    .returning()
  if (!gone) return
  await requireGate(doing, { work: 'power-back', train: gone.train })
  await write(`Taken back: the ${gone.train} train is off. Treat it as wound.`)
}

/** Parts the plates: every train off or the gate overridden, and every mesh marked or waived. */
export async function partPlates(doing: JobDoing): Promise<void> {
  const { tx, job, at, write } = doing
  if (job.partedAt) return
  await requireGate(doing, { work: 'part' })
  const rows = await gatherJob(tx, job.id)
  const off = new Set(rows?.powerOffs.map((p) => p.train))
  const trains = (rows?.clock.trains ?? []).map((t) => t.train)
  const wound = trains.filter((train) => !off.has(train))
  await tx
    .update(jobs)
    .set({ partedAt: at, version: job.version + 1 })
    .where(eq(jobs.id, job.id))
  await write(
    wound.length > 0
      ? `Parted the plates with the ${wound.join(' and ')} train not confirmed off; overridden.`
      : trains.length === 0
        ? 'Parted the plates of a clock none of whose trains is named, so none is confirmed off; overridden.'
        : 'Parted the plates; every train was confirmed off.',
  )
}
