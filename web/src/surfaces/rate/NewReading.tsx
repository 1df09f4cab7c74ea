import { READING_WAY_TITLES, ReadingChange } from '@treadle/contract'
import { READING_WAYS } from '@treadle/core'
import { Button, Group, NativeSelect } from '@mantine/core'
import { useState } from 'react'
import { Figure } from '../../parts/Figure.tsx'
import { Fold } from '../../parts/Fold.tsx'
import parts from '../../parts/parts.module.css'
import { MomentField } from '../../parts/MomentField.tsx'

/** What may be told of the clock’s surroundings with a reading. */
export type BesideReading = Pick<ReadingChange, 'temperatureC' | 'semiArcDeg' | 'pressureHpa'>
const NOTHING: BesideReading = { temperatureC: null, semiArcDeg: null, pressureHpa: null }
const BESIDE = [
  ['temperatureC', 'Warmth beside it', '°C'],
  ['semiArcDeg', 'Semi-arc', '°'],
  ['pressureHpa', 'Pressure of the air', 'hPa'],
] as const

/** A reading that is typed: of now, or of any moment before. */
export function NewReading({
  onKeep,
}: {
  onKeep: (at: number, error: number, way: ReadingChange['way'], beside: BesideReading) => void
}) {
  const [error, setError] = useState<number | null>(null)
  const [way, setWay] = useState<ReadingChange['way']>('eye')
  const [wrong, setWrong] = useState<string | null>(null)
  const [when, setWhen] = useState('')
  const [beside, setBeside] = useState(NOTHING)
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
        const odd = BESIDE.find(([key]) => !ReadingChange.pick([key]).isValidSync({ [key]: beside[key] }))
        if (odd) {
          setWrong(`${odd[1]}: it can’t be so; leave it empty where nobody looked`)
          return
        }
        onKeep(when === '' ? Date.now() : Date.parse(when), error, way, beside)
        setWhen('')
        setBeside(NOTHING)
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
      <Fold title="Warmth, arc and air with it">
        <div className={parts.fields}>
          {BESIDE.map(([key, label, unit]) => (
            <Figure
              key={`${key} ${turn}`}
              label={label}
              unit={unit}
              of={[ReadingChange, key]}
              value={beside[key] ?? null}
              onKeep={(value) => setBeside((now) => ({ ...now, [key]: value }))}
              atOnce
            />
          ))}
        </div>
      </Fold>
    </form>
  )
}
