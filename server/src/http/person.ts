import { keepable } from '@treadle/contract'
import { eq, or, sql } from 'drizzle-orm'
import type { RequestHandler } from 'express'
import type { Database } from '../db/connect.ts'
import { people } from '../db/schema.ts'
import { Refused } from './refusals.ts'

/** Who is at the bench: the name as it is written beside what they do, and who of the workshop that is. */
export interface Doer {
  who: string
  whoId: string | null
}

declare module 'express-serve-static-core' {
  interface Request {
    /** who asks for a change; nobody is asked for while something is only read */
    person: Doer
  }
}

const CHANGING = new Set(['POST', 'PUT', 'PATCH', 'DELETE'])
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i
const NOBODY: Doer = { who: 'somebody', whoId: null }

/** Puts `req.person` beside every change: by the id that the page sends (X-Bench-Id), else by the name (X-Bench). */
export function personAtTheBench(db: Database): RequestHandler {
  return async (req, _res, next) => {
    req.person = CHANGING.has(req.method)
      ? await personOf(db, nameOf(req.headers['x-bench']), req.headers['x-bench-id'])
      : NOBODY
    next()
  }
}

function nameOf(header: unknown): string {
  if (typeof header !== 'string') return ''
  let name: string
  try {
    name = decodeURIComponent(header).trim()
  } catch {
    throw new Refused('name-unreadable')
  }
  if (!keepable(name) || /[\p{Cc}\u2028\u2029]/u.test(name)) throw new Refused('name-bad-character')
  // By characters, so that none is cut in half.
  return [...name].slice(0, 80).join('')
}

async function personOf(db: Database, name: string, id: unknown): Promise<Doer> {
  const known = typeof id === 'string' && UUID.test(id) ? id.toLowerCase() : null
  if (name === '' && known === null) return NOBODY
  const [found] = await db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(known === null ? eq(people.name, name) : or(eq(people.id, known), eq(people.name, name)))
    .orderBy(sql`${people.id} = ${known} desc nulls last`, people.id)
    .limit(1)
  // Who is known by the id is written by the name that the workshop knows: a device may still have an older one.
  const who = found && found.id === known ? found.name : name
  return { who: who || NOBODY.who, whoId: found?.id ?? null }
}
