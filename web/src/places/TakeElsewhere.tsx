import type { ArchiveClash, ArchiveTold } from '@treadle/contract'
import { Button, Checkbox, Fieldset, FileButton, Group } from '@mantine/core'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { request } from '../data/api.ts'
import { queryClient, sentenceOf } from '../data/queries.ts'
import { Mark } from '../parts/Mark.tsx'
import parts from '../parts/parts.module.css'
import { count, whenShort } from '../parts/say.ts'
import styles from './SettingsPage.module.css'

const SHOWN = 8

/** The workshop carried away in one zip, and an archive of another Treadle laid beside what is here and brought in. */
export function TakeElsewhere() {
  const [file, setFile] = useState<File | null>(null)
  const [theirs, setTheirs] = useState<string[]>([])
  const look = useMutation<ArchiveTold, Error, File>({ mutationFn: (zip) => request('POST', '/archive', zip) })
  const keep = useMutation<ArchiveTold, Error, File>({
    mutationFn: (zip) => request('POST', `/archive?keep=true&take=${encodeURIComponent(theirs.join(','))}`, zip),
    onSuccess: () => void queryClient.invalidateQueries(),
  })
  const open = (chosen: File | null) => {
    if (!chosen) return
    // A browser may not know the kind of a zip; the server looks at what is in it.
    const zip = new File([chosen], chosen.name, { type: 'application/zip' })
    setFile(zip)
    setTheirs([])
    keep.reset()
    look.mutate(zip)
  }
  const told = keep.data ?? look.data
  const error = keep.error ?? look.error
  const isNew = told !== undefined && (told.fresh.length > 0 || told.freshFiles > 0)
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
        <FileButton onChange={open} accept=".zip,application/zip">
          {(props) => (
            <Button variant="default" loading={look.isPending} {...props}>
              Bring in an archive
            </Button>
          )}
        </FileButton>
      </Group>
      {error && (
        <p role="alert" className={styles.archive}>
          <Mark state="danger" label="not brought in" /> {file?.name}: {sentenceOf(error)} Nothing was changed.
        </p>
      )}
      {told && !error && (
        <div className={styles.archive} role="status">
          <p>
            {told.of === 'clock' ? 'A clock' : 'A workshop'} from {told.workshop || 'another workshop'}, as of{' '}
            {whenShort(told.at)}.{' '}
            {told.kept ? 'It is in.' : isNew ? 'This would come in:' : 'All of it is here already.'}
          </p>
          {isNew && (
            <p>
              {told.fresh.map((f) => `${f.table.replaceAll('_', ' ')} ${f.rows}`).join(', ')}
              {told.freshFiles > 0 && `; ${count(told.freshFiles, 'picture or sound', 'pictures and sounds')}`}.
            </p>
          )}
          {told.same > 0 && <p className="quiet">{count(told.same, 'row is', 'rows are')} here just so.</p>}
          {told.taken.length > 0 && (
            <p>
              {count(told.taken.length, 'row was', 'rows were')} taken as in the archive; the journal keeps what stood
              here.
            </p>
          )}
          {told.renumbered.map((r) => (
            <p key={r.was}>
              Number {r.was} is another’s here: it {r.now === null ? 'gets the next one' : `is number ${r.now} now`}. “
              {r.clock}”
            </p>
          ))}
          {told.clashes.length > 0 && (
            <Clashes
              clashes={told.clashes}
              more={told.moreClashes}
              kept={told.kept}
              theirs={theirs}
              onTheirs={setTheirs}
            />
          )}
          {!told.kept && (isNew || theirs.length > 0) && file && (
            <Button size="lg" mt="sm" loading={keep.isPending} onClick={() => keep.mutate(file)}>
              Bring it in
            </Button>
          )}
        </div>
      )}
    </Fieldset>
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
                  aria-label={`Take theirs: ${clash.table.replaceAll('_', ' ')}, ${clash.title}`}
                  disabled={!clash.mayTake}
                  checked={theirs.includes(key)}
                  onChange={(e) =>
                    onTheirs(e.currentTarget.checked ? [...theirs, key] : theirs.filter((k) => k !== key))
                  }
                />
              )}
              <span className={parts.grow}>
                <b>
                  {clash.table.replaceAll('_', ' ')}
                  {clash.title === '' ? '' : `, ${clash.title}`}
                </b>
                {clash.fields.slice(0, SHOWN).map(({ name, here, there }) => (
                  <span key={name} className={styles.clash}>
                    {name}: here {inWords(here)}, there {inWords(there)}
                  </span>
                ))}
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

function inWords(value: unknown): string {
  const words = typeof value === 'string' ? `“${value}”` : JSON.stringify(value)
  return words.length > 90 ? `${words.slice(0, 90)}…` : words
}
