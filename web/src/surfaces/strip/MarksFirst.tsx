import type { StripMarkRow } from '@treadle/contract'
import { Button, Group, TextInput } from '@mantine/core'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { useRows } from '../../job/useRows.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { useMarks, useOpenMarks } from '../../job/useOpenMarks.ts'

/** The meshes of this kind of work that can't be found again: each marked, or waived with a reason. */
export function MarksFirst({ active }: { active: boolean }) {
  const { job, stripMarks } = useJobData()
  const rows = useRows<StripMarkRow>('strip-marks')
  const open = useOpenMarks()
  const [waiving, setWaiving] = useState<string | null>(null)
  const [reason, setReason] = useState('')
  const put = (key: string, state: 'done' | 'waived', note: string) => {
    const id = uuid()
    rows.put({ id, version: 0, key, state, note })
    return () => rows.remove(id)
  }
  const next = open[0]
  usePedalAction(
    active && next
      ? {
          label: `Press when marked: ${next.what}`,
          hint: `${open.length} to go`,
          press: () => put(next.key, 'done', ''),
        }
      : null,
  )
  const waive = () => {
    if (reason.trim().length < 4) return
    const keys = waiving === 'all' ? open.map((m) => m.key) : [waiving ?? '']
    for (const key of keys) put(key, 'waived', reason.trim())
    setWaiving(null)
    setReason('')
  }
  return (
    <>
      <h2>Mark before the plates are parted</h2>
      <p className={parts.say}>Scratch or photograph each where it can be seen again; waive one only with a reason.</p>
      <ul className={parts.list}>
        {useMarks().map((mark) => {
          const made = stripMarks.find((m) => m.key === mark.key)
          const state = made ? (made.state === 'done' ? 'sound' : 'watch') : 'must'
          return (
            <li key={mark.key}>
              <Mark state={state} label={{ sound: 'marked', watch: 'waived', must: 'not marked' }[state]} />
              <span className={parts.grow}>
                <strong>{mark.what}</strong>
                <br />
                <span className="quiet">{made?.state === 'waived' ? `Waived: ${made.note}` : mark.why}</span>
              </span>
              {made ? (
                job.partedAt === null && (
                  <Button variant="subtle" size="compact-md" onClick={() => rows.remove(made.id)}>
                    Take back
                  </Button>
                )
              ) : (
                <>
                  <Button
                    variant="default"
                    size="sm"
                    aria-label={`Marked: ${mark.what}`}
                    onClick={() => void put(mark.key, 'done', '')}
                  >
                    Marked
                  </Button>
                  <Button
                    variant="subtle"
                    size="sm"
                    aria-label={`Waive: ${mark.what}`}
                    onClick={() => setWaiving(mark.key)}
                  >
                    Waive
                  </Button>
                </>
              )}
            </li>
          )
        })}
      </ul>
      {open.length > 1 && waiving === null && (
        <Button variant="subtle" onClick={() => setWaiving('all')}>
          Waive all that are left
        </Button>
      )}
      {waiving !== null && (
        <Group align="end">
          <TextInput
            label="Reason for leaving it out"
            value={reason}
            onChange={(e) => setReason(e.currentTarget.value)}
            onKeyDown={(e) => e.key === 'Enter' && waive()}
            error={reason !== '' && reason.trim().length < 4 ? 'Say it in a few words' : null}
            className={parts.grow}
            data-autofocus
          />
          <Button onClick={waive} disabled={reason.trim().length < 4}>
            Waive
          </Button>
          <Button variant="default" onClick={() => setWaiving(null)}>
            Keep it
          </Button>
        </Group>
      )}
    </>
  )
}
