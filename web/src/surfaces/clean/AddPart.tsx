import type { CleanPartRow } from '@treadle/contract'
import { FINISHES, MATERIALS } from '@treadle/core'
import { Button, Group, NativeSelect, TextInput } from '@mantine/core'
import { memo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import parts from '../../parts/parts.module.css'

/** The parts of nearly every movement, by what they usually are. */
const USUAL: [string, string, string][] = [
  ['plates and cocks', 'brass', 'bare'],
  ['wheels and arbors', 'brass', 'bare'],
  ['screws and clicks', 'steel', 'polished'],
  ['mainspring', 'mainspring', 'bare'],
]

/** Parts to clean, by what they are made of; drawn anew only when the job changed, not at each place that is pegged. */
export const AddPart = memo(function AddPart() {
  const { cleanParts, clock } = useJobData()
  const rows = useRows<CleanPartRow>('clean-parts')
  const [draft, setDraft] = useState({ name: '', material: 'brass', finish: 'bare' })
  const add = (name: string, material: string, finish: string) => {
    if (name.trim() !== '') rows.put({ id: uuid(), version: 0, name: name.trim(), material, finish, done: false })
  }
  const usual = USUAL.filter(
    ([name, material]) =>
      !cleanParts.some((p) => p.name === name) &&
      (material !== 'mainspring' || clock.trains.some((t) => t.power !== 'weight')),
  )
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
        {usual.map(([name, material, finish]) => (
          <Button key={name} variant="subtle" size="sm" onClick={() => add(name, material, finish)}>
            + {name}
          </Button>
        ))}
      </Group>
    </>
  )
})
