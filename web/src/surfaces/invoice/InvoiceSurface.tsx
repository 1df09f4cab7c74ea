import { Invoice, type EstimateRow, type InvoiceRow } from '@treadle/contract'
import { estimateSpan, FieldError, invoiceTotal, shareOf, unlessRefused } from '@treadle/core'
import { Button, Group, Textarea } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { DayField } from '../../parts/DayField.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { dayToday } from '../../parts/say.ts'
import { useDraft } from '../../parts/useDraft.ts'
import { usePaper } from '../../parts/usePaper.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { agreedOf, newInvoice } from './fromEstimate.ts'
import { InvoiceLines } from './InvoiceLines.tsx'
import { InvoiceSheet } from './InvoiceSheet.tsx'
import { Payments } from './Payments.tsx'
import paper from '../../parts/paper.module.css'
import styles from './Invoice.module.css'

/** What the job comes to: what was agreed, what was added or left, what is paid. */
export function InvoiceSurface() {
  const { estimates, invoices } = useJobData()
  const { data: settings } = useSettings()
  const rows = useRows<InvoiceRow>('invoices')
  usePaper('A4', '16mm')
  const agreed = agreedOf(estimates)
  const invoice = invoices[0]
  const begin = () => {
    if (settings) rows.put(newInvoice(agreed, settings, dayToday()))
  }
  usePedalAction(invoice ? null : { label: 'Press to write the invoice', press: begin })
  if (!settings) return null
  if (!invoice)
    return (
      <>
        <h2>No invoice yet</h2>
        <p className={parts.say}>
          {agreed ? (
            'It begins with the estimate that the owner accepted; then say what was added or left.'
          ) : (
            <>
              No <Link to="../estimate">estimate</Link> was accepted, so it begins empty.
            </>
          )}
        </p>
        <Button size="lg" mt="sm" onClick={begin}>
          Write the invoice
        </Button>
      </>
    )
  return (
    <One
      key={invoice.id}
      invoice={invoice}
      agreed={agreed}
      keep={rows.keep}
      onDiscard={() => rows.remove(invoice.id)}
    />
  )
}

function One({
  invoice,
  agreed,
  keep,
  onDiscard,
}: {
  invoice: InvoiceRow
  agreed: EstimateRow | undefined
  keep: (row: InvoiceRow, base: object, forget: () => void) => void
  onDiscard: () => void
}) {
  const { row: draft, base, set, dirty, forget } = useDraft(invoice, `invoice ${invoice.id}`)
  const [wrong, setWrong] = useState<string | null>(null)
  const save = () => {
    const { jobId: _j, who: _w, whoId: _i, at: _a, ...body } = draft
    Invoice.validate(body, { strict: true }).then(
      () => {
        setWrong(null)
        keep(draft, base, forget)
      },
      (error: Error) => setWrong(error.message),
    )
  }
  usePedalAction(
    dirty
      ? { label: 'Press to keep the invoice', press: save }
      : { label: 'Press to print it', press: () => window.print() },
  )
  return (
    <div className={styles.columns}>
      <section className={paper.typed}>
        <Above draft={draft} agreed={agreed} />
        <InvoiceLines draft={draft} onChange={set} />
        <Payments draft={draft} onChange={set} deposit={depositOf(agreed)} />
        <Group mt="md" align="end">
          <DayField label="Date" value={draft.issuedOn} onChange={(issuedOn) => set({ issuedOn })} />
        </Group>
        <Textarea
          label="Words to the owner"
          autosize
          minRows={2}
          mt="sm"
          value={draft.note}
          onChange={(e) => set({ note: e.currentTarget.value })}
        />
        {wrong !== null && (
          <p role="alert" className={styles.wrong}>
            {wrong}
          </p>
        )}
        <Group mt="md">
          <Button size="lg" disabled={!dirty} onClick={save}>
            Keep it
          </Button>
          <Button size="lg" variant="default" onClick={() => window.print()} disabled={dirty}>
            Print it
          </Button>
          <Button variant="subtle" onClick={onDiscard} disabled={invoice.payments.length > 0}>
            Take it back
          </Button>
        </Group>
        {invoice.payments.length > 0 && <p className="quiet">Money came in on it: it stays.</p>}
      </section>
      <InvoiceSheet invoice={draft} />
    </div>
  )
}

/** What was agreed as a deposit; null: none. */
function depositOf(agreed: EstimateRow | undefined): string | null {
  if (!agreed || Number(agreed.depositPercent) === 0) return null
  const span = unlessRefused(() => estimateSpan(agreed.lines, agreed.taxPercent))
  return span instanceof FieldError ? null : shareOf(span.least.gross, agreed.depositPercent)
}

/** Where it comes to more than the owner agreed to. */
function Above({ draft, agreed }: { draft: InvoiceRow; agreed: EstimateRow | undefined }) {
  const total = unlessRefused(() => invoiceTotal(draft))
  const span = agreed && unlessRefused(() => estimateSpan(agreed.lines, agreed.taxPercent))
  if (!span || span instanceof FieldError || total instanceof FieldError) return null
  const more = Number(total.gross) - Number(span.most.gross)
  if (more <= 0) return null
  return (
    <p className={styles.above} role="status">
      <Mark state="watch" label="more than agreed" /> It comes to {total.gross}, and the owner agreed to{' '}
      {span.most.gross} at most: ask before it is sent.
    </p>
  )
}
