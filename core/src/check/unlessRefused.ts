import { FieldError } from './require.ts'

/** What is reckoned, or the refusal of a figure that can’t be; anything else that goes wrong is thrown on. */
export function unlessRefused<T>(reckon: () => T): T | FieldError {
  try {
    return reckon()
  } catch (error) {
    if (error instanceof FieldError) return error
    throw error
  }
}
