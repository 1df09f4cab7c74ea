import { line, measured, only, requiredLine, string, type InferType } from './fields.ts'

/** What a person says of a thing that is owed. */
export const NowMark = only({
  kind: requiredLine(20),
  subject: line(60).defined(),
  state: string().oneOf(['done', 'later', 'not-needed']).required(),
  dueS: measured(0, 1e11).nullable().defined(),
  untilS: measured(0, 1e11).nullable().defined(),
})
export type NowMark = InferType<typeof NowMark>
export type NowMarkRow = NowMark & { jobId: string; who: string; whoId?: string | null }

/** What find-as-you-type brings. */
export interface Found {
  kind: 'job' | 'clock' | 'owner'
  id: string
  title: string
  detail: string
  /** it is in the workshop now */
  open: boolean
  /** a clock's job of today */
  jobId?: string | null
}
