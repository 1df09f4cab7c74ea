import type { WatchPage } from '@treadle/contract'
import { Button } from '@mantine/core'
import { useState } from 'react'
import { sayNotKept, useChange } from '../../data/queries.ts'
import { count } from '../../parts/say.ts'

/** The hours it struck, into the rate book: the first blow against this computer's clock. */
export function StrikesRead({ jobId, page }: { jobId: string; page: WatchPage }) {
  const change = useChange<{ kept: number }>()
  const [kept, setKept] = useState<number | null>(null)
  const path = `/jobs/${jobId}/watches/${page.watch.id}/strikes-read`
  return (
    <>
      <Button
        variant="default"
        loading={change.isPending}
        onClick={() =>
          change.mutate({ method: 'PUT', path }, { onSuccess: (answer) => setKept(answer.kept), onError: sayNotKept })
        }
      >
        Give the hours it struck to its rate book
      </Button>
      {kept !== null && (
        <p role="status">
          {kept === 0
            ? 'No new reading: they are there already, or no hour could be told.'
            : `Kept: ${count(kept, 'reading')} by the strike.`}{' '}
          <Button
            variant="subtle"
            size="compact-sm"
            onClick={() =>
              change.mutate({ method: 'DELETE', path }, { onSuccess: () => setKept(null), onError: sayNotKept })
            }
          >
            Take them back
          </Button>
        </p>
      )}
    </>
  )
}
