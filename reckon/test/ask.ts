import { FieldError } from '@treadle/core'
import { CALCULATIONS } from '../src/index.ts'

/** What a calculation answers, by its name. */
export function ask(name: string, input: unknown): Record<string, unknown> {
  const calculation = CALCULATIONS.find((c) => c.name === name)
  if (!calculation) throw new Error(`There is no ${name}.`)
  return calculation.reckon(input)
}

/** The field that a calculation refuses; null: it answers. */
export function refused(name: string, input: unknown): string | null {
  try {
    ask(name, input)
  } catch (error) {
    if (error instanceof FieldError) return error.field
    throw error
  }
  return null
}
