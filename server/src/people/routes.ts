import { Person } from '@treadle/contract'
import { asc } from 'drizzle-orm'
import { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { people } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId } from '../http/ask.ts'

export function peopleRoutes(db: Database): Router {
  return Router()
    .get('/people', async (_req, res) => {
      res.json(await db.select().from(people).orderBy(asc(people.name)))
    })
    .put('/people/:id', async (req, res) => {
      const { version, ...person } = await bodyOf(Person, req)
      sameId(idOf(req), person.id)
      sendSaved(res, await saveVersioned(db, people, { id: person.id, version }, person))
    })
}
