import { lookedKey } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { Mark } from '../parts/Mark.tsx'
import { useJobData } from './useJobData.ts'
import { useObservations } from './useObservations.ts'

const WORDS = {
  holes: ['holes', 'looked at with the wheels between the empty plates, and sound'],
  pivots: ['pivots', 'looked at, smooth, round and bright'],
} as const

/** The rest of a train said to be sound in one go, by whoever looked at it; it can be taken back. */
export function RestLooked({ what }: { what: 'holes' | 'pivots' }) {
  const { clock, job } = useJobData()
  const seen = useObservations()
  const [name, sound] = WORDS[what]
  if (job.partedAt === null) return null
  return (
    <Group mt="md" gap="sm">
      {clock.trains.map(({ train }) => {
        const key = lookedKey(what, train)
        const row = seen.of(key)
        return row !== undefined && row.answer !== '' ? (
          <Group key={train} gap="xs">
            <Mark state="sound" label="looked at" />
            <span>
              All other {name} of the {train} train were {sound}
              {row.who === '' ? '' : ` (${row.who})`}.
            </span>
            <Button variant="subtle" size="compact-md" onClick={() => seen.takeBack(key)}>
              Take that back
            </Button>
          </Group>
        ) : (
          <Button key={train} variant="default" size="sm" my={4} onClick={() => seen.set(key, { answer: 'sound' })}>
            All other {name} of the {train} train: {sound}
          </Button>
        )
      })}
    </Group>
  )
}
