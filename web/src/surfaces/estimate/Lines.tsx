import { EstimateLineSchema, type EstimateRow } from '@treadle/contract'
import { ActionIcon, Button, Checkbox, Group, NativeSelect, Textarea, TextInput } from '@mantine/core'
import { IconTrash } from '@tabler/icons-react'
import { v7 as uuid } from 'uuid'
import { useSettings, useTable } from '../../data/queries.ts'
import { useMovement } from '../../job/useMovement.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Figure } from '../../parts/Figure.tsx'
import styles from './Estimate.module.css'
import { lineOf, linesFromJob, merged, type Line } from '../../job/estimateFromJob.ts'

const KINDS = [
  { value: 'fixed', label: 'fixed' },
  { value: 'range', label: 'from … to' },
  { value: 'if-needed', label: 'if needed' },
]

/** The lines: from the price book, from what was found, or written by hand. */
export function Lines({ draft, setDraft }: { draft: EstimateRow; setDraft: (part: Partial<EstimateRow>) => void }) {
  const data = useJobData()
  const { data: settings } = useSettings()
  const movement = useMovement()
  const { data: prices } = useTable('prices')
  const { data: ways } = useTable('ways')
  const set = (id: string, part: Partial<Line>) =>
    setDraft({ lines: draft.lines.map((l) => (l.id === id ? { ...l, ...part } : l)) })
  const add = (line: Line) => setDraft({ lines: [...draft.lines, line] })
  const blank: Line = {
    id: uuid(),
    title: '',
    kind: 'fixed',
    quantity: 1,
    unit: '',
    unitPrice: '',
    upToPrice: null,
    taxed: true,
    order: false,
  }
  return (
    <>
      <h2>Lines</h2>
      <div className={styles.lines}>
        {['What', 'How sure', 'Times', 'Price', 'Up to', 'Order', ''].map((head) => (
          <span key={head} className="quiet" aria-hidden="true">
            {head}
          </span>
        ))}
        {draft.lines.map((line, i) => (
          <div key={line.id} className={styles.line} role="group" aria-label={`Line ${i + 1}`}>
            <TextInput
              aria-label="What"
              size="sm"
              value={line.title}
              onChange={(e) => set(line.id, { title: e.currentTarget.value })}
            />
            <NativeSelect
              aria-label="How sure"
              size="sm"
              value={line.kind}
              data={KINDS}
              onChange={(e) => {
                const kind = e.currentTarget.value as Line['kind']
                set(line.id, { kind, upToPrice: kind === 'range' ? (line.upToPrice ?? line.unitPrice) : null })
              }}
            />
            <Figure
              quiet
              label="Times"
              draftOf={line.id}
              size="sm"
              of={[EstimateLineSchema, 'quantity']}
              value={line.quantity}
              onKeep={(quantity) => set(line.id, { quantity: quantity ?? 0 })}
              atOnce
            />
            <TextInput
              aria-label="Price"
              size="sm"
              inputMode="decimal"
              value={line.unitPrice}
              onChange={(e) => set(line.id, { unitPrice: e.currentTarget.value.replace(',', '.') })}
            />
            <TextInput
              aria-label="Up to"
              size="sm"
              inputMode="decimal"
              disabled={line.kind !== 'range'}
              value={line.upToPrice ?? ''}
              onChange={(e) => set(line.id, { upToPrice: e.currentTarget.value.replace(',', '.') })}
            />
            <Checkbox
              aria-label="It has to be ordered"
              checked={line.order}
              onChange={(e) => set(line.id, { order: e.currentTarget.checked })}
            />
            <ActionIcon
              variant="subtle"
              size="lg"
              aria-label={`Take out line ${i + 1}`}
              onClick={() => setDraft({ lines: draft.lines.filter((l) => l.id !== line.id) })}
            >
              <IconTrash size={20} />
            </ActionIcon>
          </div>
        ))}
      </div>
      <Group mt="sm" align="end">
        <NativeSelect
          label="From the price book"
          value=""
          onChange={(e) => {
            const price = prices?.values.lines.find((p) => p.key === e.currentTarget.value)
            if (price) add(lineOf(price, price.counts === 'train' ? data.clock.trains.length : 1))
          }}
          data={[
            { value: '', label: 'choose…' },
            ...(prices?.values.lines ?? []).map((p) => ({ value: p.key, label: `${p.title}, ${p.unitPrice}` })),
          ]}
        />
        <Button variant="default" onClick={() => add(blank)}>
          A line by hand
        </Button>
        <Button
          variant="default"
          onClick={() => {
            if (!prices || !ways || !settings || !movement) return
            const table = ways.values.ways
            const found = linesFromJob(prices.values, data, settings, movement, table)
            setDraft({ lines: merged(draft.lines, found, table) })
          }}
        >
          Bring it up to what was found
        </Button>
      </Group>
      <Textarea
        label="Words to the owner"
        autosize
        minRows={2}
        mt="sm"
        value={draft.note}
        onChange={(e) => setDraft({ note: e.currentTarget.value })}
      />
    </>
  )
}
