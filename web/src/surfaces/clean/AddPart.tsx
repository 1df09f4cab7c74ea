import type { CleanPartRow } from '@treadle/contract'
import { FINISHES, MATERIALS } from '@treadle/core'
import { Button, Group, NativeSelect, TextInput } from '@mantine/core'
import { memo, useCallback, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import parts from '../../parts/parts.module.css'
import { useLatest } from '../../parts/useLatest.ts'

/** The parts of nearly every movement, by what they usually are. */
const USUAL: [string, string, string][] = [
  ['plates and cocks', 'brass', 'bare'],
  ['wheels and arbors', 'brass', 'bare'],
  ['screws and clicks', 'steel', 'polished'],
  ['mainspring', 'mainspring', 'bare'],
]

/** Parts to clean, by what they are made of. */
export function AddPart() {
  const { cleanParts, clock } = useJobData()
  const latest = useLatest(useRows<CleanPartRow>('clean-parts'))
  const add = useCallback(
    (name: string, material: string, finish: string) => {
      if (name.trim() !== '')
        latest.current.put({ id: uuid(), version: 0, name: name.trim(), material, finish, done: false })
    },
    [latest],
  )
  const offered = USUAL.filter(
    ([name, material]) =>
      !cleanParts.some((p) => p.name === name) &&
      (material !== 'mainspring' || clock.trains.some((t) => t.power !== 'weight')),
  )
  return <PartForm offered={offered.map(([name]) => name).join('\n')} onAdd={add} />
}

/** Drawn anew only when what it offers changed: not at each place that is pegged, nor at each bath that begins. */
const PartForm = memo(function PartForm({
  offered,
  onAdd: add,
}: {
  /** names of usual parts that are not on the list, a line each */
  offered: string
  onAdd: (name: string, material: string, finish: string) => void
}) {
  const [draft, setDraft] = useState({ name: '', material: 'brass', finish: 'bare' })
  return (
    <>
      <h2 className={parts.next}>Parts to clean</h2>
      <div className={parts.fields}>
        <TextInput
          label="Part"
          value={draft.name}
          maxLength={120}
          onChange={(e) => setDraft({ ...draft, name: e.currentTarget.value })}
          onKeyDown={(e) => {
            if (e.key !== 'Enter') return
            add(draft.name, draft.material, draft.finish)
            setDraft({ ...draft, name: '' })
          }}
        />
        <NativeSelect
          label="Made of"
          value={draft.material}
          onChange={(e) => setDraft({ ...draft, material: e.currentTarget.value })}
          data={[...MATERIALS]}
        />
        <NativeSelect
          label="Finish"
          value={draft.finish}
          onChange={(e) => setDraft({ ...draft, finish: e.currentTarget.value })}
          data={[...FINISHES]}
        />
        <Button
          disabled={draft.name.trim() === ''}
          onClick={() => {
            add(draft.name, draft.material, draft.finish)
            setDraft({ ...draft, name: '' })
          }}
        >
          Add it
        </Button>
      </div>
      <Group>
        {USUAL.filter(([name]) => offered.split('\n').includes(name)).map(([name, material, finish]) => (
          <Button key={name} variant="subtle" size="sm" onClick={() => add(name, material, finish)}>
            + {name}
          </Button>
        ))}
      </Group>
    </>
  )
})
