import { READING_WAY_TITLES, ReadingChange } from '@treadle/contract'
import { READING_WAYS } from '@treadle/core'
import { Button, Group, NativeSelect } from '@mantine/core'
import { useState } from 'react'
import { Figure } from '../../parts/Figure.tsx'
import { MomentField } from '../../parts/MomentField.tsx'

/** A reading that is typed: of now, or of any moment before. */
export function NewReading({ onKeep }: { onKeep: (at: number, error: number, way: ReadingChange['way']) => void }) {
  const [error, setError] = useState<number | null>(null)
  const [way, setWay] = useState<ReadingChange['way']>('eye')
  const [wrong, setWrong] = useState<string | null>(null)
  const [when, setWhen] = useState('')
  // A new field for each reading: what was typed for the last one is not laid over the next.
  const [turn, setTurn] = useState(0)
  return (
    <form
      noValidate
      onSubmit={(e) => {
        e.preventDefault()
        if (error === null || !Number.isFinite(error)) {
          setWrong('Error: say how many seconds, or minutes and seconds such as 2:30; − when the clock is behind')
          return
        }
        if (!ReadingChange.pick(['errorSeconds']).isValidSync({ errorSeconds: error })) {
          setWrong('Error: at most twelve hours')
          return
        }
        onKeep(when === '' ? Date.now() : Date.parse(when), error, way)
        setWhen('')
        setError(null)
        setWrong(null)
        setTurn(turn + 1)
      }}
    >
      <Group align="end" my="sm">
        <Figure
          key={turn}
          label="The clock is ahead by"
          unit="s"
          description="− when it is behind; 2:30 is two and a half minutes"
          w="17rem"
          value={error}
          error={wrong}
          onKeep={(v) => {
            setError(v)
            setWrong(null)
          }}
          atOnce
        />
        <NativeSelect
          label="Read"
          value={way}
          onChange={(e) => setWay(e.currentTarget.value as 'eye')}
          data={READING_WAYS.map((w) => ({ value: w, label: READING_WAY_TITLES[w] }))}
        />
        <MomentField label="Read on (now, if open)" value={when} onChange={setWhen} />
        <Button type="submit" variant="default">
          Keep this reading
        </Button>
      </Group>
    </form>
  )
}
