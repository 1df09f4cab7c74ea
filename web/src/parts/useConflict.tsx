import { Button, Group, Modal, Table } from '@mantine/core'
import { useState, type ReactNode } from 'react'
import { ApiProblem } from '../data/api.ts'

interface Conflict {
  mine: Record<string, unknown>
  theirs: Record<string, unknown>
  keepMine: (version: number, id: string) => void
  takeTheirs: (theirs: Record<string, unknown>) => void
}

/**
 * Lets the person choose when somebody changed the same thing meanwhile: both versions are shown, only where they
 * differ, and nothing is overwritten before the choice.
 */
export function useConflict(labels: Record<string, string>): {
  dialog: ReactNode
  /** Offers the choice if the error is a 409 with the current row; says whether it was. */
  meet: (
    error: unknown,
    mine: Record<string, unknown>,
    /** onto their version, and under the id that their row has */
    keepMine: (version: number, id: string) => void,
    takeTheirs: (theirs: Record<string, unknown>) => void,
  ) => boolean
} {
  const [conflict, setConflict] = useState<Conflict | null>(null)
  const differing =
    conflict === null
      ? []
      : Object.keys(labels).filter((key) => JSON.stringify(conflict.mine[key]) !== JSON.stringify(conflict.theirs[key]))
  const dialog = (
    <Modal
      opened={conflict !== null}
      onClose={() => setConflict(null)}
      title="Somebody changed this meanwhile"
      size="lg"
      closeButtonProps={{ 'aria-label': 'Decide later' }}
    >
      <p>Nothing is overwritten until you choose.</p>
      <Table my="md">
        <Table.Thead>
          <Table.Tr>
            <Table.Th></Table.Th>
            <Table.Th>Yours</Table.Th>
            <Table.Th>Theirs, saved</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {differing.map((key) => (
            <Table.Tr key={key}>
              <Table.Th scope="row">{labels[key]}</Table.Th>
              <Table.Td>{shown(conflict?.mine[key])}</Table.Td>
              <Table.Td>{shown(conflict?.theirs[key])}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      <Group justify="flex-end">
        <Button
          variant="default"
          onClick={() => {
            conflict?.takeTheirs(conflict.theirs)
            setConflict(null)
          }}
        >
          Take theirs
        </Button>
        <Button
          onClick={() => {
            conflict?.keepMine(Number(conflict.theirs.version), String(conflict.theirs.id))
            setConflict(null)
          }}
        >
          Keep mine
        </Button>
      </Group>
    </Modal>
  )
  return {
    dialog,
    meet: (error, mine, keepMine, takeTheirs) => {
      if (
        !(error instanceof ApiProblem) ||
        error.status !== 409 ||
        typeof error.current !== 'object' ||
        error.current === null
      )
        return false
      setConflict({ mine, theirs: error.current as Record<string, unknown>, keepMine, takeTheirs })
      return true
    },
  }
}

function shown(value: unknown): string {
  if (value === null || value === undefined || value === '') return '–'
  if (typeof value === 'number') return String(Math.round(value * 1000) / 1000)
  return typeof value === 'string' ? value : JSON.stringify(value)
}
