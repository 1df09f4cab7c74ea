import { check } from '@treadle/contract'
import type { Request } from 'express'
import type { Schema } from 'yup'
import { Refused } from './refusals.ts'

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i

/** The request's body, checked strictly; refused with every wrong field named. */
export async function bodyOf<T>(schema: Schema<T>, req: Request): Promise<T> {
  const body: unknown = req.body
  if (typeof body !== 'object' || body === null) throw new Refused('no-body')
  const checked = await check(schema, body)
  if (!checked.ok) throw new Refused('bad-fields', { errors: checked.errors })
  return checked.value
}

/** An id from the path. */
export function idOf(req: Request, name = 'id'): string {
  const value = req.params[name]
  if (typeof value !== 'string' || !UUID.test(value)) throw new Refused('no-such-id')
  return value.toLowerCase()
}

/** A body whose id must be the path's, so that a row can't be written under another's name. */
export function sameId(pathId: string, bodyId: string): void {
  if (pathId !== bodyId.toLowerCase())
    throw new Refused('bad-fields', {
      errors: [{ field: 'id', message: 'id must be the one in the address' }],
    })
}

/** Search words from the query, at most 100 characters. */
export function wordsOf(req: Request): string {
  const q = req.query.q
  return typeof q === 'string' ? [...q.trim()].slice(0, 100).join('') : ''
}

/** One line of words from the query, at most so many characters. */
export function oneLineOf(value: unknown, most: number): string {
  const words = typeof value === 'string' ? value.replace(/[\p{Cc}\u2028\u2029]+/gu, ' ').trim() : ''
  return [...words].slice(0, most).join('')
}

/** A pattern for ILIKE that holds the words literally. */
export function containing(words: string): string {
  return `%${words.replace(/[\\%_]/g, (c) => `\\${c}`)}%`
}
