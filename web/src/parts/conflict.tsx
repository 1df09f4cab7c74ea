import { Button, Group, Modal, Radio, Table } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState, useSyncExternalStore } from 'react'
import { ApiProblem } from '../data/api.ts'
import type { FieldWords } from './fieldWords.ts'

type Row = Record<string, unknown>

/** A change that met somebody else's of the same row. */
export interface Change {
  words: Record<string, FieldWords>
  /** the row as it was changed from; none: it was begun anew */
  base?: object | undefined
  mine: object
  /** sends the row as it was chosen, onto their version and under the id that their row has */
  send: (row: Row, version: number, id: string) => void
  takeTheirs?: ((theirs: Row) => void) | undefined
}

interface Clash extends Change {
  mine: Row
  theirs: Row
  /** fields that both changed, each another way */
  fields: string[]
  /** fields of mine that they left alone */
  touched: string[]
}

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
  const mine = change.mine as Row
  const base = change.base as Row | undefined
  const touched = Object.keys(mine).filter((k) => !BOOKKEEPING.has(k) && (!base || !same(mine[k], base[k])))
  const differs = touched.filter((k) => !same(mine[k], theirs[k]))
  const fields = differs.filter((k) => !base || !same(theirs[k], base[k]))
  const asked = fields.filter((k) => change.words[k])
  const met: Clash = { ...change, mine, theirs, fields: asked, touched }
  if (asked.length === 0) {
    const now = merged(met, {})
    change.send(now, versionOf(theirs), String(theirs.id))
    notifications.show({ message: 'Somebody changed something else of this meanwhile. Both changes are kept.' })
  } else show(met)
  return true
}

const BOOKKEEPING = new Set(['id', 'version', 'jobId', 'clockId', 'at', 'who', 'whoId', 'measuredBy', 'standing'])

type Choice = Record<string, 'mine' | 'theirs'>

/** Their row with my changes in it, but for those fields where theirs was chosen. */
function merged({ mine, theirs, touched }: Clash, choice: Choice): Row {
  const kept = Object.keys(mine).map((k): [string, unknown] => [
    k,
    touched.includes(k) && choice[k] !== 'theirs' ? mine[k] : k in theirs ? theirs[k] : mine[k],
  ])
  return Object.fromEntries(kept)
}

const versionOf = (row: Row) => Number(row.version)

/** Whether two values say the same; an absent field and one that is null do. */
function same(a: unknown, b: unknown): boolean {
  if (a === b || (a ?? null) === (b ?? null)) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every((k) => same((a as Row)[k], (b as Row)[k]))
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
    const words = met.words[key]?.say((whose === 'mine' ? met.mine : met.theirs)[key]) ?? '–'
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
            if (met.touched.every((k) => met.fields.includes(k) || same(met.mine[k], met.theirs[k])))
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
