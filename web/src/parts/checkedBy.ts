import type { FormErrors } from '@mantine/form'
import { yupResolver } from 'mantine-form-yup-resolver'
import type { Schema } from 'yup'

/** A form's check by the very schema that the server checks by. Its declared type admits fewer schemas than it takes. */
export function checkedBy<T>(schema: Schema<T>): (values: T) => FormErrors {
  return yupResolver(schema as unknown as Parameters<typeof yupResolver>[0]) as (values: T) => FormErrors
}
