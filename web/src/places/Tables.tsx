import { WORKSHOP_TABLES, type TableAnswer, type TableName, type TableValues } from '@treadle/contract'
import { Button, Group } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState, type ReactNode } from 'react'
import { NavLink, useParams } from 'react-router'
import { ApiProblem } from '../data/api.ts'
import { sayNotKept, useChange, useTable } from '../data/queries.ts'
import { NoSuchPage } from '../parts/ErrorBoundary.tsx'
import { Loaded } from '../parts/Loading.tsx'
import { meetConflict } from '../parts/conflict.tsx'
import { BathsTable } from './tables/BathsTable.tsx'
import { PricesTable } from './tables/PricesTable.tsx'
import { LaddersTable } from './tables/LaddersTable.tsx'
import { WaysTable } from './tables/WaysTable.tsx'
import { TroubleTableEditor } from './tables/TroubleTableEditor.tsx'
import styles from './tables/Tables.module.css'

const TITLES: Record<TableName, [title: string, says: string]> = {
  prices: ['Prices', 'The estimate begins with these. Amounts are before tax.'],
  baths: ['Baths', 'The workshop’s own recipes. The maker’s safety sheets go first.'],
  ways: [
    'Ways out',
    'What may be done about a worn wheel, pinion or platform: what each costs, how long it lasts, whether it can be undone.',
  ],
  ladders: ['Grit ladders', 'The workshop’s own recipes of a finish, from coarse to fine.'],
  trouble: [
    'Causes of trouble',
    'How often each cause is met, against the others, and how likely each check says yes under it. Rules of thumb: change them to what you see.',
  ],
}
const NAMES = Object.keys(TITLES) as TableName[]

/** The tables that a workshop keeps for itself. */
export function Tables() {
  const { name = 'prices' } = useParams()
  const shown = NAMES.find((n) => n === name)
  if (!shown) return <NoSuchPage />
  return (
    <>
      <nav aria-label="Tables" className={styles.nav}>
        {NAMES.map((n) => (
          <NavLink key={n} to={`/tables/${n}`} className={n === shown ? styles.here : undefined}>
            {TITLES[n][0]}
          </NavLink>
        ))}
      </nav>
      <h1>{TITLES[shown][0]}</h1>
      <p className="quiet">{TITLES[shown][1]}</p>
      {shown === 'prices' && (
        <Table name="prices">{(values, set) => <PricesTable values={values} onChange={set} />}</Table>
      )}
      {shown === 'baths' && (
        <Table name="baths">{(values, set) => <BathsTable values={values} onChange={set} />}</Table>
      )}
      {shown === 'ways' && <Table name="ways">{(values, set) => <WaysTable values={values} onChange={set} />}</Table>}
      {shown === 'ladders' && (
        <Table name="ladders">{(values, set) => <LaddersTable values={values} onChange={set} />}</Table>
      )}
      {shown === 'trouble' && (
        <Table name="trouble">{(values, set) => <TroubleTableEditor values={values} onChange={set} />}</Table>
      )}
    </>
  )
}

function Table<N extends TableName>({
  name,
  children,
}: {
  name: N
  children: (values: TableValues<N>, set: (values: TableValues<N>) => void) => ReactNode
}) {
  return (
    <Loaded query={useTable(name)}>
      {(table) => (
        <Editor key={`${name} ${table.version}`} table={table}>
          {children}
        </Editor>
      )}
    </Loaded>
  )
}

function Editor<N extends TableName>({
  table,
  children,
}: {
  table: TableAnswer<N>
  children: (values: TableValues<N>, set: (values: TableValues<N>) => void) => ReactNode
}) {
  const { name } = table
  const [values, setValues] = useState(table.values)
  const [wrong, setWrong] = useState<string[]>([])
  const change = useChange('table')
  const dirty = JSON.stringify(values) !== JSON.stringify(table.values)
  const save = (version = table.version, kept = values) =>
    change.mutate(
      { method: 'PUT', path: `/tables/${name}`, body: { version, values: kept } },
      {
        onSuccess: () => notifications.show({ message: 'Kept.', autoClose: 2000 }),
        onError: (error) => {
          const met = meetConflict(error, {
            words: { values: { label: TITLES[name][0], say: lengthsOf } },
            base: { values: table.values },
            mine: { values },
            send: (merged, at) => save(at, merged.values as TableValues<N>),
            takeTheirs: () => setValues(table.values),
          })
          if (met) return
          if (error instanceof ApiProblem && error.errors.length > 0) setWrong(error.errors.map((e) => e.message))
          else sayNotKept(error)
        },
      },
    )
  return (
    <div className={styles.editor}>
      {children(values, (next) => {
        setValues(next)
        setWrong([])
      })}
      {wrong.length > 0 && (
        <ul role="alert" className={styles.wrong}>
          {wrong.map((sentence) => (
            <li key={sentence}>{sentence}.</li>
          ))}
        </ul>
      )}
      <Group mt="md">
        <Button onClick={() => save()} disabled={!dirty} loading={change.isPending}>
          Keep the table
        </Button>
        <Button variant="default" onClick={() => setValues(table.values)} disabled={!dirty}>
          As it was
        </Button>
        <Button variant="subtle" onClick={() => setValues(WORKSHOP_TABLES[name].start)}>
          Start from the craft’s own
        </Button>
      </Group>
    </div>
  )
}

/** "12 lines, 3 choices": a table in a word, where two people changed it. */
function lengthsOf(values: unknown): string {
  return Object.entries(values ?? {})
    .flatMap(([key, list]) => (Array.isArray(list) ? [`${list.length} ${key}`] : []))
    .join(', ')
}
