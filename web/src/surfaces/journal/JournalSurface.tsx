import type { JournalEntry } from '@treadle/contract'
import { Button, Group, Textarea, TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { sentenceOf, useChange, useJournal } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Loaded } from '../../parts/Loading.tsx'
import { broughtWords, spoken, whenShort } from '../../parts/say.ts'
import styles from './Journal.module.css'

/** Everything that happened to this clock on this visit; nothing in it is ever changed, only corrected by a new entry. */
export function JournalSurface() {
  const { job } = useJobData()
  const [words, setWords] = useState('')
  const [asked] = useDebouncedValue(words.trim(), 200)
  const entries = useJournal(job.id, asked)
  const [correcting, setCorrecting] = useState<JournalEntry | null>(null)
  const [text, setText] = useState('')
  const change = useChange()
  const write = () => {
    if (text.trim() === '') return
    change.mutate(
      {
        method: 'POST',
        path: `/jobs/${job.id}/journal`,
        body: { id: uuid(), text: text.trim(), corrects: correcting?.id ?? null },
      },
      {
        onSuccess: () => {
          setText('')
          setCorrecting(null)
        },
        onError: (error) => notifications.show({ color: 'red', title: 'Not written', message: sentenceOf(error) }),
      },
    )
  }
  return (
    <div className={styles.columns}>
      <section>
        <TextInput
          label="Find in the journal"
          value={words}
          onChange={(e) => setWords(e.currentTarget.value)}
          mb="md"
        />
        <Loaded query={entries}>
          {(list) => (
            <ol className={styles.list}>
              {list.map((entry) => {
                const corrected = list.find((e) => e.corrects === entry.id)
                const names = entry.corrects === null ? undefined : list.find((e) => e.id === entry.corrects)
                return (
                  <li key={entry.id}>
                    <span className="quiet">
                      {whenShort(entry.at)}
                      <br />
                      {entry.who}
                    </span>
                    <div>
                      {entry.corrects !== null && (
                        <span className={styles.corrects}>
                          Corrects {names ? `“${names.text.slice(0, 60)}”` : 'an earlier entry'}:{' '}
                        </span>
                      )}
                      {spoken(entry.text)}
                      {corrected && <span className={styles.corrects}> Corrected {whenShort(corrected.at)}.</span>}
                      {entry.brought !== null && <p className={styles.brought}>{broughtWords(entry.brought)}</p>}
                    </div>
                    <Button
                      variant="subtle"
                      size="compact-md"
                      onClick={() => setCorrecting(entry)}
                      aria-label={`Correct: ${entry.text.slice(0, 40)}`}
                    >
                      correct
                    </Button>
                  </li>
                )
              })}
              {list.length === 0 && <li className="quiet">Nothing found under those words.</li>}
            </ol>
          )}
        </Loaded>
      </section>
      <section>
        <h2>{correcting ? 'Correct an entry' : 'Write something down'}</h2>
        {correcting && <p className={styles.corrects}>“{correcting.text}” stays as it is; what you write names it.</p>}
        <Textarea
          aria-label={correcting ? 'The correction' : 'Note'}
          autosize
          minRows={3}
          value={text}
          onChange={(e) => setText(e.currentTarget.value)}
        />
        <Group mt="sm">
          <Button onClick={write} disabled={text.trim() === ''} loading={change.isPending}>
            Write it
          </Button>
          {correcting && (
            <Button variant="default" onClick={() => setCorrecting(null)}>
              A note instead
            </Button>
          )}
        </Group>
      </section>
    </div>
  )
}
