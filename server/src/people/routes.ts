import { Person } from '@treadle/contract'
import { asc, eq } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { people } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { shopChange } from '../door/shopChange.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId } from '../http/ask.ts'
import { apiRouter } from '../http/router.ts'

export function peopleRoutes(db: Database): Router {
  return apiRouter()
    .get('/people', async (_req, res) => {
      res.json(await db.select().from(people).orderBy(asc(people.name)))
    })
    .put('/people/:id', async (req, res) => {
      const { version, ...person } = await bodyOf(Person, req)
      sameId(idOf(req), person.id)
      const saved = await shopChange(db, req, 'person', async ({ tx, write }) => {
        const [before] = await tx.select().from(people).where(eq(people.id, person.id)).for('no key update')
        const done = await saveVersioned(tx, people, { id: person.id, version }, person)
        const how = !before ? 'New at the bench' : before.active && !person.active ? 'Left the bench' : 'Changed'
        if (done.state !== 'same') await write(person.id, `${how}: ${person.name}.`, { before, after: done.row })
        return done
      })
      sendSaved(res, saved)
    })
}
