import { Button, Group, Modal, Radio, Table } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState, useSyncExternalStore } from 'react'
import { ApiProblem } from '../data/api.ts'
import { clashOf, merged, same, valueAt, versionOf, type Change, type Choice, type Clash, type Row } from './clash.ts'

let clash: Clash | null = null
const listeners = new Set<() => void>()

function show(next: Clash | null): void {
  clash = next
  for (const listener of listeners) listener()
}

/**
 * Meets an error that says that somebody changed the row meanwhile; says whether it was that.
 *
 * Only fields that I changed from `base` are mine: whatever they changed besides stays theirs. Where both changed one
 * field, each another way, the person is asked; where they did not, both changes are kept and that is said.
 */
export function meetConflict(error: unknown, change: Change): boolean {
  if (!(error instanceof ApiProblem) || error.status !== 409) return false
  const theirs = error.current as Row | null
  if (typeof theirs !== 'object' || theirs === null) return false
  return settle(change, theirs)
}

/**
 * Keeps a change that was typed over a row while somebody else changed it: asks, before anything is sent, where both
 * changed one field. Else it is sent onto the row as it stands.
 *
 * @param kept - the row as it stands, with its id and version
 */
export function keepOver(change: Change, kept: object): void {
  const met = clashOf(change, kept as Row)
  if (met.fields.length > 0) show(met)
  else change.send(merged(met, {}), versionOf(met.theirs), String(met.theirs.id))
}

function settle(change: Change, theirs: Row): boolean {
  const met = clashOf(change, theirs)
  if (met.fields.length === 0) {
    const now = merged(met, {})
    change.send(now, versionOf(theirs), String(theirs.id))
    notifications.show({ message: 'Somebody changed something else of this meanwhile. Both changes are kept.' })
  } else show(met)
  return true
}

/** Stands at the root of every page: asks which is right when two people changed the same thing. */
export function ConflictDialog() {
  const met = useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => clash,
  )
  return (
    <Modal
      opened={met !== null}
      onClose={() => show(null)}
      title="Somebody changed this meanwhile"
      size="lg"
      closeButtonProps={{ 'aria-label': 'Decide later' }}
    >
      {met && <Choices met={met} />}
    </Modal>
  )
}

function Choices({ met }: { met: Clash }) {
  const [choice, setChoice] = useState<Choice>({})
  const each = met.fields.length > 1
  const send = (chosen: Choice) => {
    show(null)
    met.send(merged(met, chosen), versionOf(met.theirs), String(met.theirs.id))
  }
  const cell = (key: string, whose: 'mine' | 'theirs') => {
    const words = met.words[key]?.say(valueAt(whose === 'mine' ? met.mine : met.theirs, key)) ?? '–'
    return each ? (
      <Radio
        label={words}
        name={`conflict ${key}`}
        checked={(choice[key] ?? 'mine') === whose}
        onChange={() => setChoice({ ...choice, [key]: whose })}
      />
    ) : (
      words
    )
  }
  return (
    <>
      <p>Nothing is overwritten until you choose. What they changed besides stays as it is.</p>
      <Table my="md">
        <Table.Thead>
          <Table.Tr>
            <Table.Th></Table.Th>
            <Table.Th>Yours</Table.Th>
            <Table.Th>Theirs, saved</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {met.fields.map((key) => (
            <Table.Tr key={key}>
              <Table.Th scope="row">{met.words[key]?.label}</Table.Th>
              <Table.Td>{cell(key, 'mine')}</Table.Td>
              <Table.Td>{cell(key, 'theirs')}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      <Group justify="flex-end">
        <Button
          variant="default"
          onClick={() => {
            show(null)
            if (met.touched.every((k) => met.fields.includes(k) || same(valueAt(met.mine, k), valueAt(met.theirs, k))))
              met.takeTheirs?.(met.theirs)
            else send(Object.fromEntries(met.fields.map((k) => [k, 'theirs'])))
          }}
        >
          Take theirs
        </Button>
        {each && Object.values(choice).includes('theirs') ? (
          <Button onClick={() => send(choice)}>Keep as chosen</Button>
        ) : (
          <Button onClick={() => send({})}>Keep mine</Button>
        )}
      </Group>
    </>
  )
}
