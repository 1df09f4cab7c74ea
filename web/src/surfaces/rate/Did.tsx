import { EVENT_TITLES, RateEventChange, type RateEventRow } from '@treadle/contract'
import { EVENT_KINDS } from '@treadle/core'
import { Button, Group, NativeSelect } from '@mantine/core'
import { useState } from 'react'
import { Figure } from '../../parts/Figure.tsx'
import { MomentField } from '../../parts/MomentField.tsx'
import styles from './Rate.module.css'

/** What was done to the clock between readings. */
export function Did({
  onEvent,
}: {
  onEvent: (kind: RateEventRow['kind'], turns?: number | null, at?: string, grams?: number | null) => void
}) {
  const [when, setWhen] = useState('')
  const [turns, setTurns] = useState<number | null>(null)
  const [grams, setGrams] = useState<number | null>(null)
  const [kind, setKind] = useState<RateEventRow['kind']>('winding')
  return (
    <div className={styles.rule}>
      <h3>What you did</h3>
      <Group align="end" mt="xs">
        <NativeSelect
          label="Event"
          value={kind}
          onChange={(e) => setKind(e.currentTarget.value as 'nut')}
          data={EVENT_KINDS.map((k) => ({ value: k, label: EVENT_TITLES[k] }))}
        />
        {kind === 'nut' && (
          <Figure
            label="Turns, + raises"
            w="9rem"
            of={[RateEventChange, 'turns']}
            value={turns}
            onKeep={setTurns}
            atOnce
          />
        )}
        {kind === 'tray' && (
          <Figure
            label="Grams, − taken off"
            w="9rem"
            of={[RateEventChange, 'grams']}
            value={grams}
            onKeep={setGrams}
            atOnce
          />
        )}
        <MomentField label="Done on (now, if open)" value={when} onChange={setWhen} />
        <Button
          variant="default"
          disabled={(kind === 'nut' && !turns) || (kind === 'tray' && !grams)}
          onClick={() => {
            onEvent(kind, kind === 'nut' ? turns : null, when, kind === 'tray' ? grams : null)
            setTurns(null)
            setGrams(null)
            setWhen('')
          }}
        >
          Write it down
        </Button>
      </Group>
    </div>
  )
}
