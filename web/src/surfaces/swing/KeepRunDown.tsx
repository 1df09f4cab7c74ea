import { blankRunDown, RUN_DOWN_TITLES, type RunDownRow } from '@treadle/contract'
import { runDownFrom, type AngleAt } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { v7 as uuid } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { RunDownWhen } from '../../lab/RunDownWhen.tsx'
import styles from './Swing.module.css'

/** A swing that dies away before the camera: where the crutch is off it is kept as a run-down, for what a beat costs. */
export function KeepRunDown({ arcs, semiArcDeg }: { arcs: AngleAt[]; semiArcDeg: number | null }) {
  const { runDowns } = useJobData()
  const rows = useRows<RunDownRow>('run-downs')
  const [when, setWhen] = useState<RunDownRow['when']>('found')
  const [kept, setKept] = useState<{ back: () => void } | null>(null)
  const runDown = runDownFrom(arcs)
  if (runDown === null) return null
  const stored = runDowns.findLast((r) => r.when === when)
  const keep = ({ beganS, readings }: NonNullable<typeof runDown>) => {
    const ranAt = new Date(1000 * beganS).toISOString()
    const blank = stored ?? { ...blankRunDown(uuid(), when, ranAt), semiArcDeg }
    rows.set(blank, stored, { ranAt, way: 'camera', readings })
    setKept({
      back: () => {
        if (stored) rows.set(stored, stored, { ranAt: stored.ranAt, way: stored.way, readings: stored.readings })
        else rows.remove(blank.id)
      },
    })
  }
  return (
    <section aria-label="It dies away" className={styles.dies}>
      <p>
        Its swing dies away. If nothing drives it, the crutch off, keep it as a run-down: what a beat costs the pendulum
        is then told.
      </p>
      {kept === null && stored !== undefined && stored.readings.length > 0 && (
        <p>There is one already, {RUN_DOWN_TITLES[when]}: its arcs give way to these.</p>
      )}
      <Group align="center">
        {kept === null && <RunDownWhen when={when} onPick={setWhen} />}
        {kept === null ? (
          <Button variant="default" onClick={() => keep(runDown)}>
            Keep as a run-down
          </Button>
        ) : (
          <>
            <p role="status">Kept as a run-down, {RUN_DOWN_TITLES[when]}.</p>
            <Button
              variant="default"
              onClick={() => {
                kept.back()
                setKept(null)
              }}
            >
              Take it back
            </Button>
            <Link to="../pendulum">To the pendulum</Link>
          </>
        )}
      </Group>
    </section>
  )
}
