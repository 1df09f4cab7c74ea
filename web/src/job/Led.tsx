import type { WorkStep } from '@treadle/core'
import { Button, Group, TextInput } from '@mantine/core'
import { useState, type ReactNode } from 'react'
import { Caution } from '../parts/Caution.tsx'
import { Mark } from '../parts/Mark.tsx'
import { useDraft } from '../parts/useDraft.ts'
import { useStop } from '../parts/useStop.ts'
import { usePedalAction, type PedalAction } from '../pedal/Pedal.tsx'
import { SeenPicture } from './SeenPicture.tsx'
import { StopList } from './StopList.tsx'
import { useJobData } from './useJobData.ts'
import { useObservations, type Observations } from './useObservations.ts'
import styles from './Led.module.css'

export interface LedStep extends WorkStep {
  /** what a press says is so, after “Press when ”; else that it is done */
  when?: string
}

/** What is said of a step that was done. */
export const LED_DONE = 'done'

/** Whether a step was done, and which are left. */
export function ledStanding(of: Observations['of'], walk: string, steps: WorkStep[]): { done: number; open: string[] } {
  const open = steps.filter((s) => of(`${walk}: ${s.key}`)?.answer !== LED_DONE).map((s) => s.title)
  return { done: steps.length - open.length, open }
}

/**
 * A walk led by the foot, a step at a time, large enough to be read from a ladder: what is done is the person's word, each
 * step has its note and its picture, and a hold takes the last one back.
 */
export function Led<S extends LedStep>({
  walk,
  steps,
  onward,
  more,
  ready,
  instead,
}: {
  /** of which walk: each step is kept by it and its own key */
  walk: string
  steps: S[]
  /** where a press goes when all is done */
  onward: { label: string; go: () => void }
  /** what a step shows and asks besides */
  more?: (step: S, seen: Observations) => ReactNode
  /** why a step can’t be said to be done yet; null: it can */
  ready?: (step: S, seen: Observations) => string | null
  /** what a press does while it can’t */
  instead?: (step: S) => PedalAction | null
}) {
  const seen = useObservations()
  const [stop, goTo] = useStop()
  const isDone = (step: LedStep) => seen.of(`${walk}: ${step.key}`)?.answer === LED_DONE
  const [opensAt] = useState(() => {
    const open = steps.findIndex((s) => !isDone(s))
    return open < 0 ? steps.length - 1 : open
  })
  const wanted = steps.findIndex((s) => s.key === stop)
  const at = wanted >= 0 ? wanted : opensAt
  const step = steps[at]
  const go = (to: number) => goTo(steps[to]?.key ?? '')
  const next = steps[at + 1]
  const set = (done: boolean) => step && seen.set(`${walk}: ${step.key}`, { answer: done ? LED_DONE : '' })
  const finish = () => {
    set(true)
    if (next) go(at + 1)
    return () => {
      set(false)
      go(at)
    }
  }
  const held = step && !isDone(step) ? (ready?.(step, seen) ?? null) : null
  const onTo = ({ title }: S): PedalAction => ({
    label: `Press to go on: ${title.toLowerCase()}`,
    press: () => {
      go(at + 1)
      return () => go(at)
    },
  })
  usePedalAction(
    !step
      ? null
      : held !== null
        ? (instead?.(step) ?? (next ? onTo(next) : null))
        : !isDone(step)
          ? {
              label: `Press when ${step.when ?? 'it is done'}`,
              hint: next && `then ${next.title.toLowerCase()}`,
              press: finish,
            }
          : next
            ? onTo(next)
            : { label: onward.label, press: () => onward.go() },
  )
  if (!step) return null
  return (
    <div className={styles.walk}>
      <section className={styles.stop} key={step.key}>
        <p className={styles.place} role="status">
          {at + 1} of {steps.length}
          {isDone(step) && (
            <>
              {' '}
              <Mark state="sound" label="done" /> done
            </>
          )}
        </p>
        <h2 className={styles.title}>{step.title}</h2>
        <p className={styles.does}>{step.does}</p>
        {step.caution !== undefined && <Caution>{step.caution} Follow your local rules.</Caution>}
        {more?.(step, seen)}
        {held !== null && <p className={styles.held}>{held}</p>}
        <Beside walk={walk} step={step} seen={seen} />
        <Group mt="lg">
          {at > 0 && (
            <Button variant="default" size="lg" onClick={() => go(at - 1)}>
              Back
            </Button>
          )}
          {isDone(step) ? (
            <Button variant="default" size="lg" onClick={() => set(false)}>
              Not done after all
            </Button>
          ) : (
            <Button size="lg" disabled={held !== null} onClick={finish}>
              Done
            </Button>
          )}
          {next ? (
            <Button variant="subtle" size="lg" onClick={() => go(at + 1)}>
              {isDone(step) ? 'Next' : 'Look ahead'}
            </Button>
          ) : (
            <Button variant="subtle" size="lg" onClick={onward.go}>
              {onward.label.replace(/^Press to /, '').replace(/^./, (c) => c.toUpperCase())}
            </Button>
          )}
        </Group>
      </section>
      <StopList title="Steps" stops={steps} at={at} isDone={isDone} onGo={go} />
    </div>
  )
}

/** A step's note and its picture. */
function Beside({ walk, step, seen }: { walk: string; step: LedStep; seen: Observations }) {
  const { job } = useJobData()
  const key = `${walk}: ${step.key}`
  const row = seen.of(key)
  const { row: draft, set, forget } = useDraft({ note: row?.note ?? '' }, `note ${job.id} ${key}`)
  const keep = () => {
    if (draft.note !== (row?.note ?? '')) seen.set(key, { note: draft.note })
    forget()
  }
  return (
    <div className={styles.beside}>
      <TextInput
        label="Note"
        value={draft.note}
        maxLength={2000}
        onChange={(e) => set({ note: e.currentTarget.value })}
        onBlur={keep}
        onKeyDown={(e) => e.key === 'Enter' && keep()}
      />
      <SeenPicture of={key} title={step.title} seen={seen} className={styles.photo} />
    </div>
  )
}
