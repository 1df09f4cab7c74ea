import { Invoice } from '@treadle/contract'
import { invoiceTotal } from '@treadle/core'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { invoices } from '../db/schema.ts'
import { badField } from '../http/problem.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'

/** The invoice of a job. Money comes in after the clock has gone home, so a closed job's may still be changed. */
export function invoiceRoutes(db: Database): Router {
  return rowRoutes(db, {
    path: 'invoices',
    table: invoices,
    schema: Invoice,
    kind: 'invoice',
    place: [],
    closedToo: true,
    may: (_doing, body, was) => {
      if (body === null && was && was.payments.length > 0)
        throw badField('payments', 'Payments: take them out first; an invoice on which money came in stays')
      return Promise.resolve()
    },
    sentence: (invoice) => {
      const { gross, paid, owed, over } = invoiceTotal(invoice)
      const rest = over === '0.00' ? `${owed} owed` : `${over} too much`
      return `Invoice of ${invoice.issuedOn}: ${gross} ${invoice.currency}, ${paid} paid, ${rest}.`
    },
    goneSentence: (row) => `Invoice of ${row.issuedOn} taken back.`,
  })
}
