import { HoleChange, type Hole } from '@treadle/contract'
import { Group } from '@mantine/core'
import { Figure } from '../../parts/Figure.tsx'
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
  return (
    <details className={styles.depth}>
      <summary>
        Depth of the gearing{hole.moduleMm !== null ? '' : fromPlates ? ', from the plates' : ', not measured'}
      </summary>
      <Group align="end">
        <Figure
          label="Module"
          draftOf={hole.id}
          unit="mm"
          w="8rem"
          of={[HoleChange, 'moduleMm']}
          value={hole.moduleMm}
          onKeep={(moduleMm) => onKeep({ moduleMm })}
        />
        <Figure
          label="Centre has moved"
          draftOf={hole.id}
          unit="mm"
          w="11rem"
          of={[HoleChange, 'depthShiftMm']}
          value={hole.depthShiftMm}
          onKeep={(depthShiftMm) => onKeep({ depthShiftMm })}
        />
      </Group>
    </details>
  )
}
