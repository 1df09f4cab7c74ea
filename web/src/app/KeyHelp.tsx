import { Kbd, Modal, Table } from '@mantine/core'

const KEYS: [string, string][] = [
  ['Page Down, or Space while nothing is focused', 'The pedal: do what the bar at the bottom says'],
  ['Hold the same key 0.6 s', 'Take back the last thing the pedal did'],
  ['The same key twice', 'Flag this for later'],
  ['Enter in a measuring field', 'On to the next field; a caliper’s own key does the same'],
  ['L', 'Stop listening and keep what was heard'],
  ['Tab, Shift Tab', 'Move among everything on the page'],
  ['Escape', 'Close a window or a list'],
  ['/', 'Find an owner, a clock, a mark or a job number'],
  ['Space, then the arrows, on a step’s grip', 'Move the step in the strip log'],
  ['?', 'This list'],
]

/** What every key does. */
export function KeyHelp({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      title="Keys and pedal"
      size="lg"
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <Table verticalSpacing="sm">
        <Table.Tbody>
          {KEYS.map(([key, does]) => (
            <Table.Tr key={key}>
              <Table.Td>
                <Kbd>{key}</Kbd>
              </Table.Td>
              <Table.Td>{does}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Modal>
  )
}
