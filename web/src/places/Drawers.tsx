import { STOCK_KINDS, STOCK_TITLES, type StockKind, type StockRow } from '@treadle/contract'
import { Button, Group } from '@mantine/core'
import { useState } from 'react'
import { Link, NavLink, useParams } from 'react-router'
import { usePromises, useStock } from '../data/queries.ts'
import { Columns, type Column } from '../parts/Columns.tsx'
import { NoSuchPage } from '../parts/ErrorBoundary.tsx'
import { Loaded } from '../parts/Loading.tsx'
import { Mark } from '../parts/Mark.tsx'
import { ChangeRow } from './drawers/ChangeRow.tsx'
import { Donors } from './drawers/Donors.tsx'
import { Oils } from './drawers/Oils.tsx'
import { StockForm } from './drawers/StockForm.tsx'
import { StockList } from './drawers/StockList.tsx'
import { Tools } from './drawers/Tools.tsx'
import styles from './Drawers.module.css'

const PATHS: Record<StockKind, string> = {
  bush: 'bushes',
  cutter: 'cutters',
  reamer: 'reamers',
  rod: 'rod',
  'pivot steel': 'pivot-steel',
  'trundle wire': 'trundle-wire',
  mainspring: 'mainsprings',
  'suspension spring': 'suspension-springs',
}

/** What is no drawer of stock. */
const OTHERS = [
  { path: 'donors', title: 'Donors' },
  { path: 'files', title: 'Files and abrasives' },
  { path: 'oils', title: 'Oils' },
  { path: 'order', title: 'To order' },
  { path: 'lists', title: 'Lists in and out' },
] as const

/** What the shop has to work with, drawer by drawer; what runs low; lists in and out. */
export function Drawers() {
  const { kind = PATHS.bush } = useParams()
  const stock = useStock()
  const shown = OTHERS.find((o) => o.path === kind)?.path ?? STOCK_KINDS.find((k) => PATHS[k] === kind)
  if (!shown) return <NoSuchPage />
  return (
    <>
      <h1>Drawers</h1>
      <nav aria-label="Drawers" className={styles.nav}>
        {STOCK_KINDS.map((k) => (
          <NavLink key={k} to={`/drawers/${PATHS[k]}`} className={k === shown ? styles.here : undefined}>
            {STOCK_TITLES[k]}
          </NavLink>
        ))}
        {OTHERS.map(({ path, title }) => (
          <NavLink key={path} to={`/drawers/${path}`} className={shown === path ? styles.here : undefined}>
            {title}
          </NavLink>
        ))}
      </nav>
      <Loaded query={stock}>
        {(rows) =>
          shown === 'lists' ? (
            <StockList />
          ) : shown === 'donors' ? (
            <Donors />
          ) : shown === 'files' ? (
            <Tools />
          ) : shown === 'oils' ? (
            <Oils />
          ) : shown === 'order' ? (
            <ToOrder stock={rows} />
          ) : (
            <div className={styles.beside}>
              <div>
                <OneDrawer key={shown} kind={shown} stock={rows.filter((s) => s.kind === shown)} />
              </div>
              <Promised stock={rows.filter((s) => s.kind === shown)} />
            </div>
          )
        }
      </Loaded>
    </>
  )
}

/** What of a drawer is promised, and to whom. */
function Promised({ stock }: { stock: StockRow[] }) {
  const { data } = usePromises()
  const here = (data ?? []).filter((p) => stock.some((s) => s.id === p.stockId))
  return (
    <aside aria-label="Promised">
      <h2>Promised</h2>
      {here.length === 0 && <p className="quiet">Nothing of this drawer is promised to a clock.</p>}
      <ul className={styles.promises}>
        {here.map((p) => {
          const row = stock.find((s) => s.id === p.stockId)
          return (
            <li key={p.id}>
              <b>
                {p.count} of {(row?.outsideMm ?? row?.measuredMm)?.toFixed(2) ?? '?'}
                {row?.insideMm == null ? '' : ` × ${row.insideMm.toFixed(2)}`} mm
              </b>{' '}
              to{' '}
              <Link to={`/jobs/${p.jobId}/bushings`}>
                {p.number}, {p.clock}
              </Link>
              {p.arbor !== null && `: ${p.arbor.toLowerCase()}, ${p.plate} plate`}
            </li>
          )
        })}
      </ul>
    </aside>
  )
}

const SAYS: Record<StockKind, string> = {
  bush: 'Outside × inside × length. A plan takes the one that needs least broaching and promises none twice.',
  cutter:
    'By their measured size, not by what is stamped on them. The plan takes the smallest that cleans up the hole.',
  reamer: 'By their measured size.',
  rod: 'To turn bushes from.',
  'pivot steel': 'For new pivots.',
  'trundle wire': 'For lantern pinions.',
  mainspring: 'Width × thickness × length. A spring’s sheet chooses the one that is as strong as the old.',
  'suspension spring': 'Width × thickness × free length. Replaced by the same thickness and length.',
}

function OneDrawer({ kind, stock }: { kind: StockKind; stock: StockRow[] }) {
  const [editing, setEditing] = useState<string | null>(null)
  const tool = kind === 'cutter' || kind === 'reamer'
  return (
    <>
      <p className="quiet">{SAYS[kind]}</p>
      {stock.length === 0 && <p>Nothing is in this drawer yet: put something in, or take in a list.</p>}
      {stock.length > 0 && (
        <Columns label={STOCK_TITLES[kind]} rows={stock} columns={columnsOf(kind, setEditing)} keyOf={(s) => s.id} />
      )}
      {editing !== null ? (
        <StockForm
          key={editing}
          kind={kind}
          row={stock.find((s) => s.id === editing)}
          onDone={() => setEditing(null)}
        />
      ) : (
        <Button mt="md" onClick={() => setEditing('new')}>
          Put in{' '}
          {tool
            ? `a ${kind}`
            : kind === 'bush'
              ? 'bushes'
              : kind === 'mainspring' || kind === 'suspension spring'
                ? `a ${kind}`
                : kind}
        </Button>
      )}
    </>
  )
}

function columnsOf(kind: StockKind, onEdit: (id: string) => void): Column<StockRow>[] {
  const tool = kind === 'cutter' || kind === 'reamer'
  const spring = kind === 'mainspring' || kind === 'suspension spring'
  const mm = (
    title: string,
    key: 'measuredMm' | 'outsideMm' | 'insideMm' | 'lengthMm' | 'widthMm' | 'thickMm',
    main = false,
  ) => ({
    key,
    title,
    value: (row: StockRow) => row[key],
    show: (row: StockRow) => {
      const words = row[key]?.toFixed(2) ?? '–'
      return main ? <b>{words}</b> : words
    },
  })
  const named = (row: StockRow) => [row.material, row.name].filter((w) => w !== '').join(', ')
  return [
    { key: 'mark', show: (row) => <Standing row={row} /> },
    { key: 'section', show: (row) => <Section row={row} /> },
    ...(tool
      ? [mm('Measured, mm', 'measuredMm', true)]
      : spring
        ? [mm('Width, mm', 'widthMm', true), mm('Thick, mm', 'thickMm', true), mm('Length, mm', 'lengthMm')]
        : [
            mm('Outside, mm', 'outsideMm', true),
            ...(kind === 'bush' ? [mm('Inside, mm', 'insideMm')] : []),
            mm('Length, mm', 'lengthMm'),
          ]),
    { key: 'named', title: 'Material, name', value: named, show: named },
    { key: 'count', title: 'There', value: (row) => row.count, show: (row) => row.count },
    {
      key: 'reserved',
      title: 'Promised',
      value: (row) => row.reserved,
      show: (row) => (row.reserved === 0 ? '' : row.reserved),
    },
    { key: 'drawer', title: 'Drawer', value: (row) => row.drawer, show: (row) => row.drawer },
    { key: 'change', show: (row) => <ChangeButton row={row} onEdit={() => onEdit(row.id)} /> },
  ]
}

function Standing({ row }: { row: StockRow }) {
  const low = isLow(row)
  return (
    <Mark
      state={low ? 'watch' : row.count > 0 ? 'sound' : 'none'}
      label={low ? 'low' : row.count > 0 ? 'there' : 'none'}
    />
  )
}

function ChangeButton({ row, onEdit }: { row: StockRow; onEdit: () => void }) {
  const size = (row.measuredMm ?? row.outsideMm ?? row.widthMm)?.toFixed(2) ?? 'no'
  const bore = row.insideMm === null ? '' : ` by ${row.insideMm.toFixed(2)}`
  return <ChangeRow what={`the ${row.kind} of ${size} mm${bore}`} onEdit={onEdit} />
}

/** The thing end on, all at one scale: a bush with its bore, a tool by what it cuts. */
function Section({ row }: { row: StockRow }) {
  const across = row.measuredMm ?? row.outsideMm ?? row.widthMm ?? 0
  const px = Math.min(44, Math.max(4, across * 8))
  const bore = row.insideMm === null || across === 0 ? 0 : (px * row.insideMm) / across
  const tool = row.kind === 'cutter' || row.kind === 'reamer'
  return (
    <svg viewBox="-24 -24 48 48" width="36" height="36" style={{ display: 'block' }} aria-hidden="true">
      <circle
        r={px / 2}
        fill={tool ? 'none' : row.kind === 'bush' || row.kind === 'rod' ? 'var(--brass-line)' : 'var(--steel-metal)'}
        stroke={tool ? 'var(--ink)' : 'var(--brass)'}
        strokeWidth="1.5"
        strokeDasharray={row.kind === 'cutter' ? '4 2.5' : undefined}
      />
      {bore > 0 && <circle r={bore / 2} fill="var(--ground)" stroke="var(--brass)" />}
    </svg>
  )
}

/** Low: what is left once the promised ones are gone is at the mark or under it. */
function isLow(row: StockRow): boolean {
  return row.lowAt > 0 && row.count - row.reserved <= row.lowAt
}

function ToOrder({ stock }: { stock: StockRow[] }) {
  const low = stock.filter(isLow)
  return (
    <>
      <p className="quiet">What is left, once the promised ones are taken, is at its mark or under it.</p>
      {low.length === 0 && <p>Nothing runs low.</p>}
      {STOCK_KINDS.filter((k) => low.some((s) => s.kind === k)).map((k) => (
        <section key={k}>
          <h2>{STOCK_TITLES[k]}</h2>
          <ul>
            {low
              .filter((s) => s.kind === k)
              .map((s) => (
                <li key={s.id}>
                  {(s.widthMm === null
                    ? [s.measuredMm ?? s.outsideMm, s.insideMm, s.lengthMm]
                    : [s.widthMm, s.thickMm, s.lengthMm]
                  )
                    .flatMap((mm) => (mm === null ? [] : [mm.toFixed(2)]))
                    .join(' × ')}{' '}
                  mm{s.material === '' ? '' : `, ${s.material}`}: {s.count - s.reserved} left, low at {s.lowAt}
                </li>
              ))}
          </ul>
        </section>
      ))}
      {low.length > 0 && (
        <Group>
          <Button variant="default" onClick={() => window.print()}>
            Print the order
          </Button>
        </Group>
      )}
    </>
  )
}
