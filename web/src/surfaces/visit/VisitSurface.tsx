import { VisitChange, visitChangeOf, type JobRow } from '@treadle/contract'
import { LOSS_KEY, lossesOf, SCOPE_TITLES, SCOPES, type WaitsFor } from '@treadle/core'
import { Button, Group, NativeSelect, Radio, SegmentedControl, Textarea, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { v7 as uuid } from 'uuid'
import { sayNotKept, useChange } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useReopen } from '../../job/useReopen.ts'
import { useObservations } from '../../job/useObservations.ts'
import { DayField } from '../../parts/DayField.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { whenShort } from '../../parts/say.ts'
import { useDraft } from '../../parts/useDraft.ts'

/** This visit as a whole: what is done on it, what it waits for, what was lost, and how it is called off. */
export function VisitSurface() {
  const { job } = useJobData()
  const visit = useVisit(job)
  return (
    <div className={parts.columns}>
      <section>
        <Scope job={job} visit={visit} />
        <Waits job={job} visit={visit} />
      </section>
      <section>
        <Losses />
        <Way job={job} />
      </section>
    </div>
  )
}

function useVisit(job: JobRow) {
  const change = useChange()
  const { row: draft, set, dirty, forget } = useDraft(visitChangeOf(job), `visit ${job.id}`)
  const [wrong, setWrong] = useState<string | null>(null)
  const keep = (part: Partial<VisitChange> = {}) => {
    const body = { ...draft, ...part, waitsUntil: (part.waitsUntil ?? draft.waitsUntil) || null, version: job.version }
    VisitChange.validate(body, { strict: true }).then(
      () => {
        setWrong(null)
        change.mutate(
          { method: 'PUT', path: `/jobs/${job.id}/visit`, body },
          { onSuccess: forget, onError: sayNotKept },
        )
      },
      (error: Error) => setWrong(error.message),
    )
  }
  return { draft, set, dirty, wrong, keep }
}

type Visit = ReturnType<typeof useVisit>

function Scope({ job, visit: { draft, set, dirty, wrong, keep } }: { job: JobRow; visit: Visit }) {
  const { clock } = useJobData()
  const closed = job.closedAt !== null
  return (
    <>
      <h2>What is done on this visit</h2>
      <Radio.Group
        aria-label="What is done on this visit"
        value={draft.scope}
        onChange={(value) => {
          const scope = SCOPES.find((one) => one === value) ?? 'whole'
          set({ scope, ...(scope === 'whole' && { scopeReason: '' }) })
        }}
      >
        {SCOPES.map((value) => (
          <Radio key={value} my="sm" size="md" value={value} label={SCOPE_TITLES[value]} disabled={closed} />
        ))}
      </Radio.Group>
      {draft.scope === 'one-train' && (
        <NativeSelect
          label="Which train"
          value={draft.scopeTrain}
          onChange={(e) => set({ scopeTrain: e.currentTarget.value as VisitChange['scopeTrain'] })}
          data={['', ...clock.trains.map((t) => t.train)]}
          mt="sm"
        />
      )}
      {draft.scope !== 'whole' && (
        <Textarea
          label="Why"
          description="It stands on every gate that this visit then has no need of; the card claims nothing of them."
          value={draft.scopeReason}
          maxLength={300}
          onChange={(e) => set({ scopeReason: e.currentTarget.value })}
          mt="sm"
        />
      )}
      {wrong !== null && <p role="alert">{wrong}</p>}
      <Button mt="sm" variant="default" disabled={!dirty || closed} onClick={() => keep()}>
        Keep this
      </Button>
      {job.partedAt !== null && job.scope !== 'whole' && job.scope !== 'one-train' && (
        <p>
          <Mark state="watch" label="mind" /> Its plates were parted, so every gate holds all the same.
        </p>
      )}
    </>
  )
}

const WAITS_WORDS: Record<WaitsFor, string> = { '': 'nothing', parts: 'parts', owner: 'the owner' }

function Waits({ job, visit: { draft, set, dirty, keep } }: { job: JobRow; visit: Visit }) {
  const closed = job.closedAt !== null
  return (
    <>
      <h2 className={parts.next}>It waits for</h2>
      <SegmentedControl
        aria-label="It waits for"
        disabled={closed}
        value={draft.waitsFor}
        onChange={(waitsFor) => set({ waitsFor: waitsFor })}
        data={(['', 'parts', 'owner'] as const).map((value) => ({ value, label: WAITS_WORDS[value] }))}
      />
      {draft.waitsFor !== '' && (
        <Group align="end" mt="sm">
          <TextInput
            label="What it waits for"
            value={draft.waitsNote}
            maxLength={300}
            onChange={(e) => set({ waitsNote: e.currentTarget.value })}
          />
          <DayField
            label="Ask again on"
            value={draft.waitsUntil ?? ''}
            onChange={(waitsUntil) => set({ waitsUntil })}
          />
        </Group>
      )}
      <Group mt="sm">
        <Button variant="default" disabled={!dirty || closed} onClick={() => keep()}>
          Keep what it waits for
        </Button>
        {job.waitsFor !== '' && (
          <Button disabled={closed} onClick={() => keep({ waitsFor: '', waitsNote: '', waitsUntil: '' })}>
            It is here: go on
          </Button>
        )}
      </Group>
    </>
  )
}

/** What was lost or broken in our hands: said at once, and told to the owner before the clock goes. */
function Losses() {
  const { job, observations } = useJobData()
  const seen = useObservations()
  const [what, setWhat] = useState('')
  const losses = lossesOf(observations)
  const add = () => {
    if (what.trim() === '') return
    seen.set(`${LOSS_KEY}${uuid()}`, { answer: 'not told', note: what.trim() })
    setWhat('')
  }
  return (
    <>
      <h2>Lost or broken in our hands</h2>
      {losses.map((loss) => (
        <p key={loss.key}>
          <Mark state={loss.told ? 'sound' : 'must'} label={loss.told ? 'told' : 'not told'} /> <b>{loss.what}</b>,{' '}
          {loss.told ? 'the owner was told.' : 'the owner does not know yet.'}{' '}
          <Button
            variant="default"
            size="compact-md"
            disabled={job.closedAt !== null}
            onClick={() => seen.set(loss.key, { answer: loss.told ? 'not told' : 'told' })}
          >
            {loss.told ? 'Not told after all' : 'The owner was told'}
          </Button>{' '}
          <Button
            variant="subtle"
            size="compact-md"
            disabled={job.closedAt !== null}
            onClick={() => seen.takeBack(loss.key)}
          >
            It was found
          </Button>
        </p>
      ))}
      <Group align="end">
        <TextInput
          label="What, and how"
          placeholder="a pivot broke, bent back"
          value={what}
          maxLength={300}
          disabled={job.closedAt !== null}
          onChange={(e) => setWhat(e.currentTarget.value)}
          onKeyDown={(e) => e.key === 'Enter' && add()}
        />
        <Button variant="default" disabled={what.trim() === '' || job.closedAt !== null} onClick={add}>
          Write it down
        </Button>
      </Group>
    </>
  )
}

/** How it came, and the ways out: back as it came, called off, opened again. */
function Way({ job }: { job: JobRow }) {
  const change = useChange()
  const navigate = useNavigate()
  const [reason, setReason] = useState('')
  const reopen = useReopen(job.id)
  const closed = job.closedAt !== null
  const callOff = () =>
    change.mutate(
      { method: 'POST', path: `/jobs/${job.id}/call-off`, body: { reason: reason.trim() } },
      { onError: sayNotKept, onSuccess: () => void navigate('/') },
    )
  return (
    <>
      <h2 className={parts.next}>Its way</h2>
      <p>
        Came {whenShort(job.receivedAt)}
        {job.partedAt !== null && `, parted ${whenShort(job.partedAt)}`}
        {job.closedAt !== null &&
          `, ${job.ending === 'called-off' ? 'called off' : 'handed over'} ${whenShort(job.closedAt)}`}
        . <Link to="../card">Handing over</Link>
      </p>
      {closed ? (
        <Button variant="default" onClick={reopen}>
          Open it again
        </Button>
      ) : job.partedAt === null ? (
        <Group align="end">
          <TextInput
            label="Call it off, because"
            description="It stays in the book, and off the bench."
            value={reason}
            maxLength={300}
            onChange={(e) => setReason(e.currentTarget.value)}
          />
          <Button variant="default" disabled={reason.trim().length < 4} onClick={callOff}>
            Call this job off
          </Button>
        </Group>
      ) : (
        <p className="quiet">Its plates were parted, so it can’t be called off: assemble it and hand it back.</p>
      )}
    </>
  )
}
