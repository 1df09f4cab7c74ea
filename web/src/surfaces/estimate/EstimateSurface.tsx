import { Estimate, visitChangeOf, type EstimateRow } from '@treadle/contract'
import { Button, Group, SegmentedControl } from '@mantine/core'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { sayNotKept, useChange, useSettings, useTable } from '../../data/queries.ts'
import { useMoveTo } from '../../job/useMoveTo.ts'
import { useMovement } from '../../job/useMovement.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { usePaper } from '../../parts/usePaper.ts'
import { useDraft } from '../../parts/useDraft.ts'
import { useRows } from '../../job/useRows.ts'
import { whenShort } from '../../parts/say.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { AnswerForm } from './AnswerForm.tsx'
import { Choices } from './Choices.tsx'
import { EstimateSheet } from './EstimateSheet.tsx'
import paper from '../../parts/paper.module.css'
import styles from './Estimate.module.css'
import { newRevision } from '../../job/estimateFromJob.ts'
import { Lines } from './Lines.tsx'

const STATES = {
  draft: ['none', 'being written'],
  sent: ['watch', 'with the owner'],
  accepted: ['sound', 'accepted'],
  declined: ['must', 'declined'],
} as const

/** Estimates of this job, revision by revision; what the owner accepted stays as it was. */
export function EstimateSurface() {
  const data = useJobData()
  const rows = useRows<EstimateRow>('estimates')
  usePaper('A4', '16mm')
  const { data: settings } = useSettings()
  const movement = useMovement()
  const { data: prices } = useTable('prices')
  const { data: ways } = useTable('ways')
  const [shown, setShown] = useState<string | null>(null)
  const estimates = data.estimates
  const at = estimates.findIndex((e) => e.id === shown)
  const current = at >= 0 ? estimates[at] : estimates.at(-1)
  const before = estimates[(at >= 0 ? at : estimates.length - 1) - 1]
  const begin = () => {
    if (!settings || !movement || !prices || !ways) return
    rows.put({ ...newRevision(estimates.at(-1), prices.values, data, settings, movement, ways.values.ways) }, () =>
      setShown(null),
    )
  }
  usePedalAction(current ? null : { label: 'Press to write an estimate', press: begin })
  if (!settings || !movement || !prices || !ways) return null
  if (!current)
    return (
      <>
        <h2>No estimate yet</h2>
        <p className={parts.say}>
          It begins with what was found: each train and each hole to bush, by{' '}
          <Link to="/tables/prices">this workshop’s prices</Link>. Then change it as you like.
        </p>
        <Button size="lg" mt="sm" onClick={begin}>
          Write an estimate
        </Button>
      </>
    )
  return (
    <>
      {estimates.length > 1 && (
        <SegmentedControl
          aria-label="Revision"
          value={current.id}
          onChange={setShown}
          data={estimates.map((e) => ({ value: e.id, label: `Revision ${e.revision}` }))}
          mb="sm"
        />
      )}
      <One
        key={current.id}
        estimate={current}
        before={before}
        keep={rows.keep}
        onDiscard={() => {
          rows.remove(current.id)
          setShown(null)
        }}
        onNext={begin}
        last={current === estimates.at(-1)}
      />
    </>
  )
}

function One({
  estimate,
  before,
  keep,
  onDiscard,
  onNext,
  last,
}: {
  estimate: EstimateRow
  before: EstimateRow | undefined
  keep: (row: EstimateRow, base: EstimateRow, forget: () => void) => void
  onDiscard: () => void
  onNext: () => void
  last: boolean
}) {
  const { row: draft, base, set: setDraft, dirty, forget } = useDraft(estimate, `estimate ${estimate.id}`)
  const [wrong, setWrong] = useState<string | null>(null)
  const [answering, setAnswering] = useState(false)
  const open = estimate.state === 'draft' || estimate.state === 'sent'
  const save = (part: Partial<EstimateRow>) => {
    const row = { ...draft, ...part }
    const { jobId: _j, who: _w, whoId: _i, ...body } = row
    Estimate.validate(body, { strict: true }).then(
      () => {
        setWrong(null)
        keep(row, base, forget)
      },
      (error: Error) => setWrong(error.message),
    )
  }
  usePedalAction(
    open && dirty
      ? { label: 'Press to keep the estimate', press: () => save({}) }
      : { label: 'Press to print it', hint: `revision ${estimate.revision}`, press: () => window.print() },
  )
  const [mark, words] = STATES[estimate.state]
  return (
    <div className={styles.columns}>
      <section className={`${paper.typed} ${styles.edit}`}>
        <p className={styles.state}>
          <Mark state={mark} label={words} /> Revision {estimate.revision} is {words}
          {estimate.state === 'sent' && estimate.sentAt ? ` since ${whenShort(estimate.sentAt)}` : ''}
          {estimate.answer ? `, by ${estimate.answer.by}` : ''}.
        </p>
        {open ? (
          <>
            <Lines draft={draft} setDraft={setDraft} />
            <Choices draft={draft} setDraft={setDraft} />
          </>
        ) : (
          <p className={parts.say}>
            {estimate.state === 'accepted'
              ? 'The owner accepted this revision, so it stays as it is. What is found later goes into a new one, which shows what changed.'
              : 'The owner declined it. A new revision starts from the same lines.'}
          </p>
        )}
        {wrong !== null && (
          <p role="alert" className={styles.wrong}>
            {wrong}
          </p>
        )}
        <Group mt="md">
          {open && (
            <Button onClick={() => save({})} disabled={!dirty}>
              Keep it
            </Button>
          )}
          {estimate.state === 'draft' && (
            <Button variant="default" onClick={() => save({ state: 'sent', sentAt: new Date().toISOString() })}>
              It is with the owner now
            </Button>
          )}
          {open && (
            <Button variant="default" onClick={() => setAnswering(!answering)}>
              The owner answered
            </Button>
          )}
          {open && last && (
            <Button variant="subtle" onClick={onDiscard}>
              Discard this revision
            </Button>
          )}
          {!open && last && <Button onClick={onNext}>Make a new revision</Button>}
          {estimate.state === 'declined' && last && <ReturnAsItCame revision={estimate.revision} />}
          <Button variant="default" onClick={() => window.print()}>
            Print it
          </Button>
        </Group>
        {open && answering && <AnswerForm onAnswer={(state, answer) => save({ state, answer })} />}
      </section>
      <EstimateSheet estimate={draft} before={before} />
    </div>
  )
}

/** The owner declined: the clock goes back as it came, in one step, and nothing is claimed of it. */
function ReturnAsItCame({ revision }: { revision: number }) {
  const { job } = useJobData()
  const change = useChange()
  const moveTo = useMoveTo(job)
  const navigate = useNavigate()
  if (job.partedAt !== null || job.closedAt !== null || job.scope === 'untouched') return null
  const back = () =>
    change.mutate(
      {
        method: 'PUT',
        path: `/jobs/${job.id}/visit`,
        body: { ...visitChangeOf(job), scope: 'untouched', scopeReason: `the owner declined estimate ${revision}` },
      },
      {
        onError: sayNotKept,
        onSuccess: () => {
          if (job.bay !== 'return') moveTo('return')
          void navigate(`/jobs/${job.id}/card`)
        },
      },
    )
  return (
    <Button variant="default" onClick={back}>
      It goes back as it came
    </Button>
  )
}
