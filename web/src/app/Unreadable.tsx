import type { UnreadableRow } from '@treadle/contract'
import { Button } from '@mantine/core'
import { sayNotKept, useChange } from '../data/queries.ts'
import { Mark } from '../parts/Mark.tsx'
import { spacedOut } from '../parts/say.ts'
import styles from './JobPage.module.css'

/** Of a clock and its visit a field is made blank; any other row is taken out. */
const BLANKED = new Set(['clocks', 'jobs'])

/** Rows of a job that can’t be read, each with what can be done about it; all else goes on without them. */
export function Unreadable({ jobId, rows }: { jobId: string; rows: UnreadableRow[] }) {
  const change = useChange()
  if (rows.length === 0) return null
  return (
    <div role="alert" className={styles.unreadable}>
      <p>
        <Mark state="must" label="can’t be read" />{' '}
        {rows.length === 1 ? 'A row of this job can’t be read' : `${rows.length} rows of this job can’t be read`}, and{' '}
        {rows.length === 1 ? 'is' : 'are'} left out of all else. Until that is seen to, the job can’t be closed. Set
        aside, it stands in the journal as it was, and can be written down anew.
      </p>
      <ul>
        {rows.map(({ table, id, title, field }) => (
          <li key={`${table} ${id} ${field}`}>
            <span>
              {spacedOut(table)}
              {title !== '' && `, “${title}”`}: {spacedOut(field)}
            </span>
            <Button
              variant="default"
              loading={change.isPending}
              onClick={() =>
                change.mutate(
                  { method: 'POST', path: `/jobs/${jobId}/unreadable`, body: { table, id, field } },
                  { onError: sayNotKept },
                )
              }
            >
              {BLANKED.has(table) ? 'Make it blank' : 'Set it aside'}
            </Button>
          </li>
        ))}
      </ul>
    </div>
  )
}
