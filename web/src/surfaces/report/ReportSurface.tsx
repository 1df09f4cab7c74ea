import { CONDITION_KIND_TITLES, CONDITION_KINDS, PART_CLASS_TITLES, type PhotoRow } from '@treadle/contract'
import { Button, Group, SegmentedControl, Textarea } from '@mantine/core'
import { useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useObservations } from '../../job/useObservations.ts'
import { Fold } from '../../parts/Fold.tsx'
import parts from '../../parts/parts.module.css'
import { useDraft } from '../../parts/useDraft.ts'
import { usePaper } from '../../parts/usePaper.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { BAG_KEY, beforeAndAfter, changesOf, pictureKey, picturesOf, workOf, type PictureSide } from './reportOf.ts'
import paper from '../../parts/paper.module.css'
import styles from './Report.module.css'
import { dayLike } from '../../parts/say.ts'

/** What was there, what was changed, what was kept: the report that goes home with an old clock. */
export function ReportSurface() {
  const data = useJobData()
  const { data: settings } = useSettings()
  const seen = useObservations()
  usePaper('A4', '16mm')
  usePedalAction({ label: 'Press to print the report', press: () => window.print() })
  const { job, clock, owner, conditions, photos } = data
  const bag = seen.of(BAG_KEY)?.note ?? ''
  const { row: draft, set, forget } = useDraft({ bag }, `bag ${job.id}`)
  if (!settings) return null
  const day = (at: string) => dayLike(at, '27 November 2026')
  const pictures = picturesOf(data)
  const sideOf = (p: PhotoRow): PictureSide =>
    pictures.before.includes(p) ? 'before' : pictures.after.includes(p) ? 'after' : 'out'
  const figures = beforeAndAfter(data)
  const changes = changesOf(data)
  const work = workOf(data, settings)
  return (
    <div className={styles.columns}>
      <section className={paper.typed}>
        <Group mb="md">
          <Button size="lg" onClick={() => window.print()}>
            Print the report
          </Button>
        </Group>
        <Textarea
          label="Kept in the bag, with the clock"
          description="Parts that came off and go home with it"
          autosize
          minRows={2}
          value={draft.bag}
          onChange={(e) => set({ bag: e.currentTarget.value })}
          onBlur={() => {
            if (draft.bag !== bag) seen.set(BAG_KEY, { note: draft.bag })
            forget()
          }}
        />
        <h2>Pictures</h2>
        {photos.length === 0 && <p className="quiet">None was taken.</p>}
        <Fold title={<b>Which are shown: {pictures.before.length + pictures.after.length}</b>}>
          <ul className={parts.list}>
            {photos.map((p) => (
              <li key={p.id}>
                <img src={`/api/photos/${p.id}/thumb`} alt="" width={64} />
                <span className={parts.grow}>
                  {p.caption || 'No name'}
                  <br />
                  <SegmentedControl
                    aria-label={`${p.caption || 'Picture'}: where it is shown`}
                    size="sm"
                    value={sideOf(p)}
                    onChange={(side) => seen.set(pictureKey(p.id), { answer: side })}
                    data={[
                      { value: 'before', label: 'before' },
                      { value: 'after', label: 'after' },
                      { value: 'out', label: 'not shown' },
                    ]}
                  />
                </span>
              </li>
            ))}
          </ul>
        </Fold>
      </section>
      <article className={styles.sheet} aria-label="The report">
        <header>
          <div>
            <p className={paper.shop}>
              {[settings.workshop, settings.place, settings.phone].filter(Boolean).join(', ')}
            </p>
            <h1>{clock.name}</h1>
            <p>
              Report on its repair, for {owner.name}. Job {job.number}, from {day(job.receivedAt)} to{' '}
              {job.closedAt === null ? 'now' : day(job.closedAt)}.
            </p>
            {clock.marks !== '' && <p>Marks: {clock.marks}</p>}
          </div>
        </header>
        <h2>As it came</h2>
        <p>“{job.complaint}”</p>
        {conditions.length > 0 && (
          <table>
            <thead>
              <tr>
                <th scope="col">What</th>
                <th scope="col">Class</th>
                <th scope="col">Note</th>
              </tr>
            </thead>
            <tbody>
              {CONDITION_KINDS.flatMap((kind) =>
                conditions
                  .filter((c) => c.kind === kind)
                  .map((c) => (
                    <tr key={c.id}>
                      <td>
                        {c.name}
                        {kind !== 'part' && <em> {CONDITION_KIND_TITLES[kind].toLowerCase()}</em>}
                      </td>
                      <td>{PART_CLASS_TITLES[c.class]}</td>
                      <td>{c.note}</td>
                    </tr>
                  )),
              )}
            </tbody>
          </table>
        )}
        <Pictures title="Before" of={pictures.before} />
        <h2>What was done</h2>
        <ul>
          {work.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
        {changes.length > 0 && (
          <>
            <h2>Changed, and made now</h2>
            <ul>
              {changes.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </>
        )}
        {bag !== '' && (
          <>
            <h2>Kept in the bag</h2>
            <p className={styles.lines}>{bag}</p>
          </>
        )}
        {figures.length > 0 && (
          <table className={styles.figures}>
            <thead>
              <tr>
                <th scope="col">Measured</th>
                <th scope="col">as it came</th>
                <th scope="col">as it left</th>
              </tr>
            </thead>
            <tbody>
              {figures.map((f) => (
                <tr key={f.title}>
                  <th scope="row">{f.title}</th>
                  <td>{f.before}</td>
                  <td>{f.after}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <Pictures title="After" of={pictures.after} />
      </article>
    </div>
  )
}

function Pictures({ title, of }: { title: string; of: PhotoRow[] }) {
  if (of.length === 0) return null
  return (
    <>
      <h2>{title}</h2>
      <div className={styles.pictures}>
        {of.map((p) => (
          <figure key={p.id}>
            <img src={`/api/photos/${p.id}/screen`} alt={p.caption || title} />
            <figcaption>
              {p.caption}
              {p.caption === '' ? '' : ', '}
              {dayLike(p.takenAt, '27 November 2026')}
            </figcaption>
          </figure>
        ))}
      </div>
    </>
  )
}
