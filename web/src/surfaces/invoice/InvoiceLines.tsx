import { InvoiceLine, type InvoiceRow } from '@treadle/contract'
import { ActionIcon, Button, Checkbox, TextInput } from '@mantine/core'
import { IconTrash } from '@tabler/icons-react'
import { v7 as uuid } from 'uuid'
import { Figure } from '../../parts/Figure.tsx'
import styles from './Invoice.module.css'

/** The lines: done as agreed, left out, or added, with the reason that the owner reads. */
export function InvoiceLines({
  draft,
  onChange,
}: {
  draft: InvoiceRow
  onChange: (part: Partial<InvoiceRow>) => void
}) {
  const set = (id: string, part: Partial<InvoiceLine>) =>
    onChange({ lines: draft.lines.map((l) => (l.id === id ? { ...l, ...part } : l)) })
  const add = () =>
    onChange({
      lines: [
        ...draft.lines,
        { id: uuid(), title: '', quantity: 1, unit: '', unitPrice: '', taxed: true, source: 'added', why: '' },
      ],
    })
  return (
    <>
      <h2>What was done</h2>
      <ul className={styles.lines}>
        {draft.lines.map((line, i) => (
          <li key={line.id} aria-label={`Line ${i + 1}`} role="group">
            {line.source === 'added' ? (
              <TextInput
                aria-label="What"
                className={styles.what}
                value={line.title}
                placeholder="what was added"
                onChange={(e) => set(line.id, { title: e.currentTarget.value })}
              />
            ) : (
              <Checkbox
                className={styles.what}
                size="md"
                label={line.title}
                checked={line.source === 'estimate'}
                onChange={(e) =>
                  set(line.id, e.currentTarget.checked ? { source: 'estimate', why: '' } : { source: 'left' })
                }
              />
            )}
            <Figure
              quiet
              label="Times"
              draftOf={line.id}
              w={64}
              of={[InvoiceLine, 'quantity']}
              value={line.quantity}
              onKeep={(quantity) => set(line.id, { quantity: quantity ?? 0 })}
              atOnce
            />
            <TextInput
              aria-label="Price"
              w={84}
              inputMode="decimal"
              value={line.unitPrice}
              onChange={(e) => set(line.id, { unitPrice: e.currentTarget.value.replace(',', '.') })}
            />
            {line.source === 'added' && (
              <ActionIcon
                variant="subtle"
                size="lg"
                aria-label={`Take out line ${i + 1}`}
                onClick={() => onChange({ lines: draft.lines.filter((l) => l.id !== line.id) })}
              >
                <IconTrash size={20} />
              </ActionIcon>
            )}
            {line.source !== 'estimate' && (
              <TextInput
                className={styles.why}
                label={line.source === 'left' ? 'Why it was left' : 'Why it was added'}
                value={line.why}
                maxLength={200}
                onChange={(e) => set(line.id, { why: e.currentTarget.value })}
              />
            )}
          </li>
        ))}
      </ul>
      <Button variant="default" onClick={add}>
        Something was added
      </Button>
    </>
  )
}
