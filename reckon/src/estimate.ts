import { estimateTotal } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, boolean, mixed, only, string } from './fields.ts'

/** Calculations of the estimate. */
export const ESTIMATE: Calculation[] = [
  calculation({
    name: 'estimate.total',
    title: 'Total of an estimate',
    about: 'Net, tax and gross in exact decimals; net and tax each rounded once, half up.',
    input: only({
      lines: array(
        only({
          quantity: mixed<number | string>((v): v is number | string =>
            ['number', 'string'].includes(typeof v),
          ).required(),
          unitPrice: string().required(),
          taxed: boolean(),
        }),
      )
        .required()
        .label('Lines'),
      taxPercent: string().required().label('Tax'),
    }),
    fields: {
      lines: {
        unit: 'quantity, price, taxed',
        example: [
          { quantity: 4, unitPrice: '18.00' },
          { quantity: 1, unitPrice: '95.00' },
        ],
        note: 'taxed unless said otherwise',
      },
      taxPercent: { unit: '%', example: '21' },
    },
    output: { net: '', tax: '', gross: '' },
    run: (i) => ({ ...estimateTotal(i.lines, i.taxPercent) }),
  }),
]
