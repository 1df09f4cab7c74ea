import { id, only, requiredLine, text, version, type InferType } from './fields.ts'

/** What it was in the end; the log of these sharpens the trouble finder. */
export const ConfirmedCause = only({
  id: id(),
  version: version(),
  cause: requiredLine(40).label('Cause'),
  note: text(1000).defined().label('Note'),
})
export type ConfirmedCause = InferType<typeof ConfirmedCause>
export type ConfirmedCauseRow = ConfirmedCause & { jobId: string; at: string; who: string; whoId?: string | null }
