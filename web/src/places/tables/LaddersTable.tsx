import type { Ladders } from '@treadle/contract'
import { Button } from '@mantine/core'
import { v7 as uuid } from 'uuid'
import { Cell, Headings } from './Cell.tsx'
import styles from './Tables.module.css'

/** The workshop's own ladders of grits. */
export function LaddersTable({ values, onChange }: { values: Ladders; onChange: (values: Ladders) => void }) {
  const set = (key: string, part: Partial<Ladders['ladders'][number]>) =>
    onChange({ ladders: values.ladders.map((l) => (l.key === key ? { ...l, ...part } : l)) })
  return (
    <>
      <table className={styles.table}>
        <Headings of={['Recipe', 'Steps', 'Remark', '']} />
        <tbody>
          {values.ladders.map((l) => (
            <tr key={l.key}>
              <td>
                <Cell label={`Recipe: ${l.title}`} value={l.title} onChange={(title) => set(l.key, { title })} wide />
              </td>
              <td>
                <Cell label={`Steps of ${l.title}`} value={l.steps} onChange={(steps) => set(l.key, { steps })} wide />
              </td>
              <td>
                <Cell
                  label={`Remark on ${l.title}`}
                  value={l.remark}
                  onChange={(remark) => set(l.key, { remark })}
                  wide
                />
              </td>
              <td>
                <Button
                  variant="subtle"
                  size="compact-md"
                  aria-label={`Take out ${l.title}`}
                  onClick={() => onChange({ ladders: values.ladders.filter((o) => o.key !== l.key) })}
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
            ladders: [...values.ladders, { key: uuid(), title: 'New recipe', steps: '600 → 1000', remark: '' }],
          })
        }
      >
        One more recipe
      </Button>
    </>
  )
}
