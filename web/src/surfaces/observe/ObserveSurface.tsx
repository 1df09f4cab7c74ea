import { jobChangeOf, RUNS, RUNS_TITLES } from '@treadle/contract'
import { Button, Group, SegmentedControl, Textarea } from '@mantine/core'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useChange } from '../../data/queries.ts'
import { useDraft } from '../../parts/useDraft.ts'
import { useJobData } from '../../job/useJobData.ts'
import { SeenPicture } from '../../job/SeenPicture.tsx'
import { StopList } from '../../job/StopList.tsx'
import { SeenBefore } from '../../job/SeenBefore.tsx'
import { useObservations, type Observations } from '../../job/useObservations.ts'
import { useStop } from '../../parts/useStop.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { DriveTest } from '../../job/DriveTest.tsx'
import { ArcStep, StrikeStep, WearStep } from './MeasuredSteps.tsx'
import styles from './Observe.module.css'
import { walkSteps, type WalkStep } from './steps.ts'

/** Nothing was found or noted there yet, so that a press may say that it is sound. */
function isOpen(row: { answer: string; note: string; photoId: string | null } | undefined): boolean {
  return row === undefined || (row.answer === '' && row.note === '' && row.photoId === null)
}

/** One walk round the clock before anything is touched, a stop at a time, in type that is read from across the bench. */
export function ObserveSurface() {
  const { clock, listenings, job } = useJobData()
  const seen = useObservations()
  const navigate = useNavigate()
  const [stop, goTo] = useStop()
  const steps = walkSteps(clock.trains.some((t) => t.train === 'strike'))
  const done = (step: WalkStep) =>
    step.kind === 'listen'
      ? listenings.length > 0
      : step.kind === 'runs'
        ? job.runs !== 'not-tried'
        : step.kind === 'look'
          ? (seen.of(step.key)?.answer ?? '') !== ''
          : seen.of(step.key) !== undefined
  // Opens at what is still to be seen, and stays there: an answer must not take the stop away from under a note.
  const [opensAt] = useState(() =>
    Math.max(
      0,
      steps.findIndex((s) => !done(s)),
    ),
  )
  const wanted = steps.findIndex((s) => s.key === stop)
  const at = wanted >= 0 ? wanted : opensAt
  const step = steps[at]
  const go = (to: number) => goTo(steps[to]?.key ?? '')
  const onward = () => {
    if (at + 1 < steps.length) go(at + 1)
    else void navigate('../trouble')
    return () => go(at)
  }
  usePedalAction(
    step === undefined || step.kind === 'strike'
      ? null
      : step.kind === 'look' && isOpen(seen.of(step.key))
        ? {
            label: `Press if ${step.title.toLowerCase()} ${step.key === 'hands' ? 'are' : 'is'} sound`,
            hint: 'then on to the next',
            press: () => {
              const was = seen.of(step.key)?.answer ?? ''
              seen.set(step.key, { answer: 'sound' })
              const back = onward()
              return () => {
                seen.set(step.key, { answer: was })
                back()
              }
            },
          }
        : step.kind === 'listen' && listenings.length === 0
          ? { label: 'Press to listen', press: () => void navigate('../listen') }
          : {
              label:
                at + 1 < steps.length
                  ? `Press to go on: ${steps[at + 1]?.title.toLowerCase()}`
                  : 'Press to find the trouble',
              press: onward,
            },
  )
  if (!step) return null
  return (
    <div className={styles.walk}>
      <StopList title="The walk" stops={steps} at={at} isDone={done} onGo={go} wraps />
      <section className={styles.stop} key={step.key}>
        <h2 className={styles.title}>{step.title}</h2>
        <p className={styles.ask}>{step.ask}</p>
        {step.kind === 'look' && <Look step={step} seen={seen} />}
        {step.kind === 'runs' && <Runs />}
        {step.kind === 'arc' && <ArcStep seen={seen} />}
        {step.kind === 'listen' && (
          <p className={styles.ask}>
            {listenings.length > 0 ? `Heard ${listenings.length} times. ` : 'Not heard yet. '}
            <Link to="../listen">Listen to it</Link>
          </p>
        )}
        {step.kind === 'drive' && <DriveTest seen={seen} />}
        {step.kind === 'strike' && <StrikeStep seen={seen} onDone={onward} />}
        {step.kind === 'wear' && <WearStep seen={seen} />}
        <Group mt="lg">
          {at > 0 && (
            <Button variant="default" size="lg" onClick={() => go(at - 1)}>
              Back
            </Button>
          )}
          <Button size="lg" onClick={() => void onward()}>
            {at + 1 < steps.length ? 'Next' : 'What is wrong with it?'}
          </Button>
        </Group>
      </section>
      <aside className={styles.told}>
        <h3>What the owner says</h3>
        <p className={styles.words}>“{job.complaint}”</p>
        <p className="quiet">
          {job.standsAt === '' ? 'Where it stands was not said' : `Stands: ${job.standsAt}`}. Moved lately:{' '}
          {job.movedLately}
          {job.lastServiced !== null && `. Last serviced about ${job.lastServiced}`}.
        </p>
        <SeenBefore clockId={clock.id} exceptJob={job.id} />
      </aside>
    </div>
  )
}

function Look({ step, seen }: { step: WalkStep; seen: Observations }) {
  const { job } = useJobData()
  const row = seen.of(step.key)
  const { row: draft, set, forget } = useDraft({ note: row?.note ?? '' }, `note ${job.id} ${step.key}`)
  const { note } = draft
  return (
    <>
      <SegmentedControl
        aria-label={`${step.title}: as found`}
        size="lg"
        value={row?.answer ?? ''}
        onChange={(answer) => seen.set(step.key, { answer })}
        data={[
          { value: 'sound', label: 'Sound' },
          { value: 'watch', label: 'Something' },
          { value: 'must', label: 'Broken' },
        ]}
      />
      <Textarea
        label="As found"
        autosize
        minRows={2}
        value={note}
        onChange={(e) => set({ note: e.currentTarget.value })}
        onBlur={() => {
          if (note !== (row?.note ?? '')) seen.set(step.key, { note })
          forget()
        }}
        mt="sm"
        maw="40rem"
      />
      <SeenPicture of={step.key} title={step.title} seen={seen} className={styles.picture} />
    </>
  )
}

function Runs() {
  const { job } = useJobData()
  const change = useChange()
  return (
    <SegmentedControl
      aria-label="Does it run"
      size="lg"
      value={job.runs}
      onChange={(runs) =>
        change.mutate({ method: 'PATCH', path: `/jobs/${job.id}`, body: { ...jobChangeOf(job), runs } })
      }
      data={RUNS.map((value) => ({ value, label: RUNS_TITLES[value] }))}
    />
  )
}
