import { money, quantity } from './estimate.ts'
import {
  array,
  boolean,
  day,
  id,
  line,
  only,
  requiredLine,
  ruled,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'
import type { Stamped } from './stamped.ts'

export const INVOICE_SOURCES = ['estimate', 'added', 'left'] as const
export const INVOICE_SOURCE_TITLES: Record<(typeof INVOICE_SOURCES)[number], string> = {
  estimate: 'as agreed',
  added: 'added',
  left: 'left out',
}

/** A line of an invoice: of the estimate that was agreed, added to it, or of it and left out. */
export const InvoiceLine = only({
  id: id(),
  title: requiredLine(160).label('What'),
  quantity: quantity(),
  unit: line(20).defined().label('Unit'),
  unitPrice: money().label('Price'),
  taxed: boolean().required(),
  source: string().oneOf(INVOICE_SOURCES).required().label('Where it is from'),
  /** why it was added or left, in the owner’s words */
  why: line(200).defined().label('Why'),
})
export type InvoiceLine = InferType<typeof InvoiceLine>

/** Money that came in: the deposit, and what was paid since. */
export const Payment = only({
  id: id(),
  on: day().required().label('Paid on'),
  amount: money().label('Amount'),
  how: line(60).defined().label('How'),
})
export type Payment = InferType<typeof Payment>

/** What a job costs its owner in the end, and what is paid of it. One for each job. */
export const Invoice = ruled(
  only({
    id: id(),
    version: version(),
    issuedOn: day().required().label('Date'),
    lines: array(InvoiceLine).max(200).required().label('Lines'),
    payments: array(Payment).max(40).required().label('Payments'),
    currency: requiredLine(6).label('Currency'),
    taxPercent: string()
      .required()
      .matches(/^(100|\d{1,2}(\.\d{1,4})?)$/, 'Tax must be a per cent from 0 to 100, such as 21')
      .label('Tax'),
    note: text(2000).defined().label('Words to the owner'),
  }),
  [
    'why',
    'Why: say of each line that was added or left why it was',
    (i) => i.lines.every((l) => l.source === 'estimate' || l.why.trim().length >= 2),
  ],
)
export type Invoice = InferType<typeof Invoice>
export type InvoiceRow = Invoice & Stamped
