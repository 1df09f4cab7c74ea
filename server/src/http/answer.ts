import type { Response } from 'express'
import type { Saved } from '../db/versioned.ts'

/** Answers with a row that was saved: 201 where it is new. */
export function sendSaved<R>(res: Response, saved: Saved<R>, also: object = {}): void {
  res.status(saved.state === 'created' ? 201 : 200).json({ ...saved.row, ...also })
}
