import { blankRunDown, type RunDownRow } from '@treadle/contract'
import { runDownFrom, type AngleAt } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { v7 as uuid } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { RunDownWhen } from '../../lab/RunDownWhen.tsx'

/** A swing that dies away before the camera: where the crutch is off it is kept as a run-down, for what a beat costs. */
export function KeepRunDown({ arcs, semiArcDeg }: { arcs: AngleAt[]; semiArcDeg: number | null }) {
  const { runDowns } = useJobData()
  const rows = useRows<RunDownRow>('run-downs')
  const [when, setWhen] = useState<RunDownRow['when']>('found')
  const [kept, setKept] = useState(false)
  const readings = runDownFrom(arcs)
  if (readings === null) return null
  const keep = () => {
    const stored = runDowns.findLast((r) => r.when === when)
    const ranAt = new Date(1000 * (arcs[0]?.atS ?? 0)).toISOString()
    const blank = stored ?? { ...blankRunDown(uuid(), when, ranAt), semiArcDeg }
    rows.set(blank, stored, { ranAt, way: 'camera', readings })
    setKept(true)
  }
  return (
    <section aria-label="It dies away">
      <p>
        Its swing dies away. If nothing drives it, the crutch off, keep it as a run-down: what a beat costs the pendulum
        is then told.
      </p>
      <Group align="end">
        <RunDownWhen
          when={when}
          onPick={(to) => {
            setWhen(to)
            setKept(false)
          }}
        />
        <Button variant="default" disabled={kept} onClick={keep}>
          {kept ? 'Kept as a run-down' : 'Keep as a run-down'}
        </Button>
        {kept && <Link to="../pendulum">To the pendulum</Link>}
      </Group>
    </section>
  )
}
