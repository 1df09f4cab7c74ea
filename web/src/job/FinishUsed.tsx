import { Button, Group, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'
import { useTable } from '../data/queries.ts'
import parts from '../parts/parts.module.css'
import { useJobData } from './useJobData.ts'
import { useObservations } from './useObservations.ts'

const KEY = 'finish:'

/** Which of the workshop's grit ladders was used on this clock, and where. */
export function FinishUsed() {
  const { observations } = useJobData()
  const seen = useObservations()
  const { data: table } = useTable('ladders')
  const [chosen, setChosen] = useState('')
  const [where, setWhere] = useState('')
  const ladders = table?.values.ladders ?? []
  const used = observations.filter((o) => o.key.startsWith(KEY))
  const ladder = ladders.find((l) => l.key === chosen) ?? ladders[0]
  return (
    <section aria-label="Finish">
      <h3 className={parts.next}>Finish</h3>
      <ul>
        {used.map((o) => (
          <li key={o.id}>
            {o.answer}: {o.note}{' '}
            <Button
              variant="subtle"
              size="compact-sm"
              aria-label={`Take back ${o.answer}, ${o.note}`}
              onClick={() => seen.takeBack(o.key)}
            >
              Take back
            </Button>
          </li>
        ))}
      </ul>
      <Group align="end">
        <NativeSelect
          label="Grit ladder used"
          value={ladder?.key ?? ''}
          onChange={(e) => setChosen(e.currentTarget.value)}
          data={ladders.map((l) => ({ value: l.key, label: l.title }))}
        />
        <TextInput label="On what" value={where} maxLength={60} onChange={(e) => setWhere(e.currentTarget.value)} />
        <Button
          variant="default"
          disabled={!ladder || where.trim() === ''}
          onClick={() => {
            if (!ladder) return
            seen.set(`${KEY}${where.trim().slice(0, 60)}`, {
              answer: ladder.title.slice(0, 60),
              note: `${where.trim()}, ${ladder.steps}`,
            })
            setWhere('')
          }}
        >
          Note it
        </Button>
      </Group>
    </section>
  )
}
