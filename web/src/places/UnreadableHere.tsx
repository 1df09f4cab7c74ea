import type { UnreadableRow } from '@treadle/contract'
import { useQuery } from '@tanstack/react-query'
import { request } from '../data/api.ts'
import { Mark } from '../parts/Mark.tsx'
import parts from '../parts/parts.module.css'
import { spacedOut } from '../parts/say.ts'

/** Settings and tables of the workshop that can’t be read: the usual ones stand for them until they are kept anew. */
export function UnreadableHere() {
  const { data = [] } = useQuery({
    queryKey: ['settings', 'unreadable'],
    queryFn: () => request<UnreadableRow[]>('GET', '/unreadable'),
  })
  if (data.length === 0) return null
  const names = data.map(({ table, title, field }) =>
    table === 'settings' ? spacedOut(field) : `the table of ${title}`,
  )
  return (
    <div role="alert" className={parts.asked}>
      <p>
        <Mark state="must" label="can’t be read" /> What was kept here can’t be read: {names.join(', ')}. The usual
        stands for it. Look it through, and keep it anew.
      </p>
    </div>
  )
}
