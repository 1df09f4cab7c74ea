import type { RateEventChange, ReadingChange } from '@treadle/contract'
import { Button, FileButton, Group, Textarea } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'
import { request } from '../../data/api.ts'
import { sayNotKept, useChange } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { count, signed, whenShort } from '../../parts/say.ts'
import styles from './Rate.module.css'

interface Looked {
  readings: ReadingChange[]
  events: RateEventChange[]
  wrong: { line: number; message: string }[]
  kept: number
}

/** Several readings at once, pasted from a sheet or out of a file: looked at first, then kept; and the log as a sheet. */
export function ManyReadings() {
  const { job } = useJobData()
  const change = useChange<Looked>()
  const [text, setText] = useState('')
  const [looked, setLooked] = useState<Looked | null>(null)
  const path = `/jobs/${job.id}/log`
  const look = (lines: string) => {
    setText(lines)
    request<Looked>('POST', path, { text: lines, keep: false }).then(setLooked, sayNotKept)
  }
  const keep = () =>
    change.mutate(
      { method: 'POST', path, body: { text, keep: true } },
      {
        onError: sayNotKept,
        onSuccess: ({ kept }) => {
          notifications.show({
            message: kept === 0 ? 'All of them were there already.' : `Kept: ${count(kept, 'line')}.`,
          })
          setText('')
          setLooked(null)
        },
      },
    )
  const found = looked ? looked.readings.length + looked.events.length : 0
  return (
    <details className={styles.rule}>
      <summary>Several at once, or as a sheet</summary>
      <Textarea
        label="Lines from a sheet"
        description="When, how many seconds ahead, and if you like how it was read and how warm it was: 2026-11-27 09:05, −12.5, eye, 18.5"
        rows={5}
        resize="vertical"
        value={text}
        onChange={(e) => {
          setText(e.currentTarget.value)
          setLooked(null)
        }}
      />
      <Group mt="xs">
        <Button variant="default" disabled={text.trim() === ''} onClick={() => look(text)}>
          Look at them
        </Button>
        <FileButton accept=".csv,text/csv,text/plain" onChange={(file) => void file?.text().then(look)}>
          {(props) => (
            <Button variant="default" {...props}>
              From a file
            </Button>
          )}
        </FileButton>
        <Button component="a" variant="subtle" href={`/api/jobs/${job.id}/log.csv`} download="treadle-rate.csv">
          Save the log as CSV
        </Button>
      </Group>
      {looked && (
        <>
          <ul>
            {looked.readings.slice(0, 8).map((r) => (
              <li key={r.id}>
                {whenShort(r.at)}: <b>{signed(r.errorSeconds, 1)} s</b>, ± {r.sigmaSeconds}
              </li>
            ))}
            {looked.readings.length > 8 && <li>and {looked.readings.length - 8} more</li>}
            {looked.events.length > 0 && <li>{count(looked.events.length, 'event')}</li>}
            {looked.wrong.slice(0, 8).map((w) => (
              <li key={w.line}>
                Line {w.line}: {w.message}
              </li>
            ))}
          </ul>
          <Button disabled={found === 0} loading={change.isPending} onClick={keep}>
            Keep the {count(found, 'line')} that can be read
          </Button>
        </>
      )}
    </details>
  )
}
