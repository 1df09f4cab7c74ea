import { FieldError } from '@treadle/core'
import { ValidationError, type InferType, type ObjectSchema, type AnyObject } from 'yup'

interface CalculationField {
  unit: string
  example?: unknown
  note?: string
}

/** A field as it is shown and typed. */
interface DescribedField extends CalculationField {
  label: string
  required: boolean
  /** answered by yes or no */
  yesNo: boolean
  choices?: string[]
  /** of a list: the fields of each of its things */
  inner?: Record<string, { required: boolean; type: string; choices?: string[] }>
}

/** One calculation with its inputs, outputs and units; `reckon` checks the input first. */
export interface Calculation {
  name: string
  title: string
  about: string
  fields: Record<string, DescribedField>
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
      Object.entries<CalculationField>(fields).map(([name, field]) => [name, describedField(name, field, described)]),
    ),
    reckon: (value) => {
      const given = checked(input, value)
      refuseTooLarge(given, '')
      const answer = run(given)
      refuseNoNumber(answer, '')
      return answer
    },
  }
}

interface About {
  label?: string
  type?: string
  optional?: boolean
  oneOf?: unknown[]
  innerType?: { fields?: Record<string, About> }
}

function describedField(name: string, field: CalculationField, described: Record<string, unknown>): DescribedField {
  const about = described[name] as About | undefined
  const inner = about?.innerType?.fields
  return {
    ...field,
    label: about?.label ?? name,
    required: about?.optional === false,
    yesNo: about?.type === 'boolean',
    ...choicesOf(about),
    ...(inner && {
      inner: Object.fromEntries(
        Object.entries(inner).map(([key, one]) => [
          key,
          { required: one.optional === false, type: one.type ?? '', ...choicesOf(one) },
        ]),
      ),
    }),
  }
}

function choicesOf(about: About | undefined): { choices?: string[] } {
  const choices = (about?.oneOf ?? []).filter((choice) => choice !== null).map(String)
  return choices.length > 0 ? { choices } : {}
}

/** Nothing in a workshop is larger; what is, was mistyped, and would only overflow. */
const LARGEST = 1e9

/** @throws FieldError naming the first number that is too large, wherever it stands */
function refuseTooLarge(value: unknown, path: string): void {
  if (typeof value === 'number' && Math.abs(value) > LARGEST)
    throw new FieldError(path, value, `it must be at most ${new Intl.NumberFormat('en-US').format(LARGEST)} in size`)
  if (typeof value !== 'object' || value === null) return
  for (const [key, inner] of Object.entries(value))
    refuseTooLarge(inner, Array.isArray(value) ? `${path}[${key}]` : path === '' ? key : `${path}.${key}`)
}

/** @throws FieldError where an answer came out as no number: the figures together can't be */
function refuseNoNumber(answer: unknown, path: string): void {
  if (typeof answer === 'number' && !Number.isFinite(answer))
    throw new FieldError('input', path, 'with these figures it comes out as no number; look at them once more')
  if (typeof answer !== 'object' || answer === null) return
  for (const [key, inner] of Object.entries(answer)) refuseNoNumber(inner, path === '' ? key : `${path}.${key}`)
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

/** What a type is called where its own name would not do. */
const TYPES: Record<string, string> = { array: 'a list', boolean: 'true or false' }

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
        `it must be ${TYPES[params?.type ?? ''] ?? `a ${params?.type ?? 'value'}`}`,
      )
    case 'oneOf':
      return new FieldError(field, params?.value, `it must be one of ${params?.values ?? ''}`)
    case 'min':
      return new FieldError(field, params?.value, `it needs at least ${params?.min ?? 1}`)
    default:
      return new FieldError(field, params?.value, error.message)
  }
}
