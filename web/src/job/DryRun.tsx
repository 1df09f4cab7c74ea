import { blankDryRun, DryRunChange, type DryRunRow } from '@treadle/contract'
import { Group, Textarea } from '@mantine/core'
import { v5 } from 'uuid'
import { Figure } from '../parts/Figure.tsx'
import { Mark } from '../parts/Mark.tsx'
import { Pick } from '../parts/Pick.tsx'
import parts from '../parts/parts.module.css'
import { useJobData } from './useJobData.ts'
import { useRows } from './useRows.ts'

const NAMESPACE = '4b7f4ed4-7a61-4a0f-9c2f-2c6b7f7c1a10'

export interface DryRuns {
  of: (train: string) => DryRunChange
  set: (train: string, part: Partial<DryRunChange>) => void
}

/** The dry runs of this clock’s trains: one row for each, begun with its first figure. */
export function useDryRuns(): DryRuns {
  const { job, clock, dryRuns } = useJobData()
  const rows = useRows<DryRunRow>('dry-runs')
  const kept = (train: string) => dryRuns.find((r) => r.train === train)
  const blank = (train: string) => {
    const of = clock.trains.find((t) => t.train === train)
    return blankDryRun(
      v5(`${job.id} ${train}`, NAMESPACE),
      { train: of?.train ?? 'going', power: of?.power ?? 'spring' },
      new Date().toISOString(),
    )
  }
  const whole = (train: string) => ({ ...blank(train), jobId: job.id, who: '', at: '' })
  return {
    of: (train) => rows.seen(whole(train), kept(train)) ?? blank(train),
    // It ran when it was judged: a note or a figure put right later does not move it.
    set: (train, part) =>
      rows.set(
        blank(train),
        kept(train),
        part.verdict === undefined ? part : { ranAt: new Date().toISOString(), ...part },
      ),
  }
}

/** What a press does next for a train that is to run dry; null: it is judged. */
export function dryPress(
  train: string,
  runs: DryRuns,
): { label: string; hint: string; press: () => (() => void) | void } | null {
  const run = runs.of(train)
  if (run.verdict !== '') return null
  const set = (part: Partial<DryRunChange>) => {
    runs.set(train, part)
    return () => runs.set(train, { backsOff: run.backsOff, verdict: run.verdict })
  }
  if (run.amount === null)
    return {
      label: `Press, then type what moved the ${train} train`,
      hint: run.drivenBy === 'grams' ? 'grams on its line' : 'turns of its spring, often a quarter',
      press: () => document.querySelector<HTMLInputElement>(`[data-dry="${train}"] input[data-figure]`)?.focus(),
    }
  if (run.backsOff === '')
    return {
      label: 'Press if it backs off at the end',
      hint: 'as the power ends the train runs back a little; else say no',
      press: () => set({ backsOff: 'yes' }),
    }
  if (run.backsOff === 'no')
    return { label: 'Press: it is tight', hint: 'it does not back off', press: () => set({ verdict: 'tight' }) }
  return {
    label: `Press if the ${train} train runs freely`,
    hint: 'by itself, in every position, with no oil',
    press: () => set({ verdict: 'free' }),
  }
}

/** One train run dry: what moved it, whether it backs off, and the verdict on it. */
export function DryRun({ train, runs }: { train: string; runs: DryRuns }) {
  const run = runs.of(train)
  const set = (part: Partial<DryRunChange>) => runs.set(train, part)
  const mayBeFree = run.amount !== null && run.backsOff === 'yes'
  return (
    <div data-dry={train}>
      <p className={parts.say}>
        The {train} train between the plates, dry
        {run.drivenBy === 'turns' && ', the other springs still in their clamps'}: the least that moves it to the last
        wheel, and at the end it backs off.
      </p>
      <div className={parts.fields}>
        <Figure
          label={run.drivenBy === 'grams' ? 'Moved by' : 'Moved by turns'}
          draftOf={`dry ${train}`}
          unit={run.drivenBy === 'grams' ? 'g' : ''}
          value={run.amount}
          of={[DryRunChange, 'amount']}
          onKeep={(amount) => set(amount === null && run.verdict === 'free' ? { amount, verdict: '' } : { amount })}
        />
        <Pick
          label="Measured in"
          value={run.drivenBy}
          of={['turns', 'grams']}
          onPick={(drivenBy) => set({ drivenBy })}
        />
      </div>
      <Group>
        <Pick
          label="Backs off at the end"
          value={run.backsOff}
          of={[
            ['yes', 'It backs off'],
            ['no', 'It does not'],
          ]}
          onPick={(backsOff) =>
            set(backsOff === 'no' && run.verdict === 'free' ? { backsOff, verdict: '' } : { backsOff })
          }
        />
        <Pick
          label="Judged"
          value={run.verdict}
          of={mayBeFree ? ['free', 'tight'] : ['tight']}
          onPick={(verdict) => set({ verdict })}
        />
      </Group>
      <p>
        <Mark
          state={run.verdict === 'free' ? 'sound' : run.verdict === 'tight' ? 'must' : 'none'}
          label={run.verdict === '' ? 'not judged' : run.verdict}
        />{' '}
        {run.verdict === 'free'
          ? 'Judged free.'
          : run.verdict === 'tight'
            ? 'Tight: find what binds before anything else goes in. Endshake, a bent pivot, a bush that closed, a deep mesh.'
            : mayBeFree
              ? 'Not judged yet.'
              : 'Free is said once it is known what moved it, and it backs off.'}
      </p>
      <Textarea
        label="What was felt"
        autosize
        defaultValue={run.note}
        maxLength={500}
        onBlur={(e) => e.currentTarget.value !== run.note && set({ note: e.currentTarget.value })}
        maw="40rem"
      />
    </div>
  )
}
