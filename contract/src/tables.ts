import type { Bath as BathRow, TroubleTable, Way } from '@treadle/core'
import { DEFAULT_BATHS, DEFAULT_TROUBLE_TABLE, DEFAULT_WAYS } from '@treadle/core/choices'
import { Bath } from './clean.ts'
import { DEFAULT_PRICES, PriceBook } from './estimate.ts'
import { array, line, measured, numbers, only, requiredLine, string, type InferType } from './fields.ts'
import { mixed, object } from 'yup'
import { DEFAULT_LADDERS, Ladders } from './tool.ts'
import { Ways } from './wheel.ts'

const MOST_CAUSES = 60
const chances = () => numbers(0, 1, [2, 6])
const CHANCES = chances()
const areChances = (row: unknown) => CHANCES.isValidSync(row, { strict: true })

const Trouble = only({
  causes: array(
    only({
      key: requiredLine(40),
      title: requiredLine(120).label('Cause'),
      weight: measured(0.01, 1000).required().label('How often'),
      remark: line(300).defined().label('Remark'),
    }),
  )
    .min(2, 'Causes: keep at least two')
    .max(MOST_CAUSES)
    .required()
    .label('Causes'),
  checks: array(
    only({
      key: requiredLine(40),
      question: requiredLine(160).label('Question'),
      how: line(300).defined().label('How'),
      minutes: measured(0.1, 600).required().label('Minutes'),
      yearsUpTo: array(measured(0, 200).required()).max(5).nullable().defined(),
      given: mixed<Record<string, number[]>>()
        .required()
        .test(
          'chances',
          'Chances: each must be a number from 0 to 1',
          (value) =>
            object().isType(value) &&
            Object.keys(value).length <= MOST_CAUSES &&
            Object.values(value).every(areChances),
        ),
      otherwise: chances().label('Chance otherwise'),
    }),
  )
    .min(1)
    .max(80)
    .required()
    .label('Checks'),
})

const Baths = only({ baths: array(Bath).min(1, 'Baths: keep at least one').max(30).required().label('Baths') })

/** Tables that the workshop keeps for itself: each is checked whole, and starts as the craft's own. */
export const WORKSHOP_TABLES: {
  trouble: { schema: typeof Trouble; start: TroubleTable }
  baths: { schema: typeof Baths; start: { baths: BathRow[] } }
  prices: { schema: typeof PriceBook; start: PriceBook }
  ways: { schema: typeof Ways; start: { ways: Way[] } }
  ladders: { schema: typeof Ladders; start: Ladders }
} = {
  trouble: { schema: Trouble, start: DEFAULT_TROUBLE_TABLE },
  baths: { schema: Baths, start: { baths: DEFAULT_BATHS } },
  prices: { schema: PriceBook, start: DEFAULT_PRICES },
  ways: { schema: Ways, start: { ways: DEFAULT_WAYS } },
  ladders: { schema: Ladders, start: DEFAULT_LADDERS },
}

export type TableName = keyof typeof WORKSHOP_TABLES
export type TableValues<N extends TableName> = (typeof WORKSHOP_TABLES)[N]['start']
export interface TableAnswer<N extends TableName> {
  name: N
  version: number
  values: TableValues<N>
}

/** One of them as it is kept: what its own schema asks. */
export const TableKept = only({
  name: string()
    .oneOf(Object.keys(WORKSHOP_TABLES) as TableName[], 'there is no table “${value}”')
    .required(),
  values: mixed<object>((value): value is object => typeof value === 'object' && value !== null).required(),
}).test('values', function ({ name, values }) {
  if (!Object.hasOwn(WORKSHOP_TABLES, name ?? '')) return true
  try {
    WORKSHOP_TABLES[name].schema.validateSync(values, { strict: true })
    return true
  } catch (error) {
    return this.createError({ path: 'values', message: (error as Error).message })
  }
})

/** A change of one of them, on the version it was read at. */
export const TableChange = only({
  version: measured(0, 1e9).integer().required(),
  values: mixed<object>((value): value is object => typeof value === 'object' && value !== null).required(),
})
export type TableChange = InferType<typeof TableChange>
