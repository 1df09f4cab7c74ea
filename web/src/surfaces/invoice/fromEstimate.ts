import type { Estimate, Invoice, InvoiceLine, Settings } from '@treadle/contract'
import { v7 as uuid } from 'uuid'

/** The lines of what was agreed: a range at its lower end, and what was only offered if needed left out until somebody says it was. */
function agreedLines(estimate: Pick<Estimate, 'lines'>): InvoiceLine[] {
  return estimate.lines.map(({ id, title, quantity, unit, unitPrice, taxed, kind }) => ({
    id,
    title,
    quantity,
    unit,
    unitPrice,
    taxed,
    source: kind === 'if-needed' ? ('left' as const) : ('estimate' as const),
    why: kind === 'if-needed' ? 'not needed' : '',
  }))
}

/** The estimate that counts: the last one that the owner accepted. */
export function agreedOf<E extends Pick<Estimate, 'state'>>(estimates: E[]): E | undefined {
  return estimates.findLast((e) => e.state === 'accepted')
}

/** A first invoice of a job. */
export function newInvoice(
  agreed: Estimate | undefined,
  settings: Pick<Settings, 'currency' | 'taxPercent'>,
  today: string,
): Invoice {
  return {
    id: uuid(),
    version: 0,
    issuedOn: today,
    lines: agreed ? agreedLines(agreed) : [],
    payments: [],
    currency: agreed?.currency ?? settings.currency,
    taxPercent: agreed?.taxPercent ?? settings.taxPercent,
    note: '',
  }
}
