import type { WatchPage } from '@treadle/contract'
import { Button, FileButton, Group } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'
import { queryClient, sayNotKept, useChange } from '../../data/queries.ts'
import { Figure } from '../../parts/Figure.tsx'
import { count } from '../../parts/say.ts'
import styles from './Watch.module.css'

interface LoggerAnswer {
  read: number
  kept: number
  wrong: { line: number; message: string }[]
}

const COLDEST = -40
const WARMEST = 60

/** How warm it is beside the clock: read off a thermometer now and then, or from the sheet of a logger. */
export function Temperatures({ jobId, page }: { jobId: string; page: WatchPage }) {
  const { watch } = page
  const { temperatures } = watch
  const typed = useChange()
  const [now, setNow] = useState<number | null>(null)
  // A new field for each: once kept it is not kept again as one leaves it.
  const [turn, setTurn] = useState(0)
  const sheet = useChange<LoggerAnswer>()
  const path = `/jobs/${jobId}/watches/${watch.id}`
  const again = () => void queryClient.invalidateQueries({ queryKey: ['watch', watch.id] })
  const add = (celsius: number) =>
    typed.mutate(
      {
        method: 'PUT',
        path: `${path}/temperatures`,
        body: { temperatures: [{ at: new Date().toISOString(), celsius }] },
      },
      { onSuccess: again, onError: sayNotKept },
    )
  const takeAway = () =>
    typed.mutate({ method: 'DELETE', path: `${path}/temperatures` }, { onSuccess: again, onError: sayNotKept })
  const open = async (file: File) => {
    sheet.mutate(
      { method: 'POST', path: `${path}/logger`, body: { text: await file.text() } },
      {
        onError: sayNotKept,
        onSuccess: ({ read, kept, wrong }) => {
          again()
          const [first] = wrong
          notifications.show({
            message: [
              kept > 0
                ? `Kept: ${count(kept, 'temperature')}.`
                : read > 0
                  ? 'None of its temperatures lies in the time of this watch.'
                  : 'No temperature could be read.',
              first ? `Line ${first.line}: ${first.message}${wrong.length > 1 ? ', and others' : ''}.` : '',
            ]
              .filter(Boolean)
              .join(' '),
          })
        },
      },
    )
  }
  const last = temperatures.at(-1)
  return (
    <section aria-label="How warm it is">
      <h3>How warm it is</h3>
      <p className="quiet">
        {last
          ? `${count(temperatures.length, 'temperature')}, from ${lowest(temperatures).toFixed(1)} to ${highest(temperatures).toFixed(1)} °C.`
          : 'Type it now and then, or read a logger’s sheet: what a degree does is told apart from the hours since winding.'}
      </p>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          if (now === null || now < COLDEST || now > WARMEST) return
          add(now)
          setNow(null)
          setTurn(turn + 1)
        }}
      >
        <Group align="end">
          <Figure
            key={turn}
            label="It is now"
            unit="°C"
            min={COLDEST}
            max={WARMEST}
            w="10rem"
            value={now}
            onKeep={setNow}
            atOnce
          />
          <Button type="submit" variant="default" disabled={now === null} loading={typed.isPending}>
            Keep it
          </Button>
        </Group>
      </form>
      <div className={styles.sources}>
        <FileButton onChange={(file) => file && void open(file)} accept=".csv,.txt,text/csv,text/plain">
          {(props) => (
            <Button variant="default" loading={sheet.isPending} {...props}>
              A logger’s sheet
            </Button>
          )}
        </FileButton>
        {last && (
          <Button variant="subtle" onClick={takeAway}>
            Take them away
          </Button>
        )}
      </div>
    </section>
  )
}

function lowest(all: { celsius: number }[]): number {
  return Math.min(...all.map((t) => t.celsius))
}

function highest(all: { celsius: number }[]): number {
  return Math.max(...all.map((t) => t.celsius))
}
