import { boolean, id, only, requiredLine, version, type InferType } from './fields.ts'

/** Somebody who works at this bench. */
export const Person = only({
  id: id(),
  name: requiredLine(80).label('Name'),
  initials: requiredLine(6).label('Initials'),
  active: boolean().required(),
  version: version(),
})
export type Person = InferType<typeof Person>
