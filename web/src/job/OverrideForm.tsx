import { GateOverride } from '@treadle/contract'
import type { GateName } from '@treadle/core'
import { Button, Textarea } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { sentenceOf, useChange } from '../data/queries.ts'

/** Lets a gate be overridden, in writing and no other way. */
export function OverrideForm({ jobId, gate, onDone }: { jobId: string; gate: GateName; onDone?: () => void }) {
  const [reason, setReason] = useState('')
  const [wrong, setWrong] = useState<string | null>(null)
  const change = useChange()
  const override = () => {
    const body = { id: uuid(), gate, reason }
    GateOverride.validate(body).then(
      () =>
        change.mutate(
          { method: 'POST', path: `/jobs/${jobId}/overrides`, body },
          {
            onSuccess: onDone,
            onError: (error) =>
              notifications.show({ color: 'red', title: 'Not done', message: sentenceOf(error), autoClose: 10_000 }),
          },
        ),
      (error: Error) => setWrong(error.message),
    )
  }
  return (
    <>
      <Textarea
        label="Reason"
        value={reason}
        error={wrong}
        onChange={(e) => {
          setReason(e.currentTarget.value)
          setWrong(null)
        }}
        autosize
        minRows={2}
      />
      <Button variant="default" mt="xs" onClick={override} loading={change.isPending}>
        Override this gate
      </Button>
    </>
  )
}
