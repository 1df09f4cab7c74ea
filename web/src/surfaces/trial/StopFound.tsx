import type { RateEventRow } from '@treadle/contract'
import { stopKey, stoppingWork, stopsOf, stopsTell } from '@treadle/core'
import { Button, Group, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import type { Observations } from '../../job/useObservations.ts'
import parts from '../../parts/parts.module.css'

/** A stop asked about at once: what it tells by itself, the trouble finder, and what it was. */
export function StopFound({ stop, seen }: { stop: RateEventRow; seen: Observations }) {
  const { clock, events, trainSheets } = useJobData()
  const { data: settings } = useSettings()
  const [what, setWhat] = useState('')
  if (!settings) return null
  const told = stopsTell(stopsOf(events, settings.timeZone), stoppingWork(clock, trainSheets))
  const answer = (how: 'found' | 'not found') => seen.set(stopKey(stop.id), { answer: how, note: what.trim() })
  return (
    <div className={parts.asked} role="status">
      <h3>It stopped{stop.showed !== '' && ` at ${stop.showed}`}: why?</h3>
      <ul>
        {told.map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
      <p>
        <Link to="../trouble">Ask the trouble finder</Link>, which knows what was measured; then say here what it was.
      </p>
      <Group align="end">
        <TextInput
          label="What it was"
          value={what}
          maxLength={300}
          onChange={(e) => setWhat(e.currentTarget.value)}
          onKeyDown={(e) => e.key === 'Enter' && what.trim() !== '' && answer('found')}
          w="20rem"
        />
        <Button disabled={what.trim() === ''} onClick={() => answer('found')}>
          Found
        </Button>
        <Button variant="default" onClick={() => answer('not found')}>
          Not found; watch it
        </Button>
      </Group>
    </div>
  )
}
