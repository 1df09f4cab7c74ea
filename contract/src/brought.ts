import { line, moment, only, string, text, type InferType } from './fields.ts'

/** By which archive a row was brought, and who took it in when. */
export const Brought = only({
  /** the workshop that wrote the archive; empty: it did not say */
  from: text(200).defined(),
  /** day on which it was written */
  writtenOn: string()
    .required()
    .matches(/^\d{4}-\d\d-\d\d$/),
  /** when it was taken in here */
  at: moment(),
  by: line(80).defined(),
})
export type Brought = InferType<typeof Brought>
