import { TextInput } from '@mantine/core'
import {
  columnFilteringFeature,
  createFilteredRowModel,
  createSortedRowModel,
  filterFn_includesString,
  globalFilteringFeature,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  sortFn_text,
  tableFeatures,
  useTable,
  type ColumnDef,
  type RowData,
} from '@tanstack/react-table'
import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { useRef, type ReactNode } from 'react'
import { useTopOf } from './useTopOf.ts'
import styles from './Columns.module.css'

export interface Column<R> {
  key: string
  /** none: a column that is not sorted by, such as a mark or a button */
  title?: string
  /** what it is sorted and found by */
  value?: (row: R) => string | number | null
  show: (row: R) => ReactNode
}

/** From so many rows on, one can find among them, and only those in sight are drawn. */
const MANY = 60
const ROW_PX = 45

const FEATURES = tableFeatures({
  rowSortingFeature,
  columnFilteringFeature,
  globalFilteringFeature,
  sortedRowModel: createSortedRowModel(),
  filteredRowModel: createFilteredRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric, text: sortFn_text, basic: sortFn_basic },
  filterFns: { includesString: filterFn_includesString },
})

/** A list that people sort by its headings, find in, and scroll through, however long it is. */
export function Columns<R extends RowData>({
  label,
  rows,
  columns,
  keyOf,
}: {
  label: string
  rows: R[]
  columns: Column<R>[]
  keyOf: (row: R) => string
}) {
  const table = useTable({
    features: FEATURES,
    data: rows,
    columns: columns.map(({ key, title, value }): ColumnDef<typeof FEATURES, R> => ({
      id: key,
      header: title ?? '',
      accessorFn: (row) => value?.(row) ?? undefined,
      enableSorting: title !== undefined && value !== undefined,
      enableGlobalFilter: value !== undefined,
      sortUndefined: 'last',
    })),
    globalFilterFn: 'includesString',
    getRowId: keyOf,
  })
  const list = table.getRowModel().rows
  const many = rows.length > MANY
  const frame = useRef<HTMLTableElement>(null)
  const top = useTopOf(frame)
  const scroll = useWindowVirtualizer({
    count: list.length,
    estimateSize: () => ROW_PX,
    overscan: 12,
    scrollMargin: top,
    enabled: many,
  })
  const drawn = scroll.getVirtualItems()
  const seen = many ? drawn.flatMap(({ index }) => list[index] ?? []) : list
  const above = many ? (drawn[0]?.start ?? top) - top : 0
  const below = many ? scroll.getTotalSize() - ((drawn.at(-1)?.end ?? top) - top) : 0
  return (
    <>
      {many && (
        <TextInput
          label={`Find in ${label.toLowerCase()}`}
          value={String(table.state.globalFilter ?? '')}
          onChange={(e) => table.setGlobalFilter(e.currentTarget.value)}
          maw={320}
          mb="sm"
        />
      )}
      <table ref={frame} className={styles.table} aria-label={label} aria-rowcount={list.length + 1}>
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id}>
              {group.headers.map((head) => {
                const sorted = head.column.getIsSorted()
                if (!head.column.getCanSort())
                  return (
                    <td key={head.id}>
                      <table.FlexRender header={head} />
                    </td>
                  )
                return (
                  <th
                    key={head.id}
                    scope="col"
                    aria-sort={sorted === false ? 'none' : sorted === 'asc' ? 'ascending' : 'descending'}
                  >
                    <button type="button" className={styles.sort} onClick={head.column.getToggleSortingHandler()}>
                      <table.FlexRender header={head} />
                      <span aria-hidden="true">{sorted === false ? '' : sorted === 'asc' ? ' ↑' : ' ↓'}</span>
                    </button>
                  </th>
                )
              })}
            </tr>
          ))}
        </thead>
        <tbody>
          {above > 0 && <tr aria-hidden="true" style={{ height: above }} />}
          {seen.map((row) => (
            <tr key={row.id} aria-rowindex={many ? row.index + 2 : undefined}>
              {columns.map(({ key, show }) => (
                <td key={key}>{show(row.original)}</td>
              ))}
            </tr>
          ))}
          {below > 0 && <tr aria-hidden="true" style={{ height: below }} />}
        </tbody>
      </table>
      {list.length === 0 && rows.length > 0 && <p className="quiet">None under those words.</p>}
    </>
  )
}
