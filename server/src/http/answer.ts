import type { Response } from 'express'
import type { Saved } from '../db/versioned.ts'
import { Refused } from './problem.ts'

/** The saved row, or the refusal that fits: 409 with the row as it stands now, 404 when it is gone. */
export function savedRow<R>(saved: Saved<R>): R {
  if (saved.state === 'missing') throw new Refused(404, 'not-found', 'That is no longer there: somebody took it back.')
  if (saved.state === 'stale')
    throw new Refused(409, 'stale', 'Somebody changed this meanwhile.', { current: saved.row })
  return saved.row
}

export function sendSaved<R>(res: Response, saved: Saved<R>): void {
  const row = savedRow(saved)
  res.status(saved.state === 'created' ? 201 : 200).json(row)
}
