import type { OwnerListed } from '@treadle/contract'
import { Button, Group, TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { useState } from 'react'
import { useOwners } from '../data/queries.ts'

/** Finds an owner by name, telephone or address, and chooses one. */
export function ChooseOwner({
  label,
  except,
  say,
  onChoose,
}: {
  label: string
  except: string
  say: string
  onChoose: (owner: OwnerListed['owner']) => void
}) {
  const [words, setWords] = useState('')
  const [asked] = useDebouncedValue(words.trim(), 200)
  const found = useOwners(asked)
  const others = asked === '' ? [] : (found.data ?? []).filter((f) => f.owner.id !== except)
  return (
    <>
      <TextInput
        label={label}
        description="Part of a name, a telephone number or an address"
        value={words}
        onChange={(e) => setWords(e.currentTarget.value)}
      />
      {others.slice(0, 5).map(({ owner, clocks }) => (
        <Group key={owner.id} justify="space-between" mt="xs">
          <span>
            {owner.name}
            <span className="quiet">
              {owner.phone !== '' && `, ${owner.phone}`}
              {owner.address !== '' && `, ${owner.address}`}
              {clocks.length > 0 && `; ${clocks.map((c) => c.name).join(', ')}`}
            </span>
          </span>
          <Button variant="default" size="sm" onClick={() => onChoose(owner)}>
            {say}
          </Button>
        </Group>
      ))}
      {asked !== '' && found.data?.length === 0 && <p className="quiet">Nobody is known by that.</p>}
    </>
  )
}
