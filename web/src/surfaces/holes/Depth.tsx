import type { Hole, HoleChange } from '@treadle/contract'
import { Button, Group, NumberInput } from '@mantine/core'
import { useState } from 'react'
import styles from './Holes.module.css'

/** Module and shift along the line of centres: only the school by depth asks for them. */
export function Depth({
  hole,
  fromPlates,
  onKeep,
}: {
  hole: Hole
  fromPlates: boolean
  onKeep: (part: Partial<HoleChange>) => void
}) {
  const [moduleMm, setModule] = useState<number | null>(hole.moduleMm)
  const [depthShiftMm, setShift] = useState<number | null>(hole.depthShiftMm)
  const number = (value: number | string) => (value === '' ? null : Number(value))
  return (
    <details className={styles.depth}>
      <summary>
        Depth of the gearing{hole.moduleMm !== null ? '' : fromPlates ? ', from the plates' : ', not measured'}
      </summary>
      <Group align="end">
        <NumberInput
          label="Module, mm"
          w="8rem"
          hideControls
          value={moduleMm ?? ''}
          onChange={(v) => setModule(number(v))}
        />
        <NumberInput
          label="Centre has moved, mm"
          w="11rem"
          hideControls
          value={depthShiftMm ?? ''}
          onChange={(v) => setShift(number(v))}
        />
        <Button variant="default" onClick={() => onKeep({ moduleMm, depthShiftMm })}>
          Keep
        </Button>
      </Group>
    </details>
  )
}
