import type { TableValues } from '@treadle/contract'
import { Checkbox } from '@mantine/core'
import { Cell, Headings, NumberCell } from './Cell.tsx'
import styles from './Tables.module.css'

type Values = TableValues<'ways'>

/** The workshop's figures for each way out; the ways themselves are the craft's. */
export function WaysTable({ values, onChange }: { values: Values; onChange: (values: Values) => void }) {
  const set = (key: string, part: Partial<Values['ways'][number]>) =>
    onChange({ ways: values.ways.map((w) => (w.key === key ? { ...w, ...part } : w)) })
  return (
    <table className={styles.table}>
      <Headings of={['Way', 'Price', 'Years it lasts', 'Can be undone', 'Remark']} />
      <tbody>
        {values.ways.map((w) => (
          <tr key={w.key}>
            <td>
              <Cell label={`Way: ${w.title}`} value={w.title} onChange={(title) => set(w.key, { title })} wide />
            </td>
            <td>
              <Cell
                label={`Price: ${w.title}`}
                value={w.price}
                onChange={(price) => set(w.key, { price: price.replace(',', '.') })}
              />
            </td>
            <td>
              <NumberCell
                label={`Years, ${w.title}`}
                value={w.years}
                onChange={(years) => set(w.key, { years: years ?? 0 })}
              />
            </td>
            <td>
              <Checkbox
                aria-label={`${w.title} can be undone`}
                checked={w.undone}
                onChange={(e) => set(w.key, { undone: e.currentTarget.checked })}
              />
            </td>
            <td>
              <Cell
                label={`Remark on ${w.title}`}
                value={w.remark}
                onChange={(remark) => set(w.key, { remark })}
                wide
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
