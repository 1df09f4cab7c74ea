import { CALCULATIONS, type Calculation } from '@treadle/reckon'
import { FieldError } from '@treadle/core'
import { NativeSelect, Textarea, TextInput } from '@mantine/core'
import { useMemo, useState } from 'react'
import { NavLink, useParams } from 'react-router'
import { NoSuchPage } from '../parts/ErrorBoundary.tsx'
import { Picture } from './reckoner/Picture.tsx'
import styles from './Reckoner.module.css'

/** Every calculation, usable without a job: the same functions that the surfaces and the shell command use. */
export function Reckoner() {
  const { name = CALCULATIONS[0]?.name } = useParams()
  const calculation = CALCULATIONS.find((c) => c.name === name)
  if (!calculation) return <NoSuchPage />
  return (
    <div className={styles.columns}>
      <nav aria-label="Calculations" className={styles.list}>
        <h1>Reckoner</h1>
        {CALCULATIONS.map((c) => (
          <NavLink
            key={c.name}
            to={`/reckoner/${c.name}`}
            className={c === calculation ? `${styles.item} ${styles.here}` : styles.item}
          >
            {c.title}
          </NavLink>
        ))}
      </nav>
      <One key={calculation.name} calculation={calculation} />
    </div>
  )
}

function One({ calculation }: { calculation: Calculation }) {
  const [typed, setTyped] = useState<Record<string, string>>(() =>
    Object.fromEntries(
      Object.entries(calculation.fields).map(([name, f]) => [
        name,
        f.example === undefined ? '' : typeof f.example === 'string' ? f.example : JSON.stringify(f.example),
      ]),
    ),
  )
  const answer = useMemo(() => reckon(calculation, typed), [calculation, typed])
  return (
    <section className={styles.one}>
      <div>
        <h2>{calculation.title}</h2>
        <p className="quiet">{calculation.about}</p>
        {Object.entries(calculation.fields).map(([name, field]) => {
          const wrong =
            answer.error !== null &&
            (answer.error.field === name || new RegExp(`^${name}[.[]`).test(answer.error.field))
              ? `${field.label}: ${answer.error.allowed}`
              : undefined
          const shared = {
            label: field.label,
            description: field.note,
            value: typed[name] ?? '',
            error: wrong,
            onChange: (e: { currentTarget: { value: string } }) =>
              setTyped({ ...typed, [name]: e.currentTarget.value }),
          }
          if (field.choices) return <NativeSelect key={name} {...shared} data={field.choices} mt="sm" />
          if (typeof field.example === 'object' && JSON.stringify(field.example).length > 40)
            return <Textarea key={name} {...shared} autosize minRows={4} mt="sm" />
          return (
            <TextInput
              key={name}
              {...shared}
              rightSection={<span className="quiet">{field.unit}</span>}
              rightSectionWidth={field.unit.length > 3 ? 96 : 48}
              mt="sm"
              autoComplete="off"
            />
          )
        })}
      </div>
      <div aria-live="polite">
        <h2>Answer</h2>
        {answer.value && <Picture name={calculation.name} input={inputOf(calculation, typed)} answer={answer.value} />}
        {answer.error ? (
          <p className={styles.wrong}>{answer.error.message}</p>
        ) : (
          <table className={styles.answer}>
            <tbody>
              {Object.entries(calculation.output).map(([name, unit]) =>
                answer.value?.[name] === undefined ? null : (
                  <tr key={name}>
                    <th scope="row">{words(name)}</th>
                    <td>
                      {shown(answer.value[name])}{' '}
                      <span className="quiet">{typeof answer.value[name] === 'string' ? '' : unit}</span>
                    </td>
                  </tr>
                ),
              )}
            </tbody>
          </table>
        )}
        <p className={styles.command}>
          In the shell:{' '}
          <code>
            npm run -s reckon -- {calculation.name} ‘{JSON.stringify(inputOf(calculation, typed))}’
          </code>
        </p>
      </div>
    </section>
  )
}

function inputOf(calculation: Calculation, typed: Record<string, string>): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(calculation.fields).flatMap(([name, field]) => {
      const text = (typed[name] ?? '').trim()
      if (text === '') return []
      if (field.choices || typeof field.example === 'string') return [[name, text]]
      if (typeof field.example === 'object') {
        try {
          const list: unknown = JSON.parse(/^[[{]/.test(text) ? text : `[${text}]`)
          return [[name, list]]
        } catch {
          return [[name, text]]
        }
      }
      const value = Number(text.replace(',', '.'))
      return [[name, Number.isNaN(value) ? text : value]]
    }),
  )
}

function reckon(
  calculation: Calculation,
  typed: Record<string, string>,
): { value: Record<string, unknown> | null; error: FieldError | null } {
  try {
    return { value: calculation.reckon(inputOf(calculation, typed)), error: null }
  } catch (error) {
    if (error instanceof FieldError) return { value: null, error }
    throw error
  }
}

function words(name: string): string {
  return name
    .replace(/(Mm|Nmm|Deg|Ms|S|J|Percent)$/, '')
    .replace(/(\d+)([a-z]+)$/, ' $1 $2')
    .replace(/([A-Z])/g, ' $1')
    .toLowerCase()
    .replace(/^./, (c) => c.toUpperCase())
}

function shown(value: unknown): string {
  if (typeof value === 'number') return String(Number(value.toPrecision(7)))
  if (Array.isArray(value) && value.length > 0 && typeof value[0] === 'object')
    return `${value.slice(0, 8).map(shown).join('; ')}${value.length > 8 ? `; and ${value.length - 8} more` : ''}`
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return value.map(shown).join(typeof value[0] === 'string' ? ' ' : ', ')
  return value === null
    ? 'not told'
    : typeof value === 'string'
      ? value
      : typeof value === 'object'
        ? entries(value)
        : JSON.stringify(value)
}

/** The parts of one entry of a list, in a line: "ratio 12, right yes". */
function entries(value: object): string {
  return Object.values(value)
    .map((v) => (Array.isArray(v) ? v.join('·') : shown(v)))
    .join(', ')
}
