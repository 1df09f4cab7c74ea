import type { ArchiveClash, ArchiveShopKind, ArchiveTold } from '@treadle/contract'
import { Button, Checkbox, Fieldset, FileButton, Group, Progress } from '@mantine/core'
import { useMutation } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { queryClient, sentenceOf } from '../data/queries.ts'
import { sendArchive, type ArchiveOnItsWay } from '../data/sendArchive.ts'
import { Mark } from '../parts/Mark.tsx'
import parts from '../parts/parts.module.css'
import { count, spacedOut, whenShort } from '../parts/say.ts'
import { differencesInWords } from './archiveWords.ts'
import styles from './SettingsPage.module.css'

/** Of an archive that was looked at: which clashing rows are taken, and which of the shop's own. */
interface Wanted {
  theirs: string[]
  kinds: string[]
}

const NOTHING: Wanted = { theirs: [], kinds: [] }

/** Sends an archive, to be looked at or to be brought in; tells how far it is, and stops it. */
function useArchive() {
  const [at, setAt] = useState<ArchiveOnItsWay | null>(null)
  const stop = useRef<AbortController | null>(null)
  // A page that is left gives up what it had begun.
  useEffect(() => () => stop.current?.abort(), [])
  const send = useMutation<ArchiveTold, Error, { zip: File; wanted: Wanted | null }>({
    mutationFn: async ({ zip, wanted }) => {
      stop.current = new AbortController()
      const query =
        wanted === null
          ? ''
          : `?keep=true&take=${encodeURIComponent(wanted.theirs.join(','))}&kinds=${encodeURIComponent(wanted.kinds.join(','))}`
      return sendArchive(zip, query, setAt, stop.current.signal)
    },
    onSuccess: (told) => void (told.kept && queryClient.invalidateQueries()),
    onSettled: () => setAt(null),
    retry: false,
  })
  return { send, at, stop: () => stop.current?.abort() }
}

/** The workshop carried away in one zip, and an archive of another Treadle laid beside what is here and brought in. */
export function TakeElsewhere() {
  const [file, setFile] = useState<File | null>(null)
  const [wanted, setWanted] = useState(NOTHING)
  const { send, at, stop } = useArchive()
  const again = useRef<() => void>(null)
  const open = (chosen: File | null) => {
    if (!chosen) return
    // The same file may be chosen once more.
    again.current?.()
    // A browser may not know the kind of a zip; the server looks at what is in it.
    const zip = new File([chosen], chosen.name, { type: 'application/zip' })
    setFile(zip)
    setWanted(NOTHING)
    send.mutate({ zip, wanted: null })
  }
  const { data: told, error, isPending } = send
  return (
    <Fieldset legend="Take it elsewhere">
      <p className="quiet">
        Everything in open formats, one zip: rows as JSON with their schema, photographs, sounds as WAV, plates as SVG.
        It comes in again on another Treadle with nothing lost. A single clock’s history is carried away on its own page
        under <Link to="/clocks">Clocks</Link>.
      </p>
      <Group>
        <Button component="a" href="/api/archive.zip" download variant="default">
          The whole workshop
        </Button>
        <FileButton onChange={open} resetRef={again} accept=".zip,application/zip" disabled={isPending}>
          {(props) => (
            <Button variant="default" disabled={isPending} {...props}>
              Bring in an archive
            </Button>
          )}
        </FileButton>
      </Group>
      {isPending && <OnItsWay at={at} onStop={stop} />}
      {error && !isPending && (
        <p role="alert" className={styles.archive}>
          <Mark state="danger" label="not brought in" /> {file?.name}: {sentenceOf(error)} Nothing was changed.
        </p>
      )}
      {told && !error && !isPending && file && (
        <Told told={told} wanted={wanted} onWanted={setWanted} onKeep={() => send.mutate({ zip: file, wanted })} />
      )}
    </Fieldset>
  )
}

const STEPS: Record<ArchiveOnItsWay['step'], string> = {
  send: 'It is sent',
  read: 'It is read through, every picture and sound of it',
  compare: 'It is laid beside what is here',
  files: 'Its pictures and sounds are kept',
  rows: 'Its rows go in',
}

/** How far it is. What was stopped has changed nothing. */
function OnItsWay({ at, onStop }: { at: ArchiveOnItsWay | null; onStop: () => void }) {
  const percent = at && at.of > 0 ? Math.min(100, (100 * at.done) / at.of) : 0
  return (
    <div className={styles.archive} role="status">
      <p>
        {STEPS[at?.step ?? 'send']}: {percent.toFixed(0)} %.
      </p>
      <Progress value={percent} aria-label={STEPS[at?.step ?? 'send']} color="var(--brass-line)" />
      <Button variant="default" mt="sm" onClick={onStop}>
        Stop
      </Button>
    </div>
  )
}

/** What is in an archive, against what is here; what is to be taken is chosen here. */
function Told({
  told,
  wanted,
  onWanted,
  onKeep,
}: {
  told: ArchiveTold
  wanted: Wanted
  onWanted: (wanted: Wanted) => void
  onKeep: () => void
}) {
  const isNew = told.fresh.length > 0 || told.freshFiles > 0
  return (
    <div className={styles.archive} role="status">
      <p>
        {told.of === 'clock' ? 'A clock' : 'A workshop'} from {told.workshop || 'another workshop'}, as of{' '}
        {whenShort(told.at)}. {told.kept ? 'It is in.' : isNew ? 'This would come in:' : 'All of it is here already.'}
      </p>
      {isNew && (
        <p>
          {told.fresh.map((f) => `${spacedOut(f.table)} ${f.rows}`).join(', ')}
          {told.freshFiles > 0 && `; ${count(told.freshFiles, 'picture or sound', 'pictures and sounds')}`}.
        </p>
      )}
      {told.same > 0 && <p className="quiet">{count(told.same, 'row is', 'rows are')} here just so.</p>}
      {told.setAside > 0 && (
        <p>
          <Mark state="watch" label="no gate of ours" /> {count(told.setAside, 'gate was', 'gates were')} set aside
          elsewhere: that {told.kept ? 'stands' : 'will stand'} in the journal, and opens nothing here.
        </p>
      )}
      {told.leftOut.length > 0 && (
        <p className="quiet">
          Left out, since it is the other shop’s own:{' '}
          {told.leftOut.map((l) => `${spacedOut(l.table)} ${l.rows}`).join(', ')}.
        </p>
      )}
      {told.taken.length > 0 && (
        <p>
          {count(told.taken.length, 'row was', 'rows were')} taken as in the archive; the journal keeps what stood here.
        </p>
      )}
      {told.renumbered.map((r) => (
        <p key={r.was}>
          Number {r.was} is another’s here, or none that can be: it{' '}
          {r.now === null ? 'gets the next one' : `is number ${r.now} now`}. “{r.clock}”
        </p>
      ))}
      {told.clashes.length > 0 && (
        <Clashes
          clashes={told.clashes}
          more={told.moreClashes}
          kept={told.kept}
          theirs={wanted.theirs}
          onTheirs={(theirs) => onWanted({ ...wanted, theirs })}
        />
      )}
      {told.shop.length > 0 && (
        <ShopKinds
          kinds={told.shop}
          kept={told.kept}
          wanted={wanted.kinds}
          onWanted={(kinds) => onWanted({ ...wanted, kinds })}
        />
      )}
      {!told.kept && (isNew || wanted.theirs.length > 0 || wanted.kinds.length > 0) && (
        <Button size="lg" mt="sm" onClick={onKeep}>
          Bring it in
        </Button>
      )}
    </div>
  )
}

/** Rows that stand here otherwise: side by side, ours unless theirs is taken. */
function Clashes({
  clashes,
  more,
  kept,
  theirs,
  onTheirs,
}: {
  clashes: ArchiveClash[]
  more: number
  kept: boolean
  theirs: string[]
  onTheirs: (keys: string[]) => void
}) {
  return (
    <>
      <p>
        <Mark state="watch" label="otherwise" /> {count(clashes.length + more, 'row stands', 'rows stand')} here
        otherwise than in the archive. {kept ? '' : 'What is here stays, unless you take theirs.'}
      </p>
      <ul className={parts.list}>
        {clashes.map((clash) => {
          const key = `${clash.table}~${clash.key}`
          return (
            <li key={key}>
              {!kept && (
                <Checkbox
                  size="md"
                  aria-label={`Take theirs: ${spacedOut(clash.table)}, ${clash.title}`}
                  disabled={!clash.mayTake}
                  checked={theirs.includes(key)}
                  onChange={(e) => onTheirs(toggled(theirs, key, e.currentTarget.checked))}
                />
              )}
              <span className={parts.grow}>
                <Differences row={clash} />
                {!clash.mayTake && (
                  <span className={styles.clash}>Written or agreed for good: it stays as it is here.</span>
                )}
              </span>
            </li>
          )
        })}
      </ul>
      {more > 0 && <p className="quiet">and {more} more, which stay as they are here.</p>}
    </>
  )
}

const toggled = (list: string[], key: string, on: boolean) => (on ? [...list, key] : list.filter((k) => k !== key))

/** A row by its name, and what of it is otherwise here and there, in words. */
function Differences({ row, named = false }: { row: ArchiveClash; named?: boolean }) {
  const title = named ? row.title : [spacedOut(row.table), row.title].filter(Boolean).join(', ')
  return (
    <>
      {title !== '' && <b>{title}</b>}
      {differencesInWords(row).map(({ label, here, there }) => (
        <span key={label} className={styles.clash}>
          {label}: here {here}, there {there}
        </span>
      ))}
    </>
  )
}

/** Rows of one kind that are listed before the rest is only counted. */
const LISTED = 12

/** What is the shop's own, where there is a workshop already: brought in kind by kind, and only where it is asked for. */
function ShopKinds({
  kinds,
  kept,
  wanted,
  onWanted,
}: {
  kinds: ArchiveShopKind[]
  kept: boolean
  wanted: string[]
  onWanted: (kinds: string[]) => void
}) {
  return (
    <>
      <p>
        <Mark state="watch" label="the shop’s own" />{' '}
        {kept
          ? 'Of the shop’s own this was not asked for, and stays out:'
          : 'There is a workshop here already. Of the other shop’s own comes in only what you ask for:'}
      </p>
      <ul className={parts.list}>
        {kinds.map(({ table, fresh, otherwise, rows }) => (
          <li key={table}>
            {!kept && (
              <Checkbox
                size="md"
                aria-label={`Bring in: ${spacedOut(table)}`}
                checked={wanted.includes(table)}
                onChange={(e) => onWanted(toggled(wanted, table, e.currentTarget.checked))}
              />
            )}
            <span className={parts.grow}>
              <b>{spacedOut(table)}</b>: {fresh} new, {otherwise} otherwise here
              {rows.slice(0, LISTED).map((row) =>
                row.fields.every((f) => f.here === null) ? (
                  <span key={row.key} className={styles.clash}>
                    New: {row.title || row.key}
                  </span>
                ) : (
                  <span key={row.key} className={styles.clash}>
                    <Differences row={row} named />
                  </span>
                ),
              )}
              {fresh + otherwise > LISTED && (
                <span className={styles.clash}>and {fresh + otherwise - Math.min(LISTED, rows.length)} more</span>
              )}
            </span>
          </li>
        ))}
      </ul>
    </>
  )
}
