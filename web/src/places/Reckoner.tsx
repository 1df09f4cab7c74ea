import { CALCULATIONS, type Calculation } from '@treadle/reckon'
import { FieldError } from '@treadle/core'
import { NativeSelect, Textarea, TextInput } from '@mantine/core'
import { useMediaQuery } from '@mantine/hooks'
import { lazy, Suspense, useMemo, useState } from 'react'
import { Link, NavLink, useParams } from 'react-router'
import { CopyIt } from '../parts/CopyIt.tsx'
import { NoSuchPage } from '../parts/ErrorBoundary.tsx'
import { spoken } from '../parts/say.ts'
import { Picture } from './reckoner/Picture.tsx'
import { choicesToPick, examplesTyped, inputOf } from './reckoner/typed.ts'
import styles from './Reckoner.module.css'

const LaboratoryHere = lazy(async () => ({
  default: (await import('./reckoner/LaboratoryHere.tsx')).LaboratoryHere,
}))
/** Its place in the address, beside the names of the calculations. */
const LABORATORY = 'laboratory'

/** Every calculation, usable without a job: the same functions that the surfaces and the shell command use. */
export function Reckoner() {
  const { name: chosen } = useParams()
  const narrow = useMediaQuery('(max-width: 62em)', undefined, { getInitialValueInEffect: false })
  const name = chosen ?? CALCULATIONS[0]?.name
  const [words, setWords] = useState('')
  const calculation = CALCULATIONS.find((c) => c.name === name)
  if (!calculation && name !== LABORATORY) return <NoSuchPage />
  const laboratory = saysAll('pendulum laboratory parts compensation', words)
  const found = CALCULATIONS.filter((c) => saysAll(`${c.name} ${c.title} ${c.about}`, words))
  const list = (
    <nav aria-label="Calculations" className={styles.list}>
      <h1>Reckoner</h1>
      <TextInput
        aria-label="Find a calculation"
        placeholder="beat, bush, spring…"
        value={words}
        onChange={(e) => setWords(e.currentTarget.value)}
        mb="xs"
      />
      {!laboratory && found.length === 0 && <p role="status">No calculation is found by these words.</p>}
      {laboratory && (
        <NavLink
          to={`/reckoner/${LABORATORY}`}
          className={calculation || narrow ? styles.item : `${styles.item} ${styles.here}`}
        >
          Pendulum laboratory
        </NavLink>
      )}
      {GROUPS.map((title) => {
        const these = found.filter((c) => titleOf(c) === title)
        if (these.length === 0) return null
        return (
          <div key={title} role="group" aria-label={title}>
            <h2 className={styles.noun}>{title}</h2>
            {these.map((c) => (
              <NavLink
                key={c.name}
                to={`/reckoner/${c.name}`}
                className={c === calculation && !narrow ? `${styles.item} ${styles.here}` : styles.item}
              >
                {c.title}
              </NavLink>
            ))}
          </div>
        )
      })}
    </nav>
  )
  const one = calculation ? (
    <One key={calculation.name} calculation={calculation} />
  ) : (
    <Suspense>
      <LaboratoryHere />
    </Suspense>
  )
  // Where there is no room for both, the list leads to the calculation, and that leads back.
  if (narrow)
    return chosen === undefined ? (
      list
    ) : (
      <>
        <Link to="/reckoner" className={styles.back}>
          All calculations
        </Link>
        {one}
      </>
    )
  return (
    <div className={styles.columns}>
      {list}
      {one}
    </div>
  )
}

/** The craft's nouns, in the order of the work. */
const NOUNS: Record<string, string> = {
  pendulum: 'Pendulum',
  gravity: 'Pendulum',
  beat: 'Beat',
  arc: 'Beat',
  rate: 'Rate',
  train: 'Trains',
  depth: 'Trains',
  plate: 'Plates',
  wear: 'Holes',
  hole: 'Holes',
  bushing: 'Bushes',
  pivot: 'Pivots',
  spring: 'Power',
  weight: 'Power',
  drive: 'Power',
  bath: 'Cleaning',
  trouble: 'Trouble',
  estimate: 'Estimate',
}
/** The heading that a calculation stands under. */
function titleOf({ name }: Calculation): string {
  const noun = name.split('.')[0] ?? ''
  return NOUNS[noun] ?? noun.replace(/^./, (c) => c.toUpperCase())
}
const GROUPS = [...new Set(CALCULATIONS.map(titleOf))]

/** Whether a text has each of the words, in any order. */
function saysAll(text: string, words: string): boolean {
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.toLowerCase().includes(word))
}

/** A longer unit stands above its field, not in it. */
const LONG_UNIT = 12

function One({ calculation }: { calculation: Calculation }) {
  const [typed, setTyped] = useState(() => examplesTyped(calculation))
  const answer = useMemo(() => reckon(calculation, typed), [calculation, typed])
  const command = shellLine(calculation, typed)
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
          const long = field.unit.length > LONG_UNIT
          const shared = {
            label: field.label,
            description: [long ? field.unit : '', field.note].filter(Boolean).join('; '),
            value: typed[name] ?? '',
            error: wrong,
            onChange: (e: { currentTarget: { value: string } }) =>
              setTyped({ ...typed, [name]: e.currentTarget.value }),
          }
          const choices = choicesToPick(field)
          if (choices) return <NativeSelect key={name} {...shared} data={choices} mt="sm" />
          if (typeof field.example === 'object' && JSON.stringify(field.example).length > 40)
            return <Textarea key={name} {...shared} autosize minRows={4} mt="sm" />
          return (
            <TextInput
              key={name}
              {...shared}
              rightSection={long ? null : <span className="quiet">{field.unit}</span>}
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
                      {shown(answer.value[name], name)}{' '}
                      <span className="quiet">{typeof answer.value[name] === 'string' ? '' : unit}</span>
                    </td>
                  </tr>
                ),
              )}
            </tbody>
          </table>
        )}
        <div className={styles.command}>
          In the shell: <code>{command}</code>
          <CopyIt value={command} variant="subtle" size="compact-sm" />
        </div>
      </div>
    </section>
  )
}

/** The same calculation as a line for the shell: in straight quotes, and with those inside it kept. */
function shellLine(calculation: Calculation, typed: Record<string, string>): string {
  const json = JSON.stringify(inputOf(calculation, typed)).replaceAll("'", `'"'"'`)
  return `npm run -s reckon -- ${calculation.name} '${json}'`
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
    .replace(/(?<!Per)(Mm|Nmm|Deg|Ms|S|G|MicroJ|J|Percent|Days|Minutes)$/, '')
    .replace(/^cg$/, 'centreOfGravity')
    .replace(/^microJ(?=Per)/, 'work')
    .replace(/PerMm$/, 'PerMillimetre')
    .replace(/PerC$/, 'PerDegree')
    .replace(/PerHpa$/, 'PerHectopascal')
    .replace(/^perHpa(?=[A-Z])/, 'perHectopascal')
    .replace(/^perC(?=[A-Z])/, 'perDegree')
    .replace(/(\d+)([a-z]+)$/, ' $1 $2')
    .replace(/([A-Z])/g, ' $1')
    .toLowerCase()
    .replace(/^./, (c) => c.toUpperCase())
}

/** How many places after the point mean something, by what the figure is of; others get four digits. */
const PLACES: [RegExp, number][] = [
  [/turns/i, 2],
  [/deg$/i, 2],
  [/percent/i, 1],
  [/nmm$/i, 0],
  [/energyJ|J$/, 1],
  [/mm$/i, 2],
  [/ms$/i, 2],
  [/perDay|rate|standardError/i, 2],
]

function figureShown(value: number, name: string): string {
  if (Number.isInteger(value)) return String(value)
  const places = PLACES.find(([pattern]) => pattern.test(name))?.[1]
  // What would round away to nought keeps the digits that it has.
  if (places === undefined || Math.abs(value) < 10 ** -places) return String(Number(value.toPrecision(4)))
  return value.toFixed(places)
}

function shown(value: unknown, name = ''): string {
  if (typeof value === 'number') return figureShown(value, name)
  if (Array.isArray(value) && value.length > 0 && typeof value[0] === 'object')
    return `${value
      .slice(0, 8)
      .map((v) => shown(v))
      .join('; ')}${value.length > 8 ? `; and ${value.length - 8} more` : ''}`
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return value.map((v) => shown(v, name)).join(typeof value[0] === 'string' ? ' ' : ', ')
  return value === null
    ? 'not told'
    : typeof value === 'string'
      ? spoken(value)
      : typeof value === 'object'
        ? entries(value)
        : JSON.stringify(value)
}

/** The parts of one entry of a list, in a line: "ratio 12, right yes". */
function entries(value: object): string {
  return Object.entries(value)
    .map(([key, v]) => (Array.isArray(v) ? v.join('·') : shown(v, key)))
    .join(', ')
}
