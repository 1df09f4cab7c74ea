import { jobChangeOf, RUNS, RUNS_TITLES, type JobChange, type JobRow } from '@treadle/contract'
import { Button, Group, SegmentedControl, Stack, Textarea, TextInput } from '@mantine/core'
import { useEffect, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { sayNotKept, useChange } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { NumberField } from '../../parts/NumberField.tsx'
import { PhotoPicker, sendPhotos } from '../../job/PhotoPicker.tsx'
import { SeenBefore } from '../../job/SeenBefore.tsx'
import { useConflict } from '../../parts/useConflict.tsx'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { ClockFigures } from '../../job/ClockFigures.tsx'
import styles from './Arrive.module.css'
import { Things } from './Things.tsx'

const LABELS = {
  complaint: 'In the owner’s words',
  runs: 'Does it run',
  promisedOn: 'Promised for',
  bay: 'Bay',
  cameWith: 'What came with it',
  standsAt: 'Where it stands',
  movedLately: 'Moved lately',
  lastServiced: 'Last serviced',
}

/** What of a job is typed here before it is kept. */
function toldIn({ complaint, promisedOn, standsAt }: JobRow) {
  return { complaint, promisedOn: promisedOn ?? '', standsAt }
}

/** What came through the door, and what is seen before anything is touched. */
export function ArriveSurface() {
  const data = useJobData()
  const { job } = data
  const navigate = useNavigate()
  const change = useChange()
  const conflict = useConflict(LABELS)
  const told = () => toldIn(job)
  const [draft, setDraft] = useState(told)
  useEffect(() => {
    setDraft(told())
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the draft follows the row, not itself
  }, [job.complaint, job.promisedOn, job.standsAt])

  const save = (part: Partial<JobChange>, version = job.version) => {
    const body: JobChange = {
      ...jobChangeOf(job),
      ...draft,
      promisedOn: draft.promisedOn || null,
      ...part,
      version,
    }
    change.mutate(
      { method: 'PATCH', path: `/jobs/${job.id}`, body },
      {
        onError: (error) => {
          const met = conflict.meet(
            error,
            body,
            (now) => save(part, now),
            (theirs) => setDraft(toldIn(theirs as unknown as JobRow)),
          )
          if (!met) sayNotKept(error)
        },
      },
    )
  }
  const heard = data.listenings.length > 0
  usePedalAction({
    label: heard ? 'Press to send it to the strip' : 'Press to hear it before touching it',
    hint: heard ? `heard ${data.listenings.length === 1 ? 'once' : `${data.listenings.length} times`}` : undefined,
    press: () => {
      if (!heard) {
        void navigate(`/jobs/${job.id}/listen`)
        return
      }
      const from = job.bay
      save({ bay: 'strip' })
      void navigate(`/jobs/${job.id}/power`)
      return () => save({ bay: from }, job.version + 1)
    },
  })
  return (
    <div className={styles.columns}>
      {conflict.dialog}
      <div className={styles.wide}>
        <SeenBefore clockId={data.clock.id} exceptJob={job.id} />
      </div>
      <section>
        <h2>What the owner says</h2>
        <Textarea
          aria-label="In the owner’s words"
          autosize
          minRows={3}
          value={draft.complaint}
          onChange={(e) => setDraft({ ...draft, complaint: e.currentTarget.value })}
          styles={{ input: { fontFamily: 'var(--serif-text)', fontSize: '1.15rem' } }}
        />
        <TextInput
          label="Where it stands at home"
          value={draft.standsAt}
          maxLength={300}
          onChange={(e) => setDraft({ ...draft, standsAt: e.currentTarget.value })}
          mt="sm"
        />
        <Group mt="sm" gap="lg" align="end">
          <Stack gap={4}>
            <span id="moved">Moved lately</span>
            <SegmentedControl
              aria-labelledby="moved"
              value={job.movedLately}
              onChange={(movedLately) => save({ movedLately })}
              data={[
                { value: 'yes', label: 'Yes' },
                { value: 'no', label: 'No' },
                { value: 'unknown', label: 'Don’t know' },
              ]}
            />
          </Stack>
          <NumberField
            label="Last serviced, year"
            value={job.lastServiced}
            min={1500}
            max={2200}
            whole
            onKeep={(lastServiced) => save({ lastServiced })}
          />
        </Group>
        <Group align="end" mt="sm">
          <TextInput
            type="date"
            label="Promised for"
            value={draft.promisedOn}
            onChange={(e) => setDraft({ ...draft, promisedOn: e.currentTarget.value })}
          />
          <Button
            variant="default"
            disabled={JSON.stringify(draft) === JSON.stringify(told())}
            onClick={() => save({})}
          >
            Keep these
          </Button>
        </Group>
        <h2 className={styles.next}>Observe before touching</h2>
        <SegmentedControl
          aria-label="Does it run"
          value={job.runs}
          onChange={(runs) => save({ runs: runs })}
          data={RUNS.map((value) => ({ value, label: RUNS_TITLES[value] }))}
          size="md"
        />
        <p className={styles.heard}>
          {heard
            ? `Heard ${data.listenings.length === 1 ? 'once' : `${data.listenings.length} times`}.`
            : 'Not heard yet.'}{' '}
          <Link to="../listen">Listen to it</Link>
        </p>
        <p className={styles.heard}>
          <Link to="../observe">Walk round it</Link> before anything is touched.
        </p>
        <h2 className={styles.next}>What came with it</h2>
        <Things onSave={(cameWith) => save({ cameWith })} />
      </section>
      <section>
        <h2>Photos</h2>
        <div className={styles.photos}>
          {data.photos.map((photo) => (
            <a key={photo.id} href={`/api/photos/${photo.id}/original`} target="_blank" rel="noreferrer">
              <img
                src={`/api/photos/${photo.id}/screen`}
                width={photo.width}
                height={photo.height}
                alt={photo.caption || 'Photo of the clock'}
                loading="lazy"
              />
              <span className="quiet">{photo.caption}</span>
            </a>
          ))}
        </div>
        <PhotoPicker files={[]} onChange={(files) => void sendPhotos(job.id, files)} />
        <h2 className={styles.next}>The clock’s figures</h2>
        <ClockFigures clock={data.clock} />
      </section>
    </div>
  )
}
