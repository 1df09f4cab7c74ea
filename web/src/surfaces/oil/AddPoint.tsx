import { OIL_SIDES, type OilSheetChange, type OilSide } from '@treadle/contract'
import { OIL_PARTS, type OilPart } from '@treadle/core'
import { Button, Group, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Fold } from '../../parts/Fold.tsx'

/** A point that no sheet of this movement knows. */
export function AddPoint({
  taken,
  onAdd,
}: {
  taken: string[]
  onAdd: (point: OilSheetChange['added'][number]) => void
}) {
  return (
    <Fold title="A point that is not on the map">
      <Form taken={taken} onAdd={onAdd} />
    </Fold>
  )
}

function Form({ taken, onAdd }: Parameters<typeof AddPoint>[0]) {
  const [name, setName] = useState('')
  const [part, setPart] = useState<OilPart>('pivot')
  const [side, setSide] = useState<OilSide>('front')
  const there = taken.includes(name.trim())
  const may = name.trim() !== '' && !there
  const add = () => {
    if (!may) return
    onAdd({ name: name.trim(), part, side })
    setName('')
  }
  return (
    <Group align="end" mt="xs">
      <TextInput
        label="Point"
        value={name}
        maxLength={60}
        error={there ? 'Point: it is on the map already' : undefined}
        onChange={(e) => setName(e.currentTarget.value)}
        onKeyDown={(e) => e.key === 'Enter' && add()}
      />
      <NativeSelect
        label="What it is"
        value={part}
        onChange={(e) => setPart(e.currentTarget.value as OilPart)}
        data={[...OIL_PARTS]}
      />
      <NativeSelect
        label="Reached from"
        value={side}
        onChange={(e) => setSide(e.currentTarget.value as OilSide)}
        data={[...OIL_SIDES]}
      />
      <Button variant="default" disabled={!may} onClick={add}>
        Add it
      </Button>
    </Group>
  )
}
