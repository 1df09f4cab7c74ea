import { INVOICE_SOURCE_TITLES, type InvoiceRow } from '@treadle/contract'
import { estimateTotal, FieldError, invoiceTotal, unlessRefused } from '@treadle/core'
import { useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { timesWords } from '../../job/estimateFromJob.ts'
import { ClockGlyph } from '../../parts/ClockGlyph.tsx'
import paper from '../../parts/paper.module.css'
import styles from './Invoice.module.css'
import { dayLike } from '../../parts/say.ts'

/** The invoice as the owner gets it, on the screen and on paper. */
export function InvoiceSheet({ invoice }: { invoice: InvoiceRow }) {
  const { clock, owner, job } = useJobData()
  const { data: settings } = useSettings()
  const total = unlessRefused(() => invoiceTotal(invoice))
  const { currency } = invoice
  const billed = invoice.lines.filter((l) => l.source !== 'left')
  const left = invoice.lines.filter((l) => l.source === 'left')
  const sumOf = (line: InvoiceRow['lines'][number]) => {
    const sum = unlessRefused(() => estimateTotal([{ ...line, taxed: false }], '0'))
    return sum instanceof FieldError ? '' : sum.net
  }
  return (
    <article className={`${paper.sheet} ${paper.sums}`} aria-label="The invoice as the owner gets it">
      <header>
        <div>
          <p className={paper.shop}>
            {[settings?.workshop, settings?.place, settings?.phone].filter(Boolean).join(', ')}
          </p>
          <h1>Invoice {job.number}</h1>
          <p>
            {clock.name}, {dayLike(invoice.issuedOn, '27 November 2026')}
          </p>
          <p className={styles.to}>
            {owner.name}
            {owner.address !== '' && `, ${owner.address}`}
          </p>
        </div>
        <ClockGlyph kind={clock.kind} />
      </header>
      {invoice.note !== '' && <p>{invoice.note}</p>}
      <table>
        <tbody>
          {billed.map((line) => (
            <tr key={line.id}>
              <td>
                {line.title}
                {line.source === 'added' && (
                  <em>
                    {' '}
                    {INVOICE_SOURCE_TITLES.added}: {line.why}
                  </em>
                )}
              </td>
              <td>{timesWords(line)}</td>
              <td>{sumOf(line)}</td>
            </tr>
          ))}
        </tbody>
        {!(total instanceof FieldError) && (
          <tfoot>
            <Row title="Before tax" value={total.net} />
            {Number(invoice.taxPercent) > 0 && <Row title={`Tax, ${invoice.taxPercent} %`} value={total.tax} />}
            <Row title="In all" value={`${total.gross} ${currency}`} className={paper.total} />
            {invoice.payments.map((p) => (
              <Row
                key={p.id}
                title={`Paid ${dayLike(p.on, '27 November 2026')}${p.how === '' ? '' : `, ${p.how}`}`}
                value={p.amount === '' ? '' : `−${p.amount}`}
              />
            ))}
            <Row
              title={
                total.over === '0.00'
                  ? total.owed === '0.00'
                    ? 'Paid in full'
                    : 'Still to be paid'
                  : 'To be given back'
              }
              value={`${total.over === '0.00' ? total.owed : total.over} ${currency}`}
              className={paper.total}
            />
          </tfoot>
        )}
      </table>
      {total instanceof FieldError && <p>A line or a payment still lacks its amount.</p>}
      {left.length > 0 && (
        <>
          <h2>Agreed, and left out</h2>
          <ul>
            {left.map((l) => (
              <li key={l.id}>
                {l.title}: {l.why}
              </li>
            ))}
          </ul>
        </>
      )}
    </article>
  )
}

function Row({ title, value, className }: { title: string; value: string; className?: string | undefined }) {
  return (
    <tr className={className}>
      <th scope="row">{title}</th>
      <td />
      <td>{value}</td>
    </tr>
  )
}
