import type { PriceBook, PriceLine } from '@treadle/contract'
import { Button, Checkbox, NativeSelect } from '@mantine/core'
import { v7 as uuid } from 'uuid'
import { Cell, Headings, NumberCell } from './Cell.tsx'
import styles from './Tables.module.css'

const COUNTS = [
  { value: 'once', label: 'once' },
  { value: 'bush', label: 'each bush' },
  { value: 'train', label: 'each train' },
]

export function PricesTable({ values, onChange }: { values: PriceBook; onChange: (values: PriceBook) => void }) {
  const set = (key: string, part: Partial<PriceLine>) =>
    onChange({ ...values, lines: values.lines.map((l) => (l.key === key ? { ...l, ...part } : l)) })
  const setChoice = (key: string, part: Partial<PriceBook['choices'][number]>) =>
    onChange({ ...values, choices: values.choices.map((c) => (c.key === key ? { ...c, ...part } : c)) })
  return (
    <>
      <table className={styles.table}>
        <Headings of={['What', 'Unit', 'Price', 'Up to', 'Counted for', 'Taxed', '']} />
        <tbody>
          {values.lines.map((line) => (
            <tr key={line.key}>
              <td>
                <Cell
                  label={`What: ${line.title}`}
                  value={line.title}
                  onChange={(title) => set(line.key, { title })}
                  wide
                />
              </td>
              <td>
                <Cell label={`Unit of ${line.title}`} value={line.unit} onChange={(unit) => set(line.key, { unit })} />
              </td>
              <td>
                <Cell
                  label={`Price of ${line.title}`}
                  value={line.unitPrice}
                  onChange={(v) => set(line.key, { unitPrice: v.replace(',', '.') })}
                />
              </td>
              <td>
                <Cell
                  label={`Up to, ${line.title}`}
                  value={line.upToPrice ?? ''}
                  onChange={(v) => set(line.key, { upToPrice: v === '' ? null : v.replace(',', '.') })}
                />
              </td>
              <td>
                <NativeSelect
                  aria-label={`${line.title} is counted for`}
                  size="sm"
                  miw="7.5rem"
                  value={line.counts}
                  data={COUNTS}
                  onChange={(e) => set(line.key, { counts: e.currentTarget.value as PriceLine['counts'] })}
                />
              </td>
              <td>
                <Checkbox
                  aria-label={`${line.title} bears tax`}
                  checked={line.taxed}
                  onChange={(e) => set(line.key, { taxed: e.currentTarget.checked })}
                />
              </td>
              <td>
                <Button
                  variant="subtle"
                  size="compact-md"
                  aria-label={`Take out ${line.title}`}
                  onClick={() => onChange({ ...values, lines: values.lines.filter((l) => l.key !== line.key) })}
                >
                  Take out
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button
        variant="default"
        mt="sm"
        onClick={() =>
          onChange({
            ...values,
            lines: [
              ...values.lines,
              {
                key: uuid(),
                title: 'New line',
                unit: '',
                unitPrice: '0.00',
                upToPrice: null,
                taxed: true,
                counts: 'once',
              },
            ],
          })
        }
      >
        One more price
      </Button>
      <h2 className={styles.next}>Choices laid side by side</h2>
      <table className={styles.table}>
        <Headings of={['Choice', 'Price', 'Years it lasts', 'Remark']} />
        <tbody>
          {values.choices.map((c) => (
            <tr key={c.key}>
              <td>
                <Cell label={`Choice: ${c.title}`} value={c.title} onChange={(title) => setChoice(c.key, { title })} />
              </td>
              <td>
                <Cell
                  label={`Price of the choice ${c.title}`}
                  value={c.price}
                  onChange={(v) => setChoice(c.key, { price: v.replace(',', '.') })}
                />
              </td>
              <td>
                <NumberCell
                  label={`Years of ${c.title}`}
                  value={c.years}
                  onChange={(years) => setChoice(c.key, { years })}
                />
              </td>
              <td>
                <Cell
                  label={`Remark on ${c.title}`}
                  value={c.remark}
                  onChange={(remark) => setChoice(c.key, { remark })}
                  wide
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}
