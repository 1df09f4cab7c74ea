import type { DryVerdict } from '@treadle/core'
import { DRY_VERDICTS, TRAIN_NAMES } from '@treadle/core/choices'
import { id, measured, moment, only, ruled, string, text, version, type InferType } from './fields.ts'
import type { Stamped } from './stamped.ts'

export const DRIVEN_BY = ['turns', 'grams'] as const
export type DrivenBy = (typeof DRIVEN_BY)[number]

/** One train run dry between the plates: what moved it, whether it backs off at the end, and how it was judged. */
export const DryRunChange = ruled(
  only({
    id: id(),
    version: version(),
    train: string().oneOf(TRAIN_NAMES).required().label('Train'),
    drivenBy: string().oneOf(DRIVEN_BY).required().label('Driven by'),
    /** turns of its spring, or grams on its line */
    amount: measured(0.01, 500_000).nullable().defined().label('What moved it'),
    backsOff: string()
      .oneOf(['', 'yes', 'no'] as const)
      .defined()
      .label('Backs off at the end'),
    verdict: string<DryVerdict>().oneOf(DRY_VERDICTS).defined().label('Judged'),
    /** when it was judged */
    ranAt: moment().label('When'),
    note: text(500).defined().label('Note'),
  }),
  [
    'judged',
    'Judged: it runs freely only when what moved it is known, and it backs off at the end',
    (run) => run.verdict !== 'free' || (run.amount !== null && run.backsOff === 'yes'),
  ],
)
export type DryRunChange = InferType<typeof DryRunChange>
export type DryRunRow = DryRunChange & Stamped

export function blankDryRun(
  id: string,
  { train, power }: { train: DryRunChange['train']; power: string },
  ranAt: string,
): DryRunChange {
  const drivenBy = power === 'weight' || power === 'chime-drum' ? 'grams' : 'turns'
  return { id, version: 0, train, drivenBy, amount: null, backsOff: '', verdict: '', ranAt, note: '' }
}
