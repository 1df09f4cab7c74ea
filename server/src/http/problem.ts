import type { FieldProblem, Problem } from '@treadle/contract'
import type { ErrorRequestHandler, Response } from 'express'

/** A request that is refused: a status and a sentence a person can act on. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly title: string,
    readonly rest: { detail?: string; errors?: FieldProblem[]; current?: unknown } = {},
  ) {
    super(title)
  }
}

/** A refusal that names one field. */
export function badField(field: string, message: string): Refused {
  return new Refused(400, 'bad-fields', 'Some of what was typed can’t be right.', { errors: [{ field, message }] })
}

export function sendProblem(
  res: Response,
  status: number,
  code: string,
  title: string,
  rest: Partial<Problem> = {},
): void {
  const problem: Problem = { type: `/problems/${code}`, title, status, ...rest }
  res.status(status).type('application/problem+json').send(JSON.stringify(problem))
}

const DATABASE_AWAY = new Set(['ECONNREFUSED', 'ECONNRESET', '57P01', '57P02', '57P03', '08006', '08001', '53300'])

/** Turns every error into problem details; what is not the caller's doing is logged whole and told in one line. */
export const onError: ErrorRequestHandler = (error: unknown, req, res, next) => {
  if (res.headersSent) {
    next(error)
    return
  }
  if (error instanceof Refused) {
    sendProblem(res, error.status, error.code, error.title, error.rest)
    return
  }
  const { type, status } = error as { type?: string; status?: number }
  if (type === 'entity.too.large') {
    sendProblem(res, 413, 'too-large', 'That is more than can be taken in at once.')
    return
  }
  if (type === 'entity.parse.failed') {
    sendProblem(res, 400, 'not-json', 'The request is not valid JSON.')
    return
  }
  if (status !== undefined && status >= 400 && status < 500) {
    sendProblem(res, status, 'bad-request', 'The request can’t be understood.')
    return
  }
  req.log.error({ err: error }, 'request failed')
  if (isDatabaseAway(error)) {
    sendProblem(res, 503, 'database-away', 'The database does not answer. What you typed is kept; it is tried again.')
    return
  }
  sendProblem(res, 500, 'broken', 'Something went wrong in the workshop’s server. Nothing was changed.')
}

function isDatabaseAway(error: unknown): boolean {
  for (let e = error as { code?: string; cause?: unknown; message?: string } | undefined; e; e = e.cause as typeof e)
    if (
      DATABASE_AWAY.has(e.code ?? '') ||
      /Connection terminated|timeout exceeded when trying to connect/.test(e.message ?? '')
    )
      return true
  return false
}
