import { WatchTemperatures } from '@treadle/contract'
import { Button, FileButton, Group } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'
import { sayNotKept, useChange } from '../data/queries.ts'
import { Figure } from '../parts/Figure.tsx'
import { count } from '../parts/say.ts'

interface LoggerAnswer {
  read: number
  kept: number
  wrong: { line: number; message: string }[]
}

interface TemperatureFormProps {
  /** where one is put, and where all of them are taken away */
  path: string
  /** where a logger's sheet is read */
  logger: string
  /** there are some to take away */
  some: boolean
  /** said where a sheet could be read and nothing of it was kept */
  noneKept: string
  onKept?: () => void
}

/** How warm it is: read off a thermometer now, or from the sheet of a logger; and all of it taken away. */
export function TemperatureForm({ path, logger, some, noneKept, onKept }: TemperatureFormProps) {
  const typed = useChange()
  const sheet = useChange<LoggerAnswer>()
  const [now, setNow] = useState<number | null>(null)
  // A new field for each: once kept it is not kept again as one leaves it.
  const [turn, setTurn] = useState(0)
  const told = { onSuccess: () => onKept?.(), onError: sayNotKept }
  const add = (celsius: number) => {
    const body = { temperatures: [{ at: new Date().toISOString(), celsius }] }
    if (!WatchTemperatures.isValidSync(body, { strict: true })) return
    typed.mutate({ method: 'PUT', path, body }, told)
    setNow(null)
    setTurn(turn + 1)
  }
  const open = async (file: File) =>
    sheet.mutate(
      { method: 'POST', path: logger, body: { text: await file.text() } },
      {
        onError: sayNotKept,
        onSuccess: (answer) => {
          onKept?.()
          notifications.show({ message: readInWords(answer, noneKept) })
        },
      },
    )
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        if (now !== null) add(now)
      }}
    >
      <Group align="end">
        <Figure
          key={turn}
          label="It is now"
          unit="°C"
          min={-40}
          max={60}
          w="10rem"
          value={now}
          onKeep={setNow}
          atOnce
        />
        <Button type="submit" variant="default" disabled={now === null} loading={typed.isPending}>
          Keep it
        </Button>
        <FileButton onChange={(file) => file && void open(file)} accept=".csv,.txt,text/csv,text/plain">
          {(props) => (
            <Button variant="default" loading={sheet.isPending} {...props}>
              A logger’s sheet
            </Button>
          )}
        </FileButton>
        {some && (
          <Button variant="subtle" onClick={() => typed.mutate({ method: 'DELETE', path }, told)}>
            Take them away
          </Button>
        )}
      </Group>
    </form>
  )
}

function readInWords({ read, kept, wrong }: LoggerAnswer, noneKept: string): string {
  const [first] = wrong
  return [
    kept > 0 ? `Kept: ${count(kept, 'temperature')}.` : read > 0 ? noneKept : 'No temperature could be read.',
    first ? `Line ${first.line}: ${first.message}${wrong.length > 1 ? ', and others' : ''}.` : '',
  ]
    .filter(Boolean)
    .join(' ')
}
