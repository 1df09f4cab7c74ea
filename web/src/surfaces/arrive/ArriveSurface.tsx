import { RUNS, type JobChange } from '@treadle/contract'
import { Button, Group, SegmentedControl, Select, Textarea, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useEffect, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { sentenceOf, useChange } from '../../app/queries.ts'
import { useJobData } from '../../job/JobPage.tsx'
import { PhotoPicker, sendPhotos } from '../../parts/PhotoPicker.tsx'
import { useConflict } from '../../parts/useConflict.tsx'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { ClockFigures } from './ClockFigures.tsx'
import styles from './Arrive.module.css'

const RUNS_TITLES: Record<(typeof RUNS)[number], string> = {
  runs: 'runs',
  stops: 'runs and stops',
  dead: 'does not run',
  'not-tried': 'not tried',
}
const LABELS = {
  complaint: 'In the owner’s words',
  runs: 'Does it run',
  promisedOn: 'Promised for',
  bay: 'Bay',
  cameWith: 'What came with it',
}

/** What came through the door, and what is seen before anything is touched. */
export function ArriveSurface() {
  const data = useJobData()
  const { job } = data
  const navigate = useNavigate()
  const change = useChange()
  const conflict = useConflict(LABELS)
  const [draft, setDraft] = useState({ complaint: job.complaint, promisedOn: job.promisedOn ?? '' })
  useEffect(
    () => setDraft({ complaint: job.complaint, promisedOn: job.promisedOn ?? '' }),
    [job.complaint, job.promisedOn],
  )

  const save = (part: Partial<JobChange>, version = job.version) => {
    const body = {
      bay: job.bay,
      complaint: draft.complaint,
      runs: job.runs,
      cameWith: job.cameWith,
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
            () => setDraft({ complaint: job.complaint, promisedOn: job.promisedOn ?? '' }),
          )
          if (!met) notifications.show({ color: 'red', title: 'Not kept', message: sentenceOf(error) })
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
        <Group align="end" mt="sm">
          <TextInput
            type="date"
            label="Promised for"
            value={draft.promisedOn}
            onChange={(e) => setDraft({ ...draft, promisedOn: e.currentTarget.value })}
          />
          <Button
            variant="default"
            disabled={draft.complaint === job.complaint && (draft.promisedOn || null) === job.promisedOn}
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
        <h2 className={styles.next}>What came with it</h2>
        <ul className={styles.things}>
          {job.cameWith.map((thing, i) => (
            <li key={thing.name}>
              <span>{thing.name}</span>
              <Select
                aria-label={`State of ${thing.name}`}
                size="sm"
                w="9rem"
                value={thing.state}
                data={['present', 'damaged', 'missing']}
                onChange={(state) =>
                  save({ cameWith: job.cameWith.map((c, n) => (n === i ? { ...c, state: state as 'present' } : c)) })
                }
              />
            </li>
          ))}
          {job.cameWith.length === 0 && <li className="quiet">Nothing was written down.</li>}
        </ul>
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
