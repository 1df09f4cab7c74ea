import type { Request } from 'express'

/** The present moment as this workshop has it; the demo lays down its months of history with a moment of its own. */
export function nowOf(req: Request): Date {
  const now = req.app.locals.now as (() => Date) | undefined
  return now?.() ?? new Date()
}
