import { LINE_KINDS } from '@treadle/core/choices'
import {
  array,
  boolean,
  id,
  line,
  measured,
  moment,
  only,
  ruled,
  requiredLine,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'
import { mixed } from 'yup'

/** An amount of money as a decimal string, such as "12.50". */
export const money = () =>
  string()
    .required()
    .matches(/^-?\d{1,9}(\.\d{1,4})?$/, '${path} must be an amount such as 12.50')
const percent = () =>
  string()
    .required()
    .matches(/^(100(\.0+)?|\d{1,2}(\.\d{1,4})?)$/, '${path} must be a per cent from 0 to 100, such as 21')

/** How many of a thing: to four places. */
export const quantity = () =>
  measured(0, 10_000)
    .required()
    .test('places', '${path} may have four places after the point', (v) => v == null || v === Number(v.toFixed(4)))
    .label('Times')

export const EstimateLineSchema = only({
  id: id(),
  title: requiredLine(160).label('What'),
  kind: string().oneOf(LINE_KINDS).required().label('How sure'),
  quantity: quantity(),
  unit: line(20).defined().label('Unit'),
  unitPrice: money().label('Price'),
  upToPrice: money().notRequired().nullable().defined().label('Up to'),
  taxed: boolean().required(),
  /** a part that has to be ordered once the owner agrees */
  order: boolean().required(),
})

/** One of the ways that are laid side by side, with what it costs and how long it lasts. */
export const Choice = only({
  key: requiredLine(40),
  title: requiredLine(80).label('Choice'),
  price: money().label('Price'),
  years: measured(0, 200).required().label('Years it lasts'),
  remark: text(400).defined().label('Remark'),
})
export type Choice = InferType<typeof Choice>

const isPoint = (p: unknown) => Array.isArray(p) && p.length === 2 && p.every((v) => v >= -50 && v <= 4000)

/** Where a pen went, in points of the pad: strokes of points. */
const Strokes = mixed<number[][][]>((value): value is number[][][] => Array.isArray(value))
  .meta({ most: 200 })
  .test(
    'strokes',
    '${path} must be strokes of points on the pad',
    (strokes) => strokes == null || strokes.every((s) => Array.isArray(s) && s.length <= 4000 && s.every(isPoint)),
  )

type SaidAnswer = { how: string; note: string; strokes: unknown[] } | null | undefined

/** How the owner agreed: signed on the screen, or a note of the call or the letter. */
const Answer = ruled(
  only({
    how: string().oneOf(['signed', 'call', 'letter']).required().label('How the owner answered'),
    by: requiredLine(120).label('Who answered'),
    at: moment().label('When'),
    note: text(600).defined().label('Note of the call'),
    strokes: Strokes.required().label('Signature'),
  }),
  [
    'signed',
    'Signature: sign before it is kept, or choose a call',
    (a: SaidAnswer) => a?.how !== 'signed' || a.strokes.length > 0,
  ],
  [
    'note',
    'Note of the call: say what was agreed',
    (a: SaidAnswer) => a == null || a.how === 'signed' || a.note.trim().length >= 4,
  ],
)

export const ESTIMATE_STATES = ['draft', 'sent', 'accepted', 'declined'] as const

/** One revision of a job's estimate; once accepted it stays as it is. */
export const Estimate = ruled(
  only({
    id: id(),
    version: version(),
    revision: measured(1, 500).integer().required(),
    state: string().oneOf(ESTIMATE_STATES).required(),
    lines: array(EstimateLineSchema).max(200).required().label('Lines'),
    choices: array(Choice).max(8).required().label('Choices'),
    chosen: line(40).defined(),
    currency: requiredLine(6).label('Currency'),
    taxPercent: percent().label('Tax'),
    depositPercent: percent().label('Deposit'),
    note: text(2000).defined().label('Words to the owner'),
    sentAt: moment().nullable().notRequired().defined(),
    answer: Answer.nullable().notRequired().defined(),
  }),
  [
    'answered',
    'How the owner answered: an accepted or declined estimate needs it',
    (e) => e.answer !== null || (e.state !== 'accepted' && e.state !== 'declined'),
  ],
)
export type Estimate = InferType<typeof Estimate>
export type EstimateRow = Estimate & { jobId: string; who: string; whoId?: string | null }

/** The workshop's own prices. */
export const PriceLine = only({
  key: requiredLine(40),
  title: requiredLine(160).label('What'),
  unit: line(20).defined().label('Unit'),
  unitPrice: money().label('Price'),
  upToPrice: money().notRequired().nullable().defined().label('Up to'),
  taxed: boolean().required(),
  /** what of a job it counts: nothing, each bush, each train, each pivot in the lathe, each let in anew */
  counts: string().oneOf(['once', 'bush', 'train', 'pivot', 're-pivot']).required().label('Counted for'),
})
export type PriceLine = InferType<typeof PriceLine>

export const PriceBook = only({
  lines: array(PriceLine).max(300).required().label('Prices'),
  choices: array(Choice).max(8).required().label('Choices'),
})
export type PriceBook = InferType<typeof PriceBook>

const priced = (
  key: string,
  title: string,
  unit: string,
  unitPrice: string,
  counts: PriceLine['counts'],
): PriceLine => ({
  key,
  title,
  unit,
  unitPrice,
  upToPrice: null,
  taxed: true,
  counts,
})

/** A start, in no currency in particular: every workshop writes its own. */
export const DEFAULT_PRICES: PriceBook = {
  lines: [
    priced('look', 'Looking it over and this estimate', '', '25.00', 'once'),
    priced('service', 'Take apart, clean, assemble, oil and test, for each train', 'train', '95.00', 'train'),
    priced('bush', 'Bush a worn hole, true to its old centre', 'hole', '18.00', 'bush'),
    { ...priced('pivots', 'Polish or burnish a pivot', 'pivot', '7.50', 'pivot'), upToPrice: '15.00' },
    priced('re-pivot', 'Let in a new pivot', 'pivot', '38.00', 're-pivot'),
    priced('mainspring', 'New mainspring, fitted', '', '48.00', 'once'),
    priced('suspension', 'Suspension spring', '', '14.00', 'once'),
    priced('hour', 'Work by the hour', 'h', '52.00', 'once'),
    priced('fetch', 'Fetching and setting up at your house', '', '40.00', 'once'),
  ],
  choices: [
    {
      key: 'leave',
      title: 'Leave it alone',
      price: '0',
      years: 0,
      remark: 'It stands as an ornament and wears no further.',
    },
    { key: 'oil', title: 'Oil it in place', price: '45.00', years: 1, remark: 'A stop-gap: fresh oil on old.' },
    { key: 'service', title: 'Service', price: '190.00', years: 5, remark: 'Apart, cleaned, oiled, tested.' },
    { key: 'overhaul', title: 'Full overhaul', price: '420.00', years: 10, remark: 'With every worn hole bushed.' },
    {
      key: 'replace',
      title: 'Replace the movement',
      price: '260.00',
      years: 20,
      remark: 'For modern light movements only.',
    },
  ],
}
