import { FieldError } from '@treadle/core'
import { ValidationError, type InferType, type ObjectSchema, type AnyObject } from 'yup'

interface CalculationField {
  unit: string
  example?: unknown
  note?: string
}

/** One calculation with its inputs, outputs and units; `reckon` checks the input first. */
export interface Calculation {
  name: string
  title: string
  about: string
  fields: Record<string, CalculationField & { label: string; required: boolean; choices?: string[] }>
  output: Record<string, string>
  /** @throws FieldError naming the field, its value and what is allowed */
  reckon: (input: unknown) => Record<string, unknown>
}

interface Definition<S extends ObjectSchema<AnyObject>> {
  name: string
  title: string
  about: string
  input: S
  fields: Record<keyof InferType<S> & string, CalculationField>
  output: Record<string, string>
  run: (input: InferType<S>) => Record<string, unknown>
}

/** Makes a calculation from its schema and the core's function. */
export function calculation<S extends ObjectSchema<AnyObject>>(definition: Definition<S>): Calculation {
  const { input, run, fields, ...rest } = definition
  const described = input.describe().fields
  return {
    ...rest,
    fields: Object.fromEntries(
      Object.entries<CalculationField>(fields).map(([name, field]) => {
        const about = described[name] as { label?: string; optional?: boolean; oneOf?: unknown[] } | undefined
        const choices = about?.oneOf?.map(String) ?? []
        return [
          name,
          {
            ...field,
            label: about?.label ?? name,
            required: about?.optional === false,
            ...(choices.length > 0 && { choices }),
          },
        ]
      }),
    ),
    reckon: (value) => run(checked(input, value)),
  }
}

function checked<S extends ObjectSchema<AnyObject>>(schema: S, value: unknown): InferType<S> {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new FieldError('input', value, 'it must be a JSON object with the calculation’s fields')
  try {
    return schema.validateSync(value, { strict: true, abortEarly: true })
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    throw asFieldError(error, value, schema)
  }
}

function asFieldError(error: ValidationError, input: object, schema: ObjectSchema<AnyObject>): FieldError {
  const unknown = (error.params as { unknown?: string } | undefined)?.unknown
  if (error.type === 'noUnknown' && unknown)
    return new FieldError(
      error.path ? `${error.path}.${unknown}` : unknown,
      (input as Record<string, unknown>)[unknown],
      `it is not a field here; known are ${Object.keys(schema.fields).join(', ')}`,
    )
  const params = error.params as { value?: unknown; type?: string; values?: string; min?: number } | undefined
  const field = error.path ?? 'input'
  switch (error.type) {
    case 'optionality':
    case 'required':
      return new FieldError(field, undefined, 'it is required')
    case 'typeError':
      return new FieldError(
        field,
        params?.value,
        `it must be ${params?.type === 'array' ? 'a list' : `a ${params?.type ?? 'value'}`}`,
      )
    case 'oneOf':
      return new FieldError(field, params?.value, `it must be one of ${params?.values ?? ''}`)
    case 'min':
      return new FieldError(field, params?.value, `it needs at least ${params?.min ?? 1}`)
    default:
      return new FieldError(field, params?.value, error.message)
  }
}
