import type { Calculation } from '@treadle/reckon'

type Field = Calculation['fields'][string]
/** What stands in the fields of a calculation, by their names. */
export type Typed = Record<string, string>

/** The fields of a calculation filled with its own example. */
export function examplesTyped({ fields }: Calculation): Typed {
  return Object.fromEntries(Object.entries(fields).map(([name, { example }]) => [name, exampleTyped(example)]))
}

function exampleTyped(example: unknown): string {
  if (example === undefined) return ''
  if (typeof example === 'boolean') return example ? 'yes' : 'no'
  return typeof example === 'string' ? example : JSON.stringify(example)
}

/** What may be picked in a field; nothing, where it may be left out; null: it is typed. */
export function choicesToPick({ choices, yesNo, required }: Field): { value: string; label: string }[] | null {
  const all = yesNo ? ['no', 'yes'] : choices
  if (!all) return null
  return [...(required ? [] : [{ value: '', label: 'not said' }]), ...all.map((value) => ({ value, label: value }))]
}

/** The input of a calculation from what stands in its fields; an empty one is left out. */
export function inputOf({ fields }: Calculation, typed: Typed): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(fields).flatMap(([name, field]) => {
      const text = (typed[name] ?? '').trim()
      return text === '' ? [] : [[name, readAs(field, text)]]
    }),
  )
}

function readAs({ choices, yesNo, example }: Field, text: string): unknown {
  if (yesNo) return text === 'yes'
  if (choices || typeof example === 'string') return text
  if (typeof example === 'object') {
    try {
      return JSON.parse(/^[[{]/.test(text) ? text : `[${text}]`) as unknown
    } catch {
      return text
    }
  }
  const value = Number(text.replace(',', '.'))
  return Number.isNaN(value) ? text : value
}
