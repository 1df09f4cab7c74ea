import { readFileSync } from 'node:fs'
import { CALCULATIONS, type Calculation } from '@treadle/reckon'
import { FieldError } from '@treadle/core'
import { refuse } from './refusal.ts'

/** `reckon` lists every calculation; `reckon NAME JSON` (or `-` for standard input) prints the answer as JSON. */
export function main(args: string[]): number {
  const [name, json, ...rest] = args
  if (name === undefined) {
    process.stdout.write(CALCULATIONS.map(describe).join('\n'))
    return 0
  }
  const calculation = CALCULATIONS.find((c) => c.name === name)
  if (!calculation)
    return refuse('reckon', `NAME is ${name}: it must be one of ${CALCULATIONS.map((c) => c.name).join(', ')}`)
  if (json === undefined || rest.length > 0)
    return refuse(
      'reckon',
      `JSON is ${json === undefined ? 'missing' : 'followed by more'}: give one JSON object, or - for standard input`,
    )
  let input: unknown
  try {
    input = JSON.parse(json === '-' ? readFileSync(0, 'utf8') : json)
  } catch (error) {
    return refuse('reckon', `JSON is ${json.slice(0, 60)}: it must be valid JSON (${(error as Error).message})`)
  }
  try {
    process.stdout.write(`${JSON.stringify(calculation.reckon(input))}\n`)
    return 0
  } catch (error) {
    if (error instanceof FieldError) return refuse('reckon', error.message)
    throw error
  }
}

function describe(c: Calculation): string {
  const inputs = Object.entries(c.fields).flatMap(([name, f]) => [
    `    ${name}${f.required ? '' : '?'}  ${[f.label, f.unit, f.choices?.join(' | '), f.note, example(f)].filter(Boolean).join('; ')}`,
    ...Object.entries(f.inner ?? {}).map(
      ([key, one]) =>
        `      .${key}${one.required ? '' : '?'}  ${[one.type, one.choices?.join(' | ')].filter(Boolean).join('; ')}`,
    ),
  ])
  const outputs = Object.entries(c.output).map(([name, unit]) => `    ${name}  ${unit}`)
  return [c.name, `  ${c.about}`, '  in', ...inputs, '  out', ...outputs, ''].join('\n')
}

function example({ example }: Calculation['fields'][string]): string {
  return example === undefined ? '' : `e.g. ${JSON.stringify(example)}`
}
