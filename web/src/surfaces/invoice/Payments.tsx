import type { InvoiceRow, Payment } from '@treadle/contract'
import { FieldError, invoiceTotal, unlessRefused } from '@treadle/core'
import { ActionIcon, Button, Group, TextInput } from '@mantine/core'
import { IconTrash } from '@tabler/icons-react'
import { v7 as uuid } from 'uuid'
import { DayField } from '../../parts/DayField.tsx'
import { dayToday } from '../../parts/say.ts'
import styles from './Invoice.module.css'

/** What came in: the deposit, and what was paid since. */
export function Payments({
  draft,
  onChange,
  deposit,
}: {
  draft: InvoiceRow
  onChange: (part: Partial<InvoiceRow>) => void
  deposit: string | null
}) {
  const { payments } = draft
  const set = (id: string, part: Partial<Payment>) =>
    onChange({ payments: payments.map((p) => (p.id === id ? { ...p, ...part } : p)) })
  const add = (amount: string, how: string) =>
    onChange({ payments: [...payments, { id: uuid(), on: dayToday(), amount, how }] })
  const total = unlessRefused(() => invoiceTotal(draft))
  const owed = total instanceof FieldError ? null : total.owed
  return (
    <>
      <h2>Paid</h2>
      <ul className={styles.lines}>
        {payments.map((p, i) => (
          <li key={p.id} aria-label={`Payment ${i + 1}`} role="group">
            <DayField label="On" value={p.on} onChange={(on) => set(p.id, { on })} />
            <TextInput
              label="Amount"
              w={100}
              inputMode="decimal"
              value={p.amount}
              onChange={(e) => set(p.id, { amount: e.currentTarget.value.replace(',', '.') })}
            />
            <TextInput
              label="How"
              className={styles.what}
              value={p.how}
              maxLength={60}
              onChange={(e) => set(p.id, { how: e.currentTarget.value })}
            />
            <ActionIcon
              variant="subtle"
              size="lg"
              aria-label={`Take out payment ${i + 1}`}
              onClick={() => onChange({ payments: payments.filter((one) => one.id !== p.id) })}
            >
              <IconTrash size={20} />
            </ActionIcon>
          </li>
        ))}
      </ul>
      <Group>
        {deposit !== null && !payments.some((p) => p.how === 'deposit') && (
          <Button variant="default" onClick={() => add(deposit, 'deposit')}>
            The deposit of {deposit} was paid
          </Button>
        )}
        {owed !== null && Number(owed) > 0 && (
          <Button variant="default" onClick={() => add(owed, '')}>
            {owed} was paid
          </Button>
        )}
        <Button variant="subtle" onClick={() => add('', '')}>
          Another amount
        </Button>
      </Group>
    </>
  )
}
