import { ClockPassed, OwnerChange, OwnerMerge, type OwnerListed } from '@treadle/contract'
import { asc, eq, ilike, inArray, or } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database, Queries } from '../db/connect.ts'
import { clocks, owners } from '../db/schema.ts'
import { saveVersioned, stale } from '../db/versioned.ts'
import { shopChange } from '../door/shopChange.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, containing, idOf, wordsOf } from '../http/ask.ts'
import { badField } from '../http/problem.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'

const MOST = 20

/** Owners: found by name, telephone or address, changed, made one where one is in the book twice, and their clocks passed on. */
export function ownerRoutes(db: Database): Router {
  return apiRouter()
    .get('/owners', async (req, res) => {
      const pattern = containing(wordsOf(req))
      const found = await db
        .select()
        .from(owners)
        .where(or(ilike(owners.name, pattern), ilike(owners.phone, pattern), ilike(owners.address, pattern)))
        .orderBy(asc(owners.name))
        .limit(MOST)
      res.json(await listed(db, found))
    })
    .get('/owners/:id', async (req, res) => {
      const found = await db
        .select()
        .from(owners)
        .where(eq(owners.id, idOf(req)))
      if (!found[0]) throw new Refused('no-such-owner')
      res.json((await listed(db, found))[0])
    })
    .patch('/owners/:id', async (req, res) => {
      const { version, ...values } = await bodyOf(OwnerChange, req)
      const id = idOf(req)
      const saved = await shopChange(db, req, 'owner', async ({ tx, write }) => {
        const before = await held(tx, id)
        const done = await saveVersioned(tx, owners, { id, version: Math.max(1, version) }, values)
        if (done.state !== 'same') await write(id, `Changed: ${values.name}.`, { before, after: done.row })
        return done
      })
      sendSaved(res, saved)
    })
    .post('/owners/:id/merge', async (req, res) => {
      const { version, into } = await bodyOf(OwnerMerge, req)
      const id = idOf(req)
      if (id === into.toLowerCase()) throw badField('into', 'Owner: it is the same one')
      await shopChange(db, req, 'owner', async ({ tx, write }) => {
        // Held in one order, so that two merges of the same two don't wait for each other.
        const both = new Map<string, typeof owners.$inferSelect>()
        for (const one of [id, into.toLowerCase()].sort()) both.set(one, await held(tx, one))
        const [gone, stays] = [both.get(id)!, both.get(into.toLowerCase())!]
        if (gone.version !== version) throw stale(gone)
        await tx.update(clocks).set({ ownerId: stays.id }).where(eq(clocks.ownerId, gone.id))
        // What is known of one only is not lost with the other.
        const told = {
          phone: stays.phone === '' ? gone.phone : stays.phone,
          address: stays.address === '' ? gone.address : stays.address,
        }
        await tx
          .update(owners)
          .set({ ...told, version: stays.version + 1 })
          .where(eq(owners.id, stays.id))
        await tx.delete(owners).where(eq(owners.id, gone.id))
        await write(stays.id, `${gone.name} and ${stays.name} are one owner: ${stays.name}.`, {
          before: [gone, stays],
          after: { ...stays, ...told },
        })
      })
      const left = await db.select().from(owners).where(eq(owners.id, into))
      res.json((await listed(db, left))[0])
    })
    .patch('/clocks/:id/owner', async (req, res) => {
      const { version, ownerId } = await bodyOf(ClockPassed, req)
      const id = idOf(req)
      const saved = await shopChange(db, req, 'clock', async ({ tx, write }) => {
        const to = await held(tx, ownerId)
        const [before] = await tx.select().from(clocks).where(eq(clocks.id, id)).for('no key update')
        const done = await saveVersioned(tx, clocks, { id, version: Math.max(1, version) }, { ownerId } as never)
        if (done.state !== 'same')
          await write(id, `${done.row.name} passed to ${to.name}.`, {
            before: { ownerId: before?.ownerId },
            after: { ownerId },
          })
        return done
      })
      sendSaved(res, saved)
    })
}

/** The owner, held until the change is done. */
async function held(tx: Queries, id: string) {
  const [owner] = await tx.select().from(owners).where(eq(owners.id, id)).for('update')
  if (!owner) throw new Refused('owner-gone')
  return owner
}

async function listed(db: Database, found: (typeof owners.$inferSelect)[]): Promise<OwnerListed[]> {
  const theirs = await db
    .select({ id: clocks.id, name: clocks.name, ownerId: clocks.ownerId })
    .from(clocks)
    .where(
      inArray(
        clocks.ownerId,
        found.map((o) => o.id),
      ),
    )
    .orderBy(asc(clocks.name))
  return found.map((owner) => ({
    owner,
    clocks: theirs.filter((c) => c.ownerId === owner.id).map(({ id, name }) => ({ id, name })),
  }))
}
