import type { Problem } from '@treadle/contract'
import { FieldError } from '@treadle/core'
import type { ErrorRequestHandler, Request, Response } from 'express'
import { errorsWithin, type DatabaseError } from '../db/errors.ts'
import { Refused } from './refusals.ts'

/** A refusal that names one field. */
export function badField(field: string, message: string): Refused {
  return new Refused('bad-fields', { errors: [{ field, message }] })
}

export function sendProblem(res: Response, refused: Refused): void {
  send(res, problem(refused))
}

function send(res: Response, said: Problem): void {
  res.status(said.status).type('application/problem+json').send(JSON.stringify(said))
}

const DATABASE_AWAY = new Set([
  ...['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT'],
  ...['57P01', '57P02', '57P03', '08000', '08001', '08003', '08006', '53300'],
])
/** What the driver says of a connection that was lost, without a code. */
const CONNECTION_LOST =
  /Connection (terminated|ended)|timeout exceeded when trying to connect|not queryable|client was closed/i
/** No room: of the system, and as the database tells it. */
const DISK_FULL = new Set(['ENOSPC', 'EDQUOT', '53100'])
/** Waited too long for a lock or an answer, or two changes waited for each other: undone whole, and good to send again. */
const DATABASE_BUSY = new Set(['55P03', '57014', '25P03', '40P01', '40001'])
/** What the database's own checks refuse of a value: too large a number, a moment or a character that can't be. */
const BAD_VALUE = /^22/

/** Turns every error into problem details. */
export const onError: ErrorRequestHandler = (error: unknown, req, res, next) => {
  if (res.headersSent) {
    next(error)
    return
  }
  send(res, problemOf(error, req))
}

/** What an error is told as; what is not the caller's doing is logged whole and told in one line. */
export function problemOf(error: unknown, req: Request): Problem {
  const refused = refusalOf(error)
  if (refused) return problem(refused)
  req.log.error({ err: error }, 'request failed')
  return problem(new Refused('broken'))
}

function problem({ status, code, title, rest }: Refused): Problem {
  return { type: `/problems/${code}`, title, status, ...rest }
}

/** The refusal that an error stands for; none where it is a fault of ours. */
function refusalOf(error: unknown): Refused | null {
  if (error instanceof Refused) return error
  // What the core can't reckon with is a field that is wrong, whatever its schema let through.
  if (error instanceof FieldError) return badField(error.field, error.message)
  const { type, status } = error as { type?: string; status?: number }
  if (type === 'entity.too.large') return new Refused('too-large')
  if (type === 'entity.parse.failed') return new Refused('not-json')
  if (status !== undefined && status >= 400 && status < 500) return new Refused('bad-request', { status })
  return ofTheDatabase(error)
}

/** Whether the database did not answer at all, so that what was asked may be asked again as it is. */
export function isDatabaseAway(error: unknown): boolean {
  for (const { code = '', message = '' } of errorsWithin(error))
    if (DATABASE_AWAY.has(code) || CONNECTION_LOST.test(message)) return true
  return false
}

/** There is no room on the disk: what was asked for is not kept, and reading goes on. */
export function diskFull(): Refused {
  return new Refused('disk-full', {
    detail: 'All that was kept before can be read. Make room on the disk; then it goes on by itself.',
  })
}

function ofTheDatabase(error: unknown): Refused | null {
  for (const e of errorsWithin(error)) {
    const code = e.code ?? ''
    if (DISK_FULL.has(code)) return diskFull()
    if (isDatabaseAway(e)) return new Refused('database-away')
    if (DATABASE_BUSY.has(code)) return new Refused('database-busy')
    if (BAD_VALUE.test(code)) return new Refused('bad-value')
    if (code === '23503')
      return /still referenced/.test(e.detail ?? '')
        ? new Refused('in-use')
        : badField(fieldOf(e), `${fieldOf(e)}: there is no such thing`)
    if (code === '23505') return new Refused('taken')
  }
  return null
}

function fieldOf({ detail = '' }: DatabaseError): string {
  const column = /^Key \((\w+)\)/.exec(detail)?.[1] ?? 'id'
  return column.replace(/_(\w)/g, (_, letter: string) => letter.toUpperCase())
}
