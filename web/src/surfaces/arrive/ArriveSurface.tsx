import { JobChange, jobChangeOf, RUNS, RUNS_TITLES, type JobRow } from '@treadle/contract'
import { Button, Group, SegmentedControl, Stack, Textarea, TextInput } from '@mantine/core'
import { Link, useNavigate } from 'react-router'
import { sayNotKept, useChange } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { DayField } from '../../parts/DayField.tsx'
import { Figure } from '../../parts/Figure.tsx'
import { PhotoPicker, sendPhotos } from '../../job/PhotoPicker.tsx'
import { SeenBefore } from '../../job/SeenBefore.tsx'
import { without } from '../../parts/clash.ts'
import { keepOver, meetConflict } from '../../parts/conflict.tsx'
import { wordsOf } from '../../parts/fieldWords.ts'
import { dayToday, times } from '../../parts/say.ts'
import { useDraft } from '../../parts/useDraft.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { ClockFigures } from '../../job/ClockFigures.tsx'
import { useMoveTo } from '../../job/useMoveTo.ts'
import styles from './Arrive.module.css'
import { Things } from './Things.tsx'

const WORDS = wordsOf(JobChange)

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
  const { row: draft, base, set: setDraft, dirty, forget } = useDraft(toldIn(job), `told ${job.id}`)

  const send = (row: JobChange, from: object, version: number, done?: () => void) =>
    change.mutate(
      { method: 'PATCH', path: `/jobs/${job.id}`, body: { ...row, version } },
      {
        onSuccess: done,
        onError: (error) => {
          const met = meetConflict(error, {
            words: WORDS,
            base: from,
            mine: row,
            send: (merged, now) => send(merged as JobChange, from, now, done),
            takeTheirs: done,
          })
          if (!met) sayNotKept(error)
        },
      },
    )
  /** One thing that is said by a press; what is still being typed is not sent with it. */
  const save = (part: Partial<JobChange>, version = job.version) =>
    send({ ...jobChangeOf(job), ...part }, without(jobChangeOf(job), part), version)
  const toldOver = (told: typeof draft): JobChange => ({
    ...jobChangeOf(job),
    ...told,
    promisedOn: told.promisedOn || null,
  })
  const keepTold = () => {
    const from = toldOver(base)
    keepOver(
      {
        words: WORDS,
        base: from,
        mine: toldOver(draft),
        send: (row, version) => send(row as JobChange, from, version, forget),
        takeTheirs: forget,
      },
      job,
    )
  }
  const heard = data.listenings.length > 0
  const moveTo = useMoveTo(job)
  usePedalAction(
    job.bay !== 'arrive' || job.closedAt !== null
      ? null
      : {
          label: heard ? 'Press to send it to the strip' : 'Press to hear it before touching it',
          hint: heard ? `heard ${times(data.listenings.length)}` : undefined,
          press: () => {
            if (!heard) {
              void navigate(`/jobs/${job.id}/listen`)
              return
            }
            const back = moveTo('strip')
            void navigate(`/jobs/${job.id}/power`)
            return back
          },
        },
  )
  return (
    <div className={styles.columns}>
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
          onChange={(e) => setDraft({ complaint: e.currentTarget.value })}
          styles={{ input: { fontFamily: 'var(--serif-text)', fontSize: '1.15rem' } }}
        />
        <TextInput
          label="Where it stands at home"
          value={draft.standsAt}
          maxLength={300}
          onChange={(e) => setDraft({ standsAt: e.currentTarget.value })}
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
          <Figure
            label="Last serviced, year"
            value={job.lastServiced}
            of={[JobChange, 'lastServiced']}
            onKeep={(lastServiced) => save({ lastServiced })}
          />
        </Group>
        <Group align="end" mt="sm">
          <DayField
            label="Promised for"
            value={draft.promisedOn}
            error={
              draft.promisedOn !== '' &&
              draft.promisedOn !== job.promisedOn &&
              draft.promisedOn < dayToday() &&
              'That day is over: is it meant so?'
            }
            onChange={(promisedOn) => setDraft({ promisedOn })}
          />
          <Button variant="default" disabled={!dirty} onClick={keepTold}>
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
          {heard ? `Heard ${times(data.listenings.length)}.` : 'Not heard yet.'}{' '}
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
