import type { Reopened } from '@treadle/contract'
import { notifications } from '@mantine/notifications'
import { sayNotKept, useChange } from '../data/queries.ts'

/** Opens a closed job again, and says what was promised to it and can’t be had any more. */
export function useReopen(jobId: string): () => void {
  const change = useChange<Reopened>('stock')
  return () =>
    change.mutate(
      { method: 'POST', path: `/jobs/${jobId}/reopen`, body: {} },
      {
        onSuccess: ({ noMore }) => {
          if (noMore.length > 0)
            notifications.show({
              color: 'orange',
              title: 'Open again; not all that was promised to it could be had',
              message: `${noMore.join(', ')}: gone to another clock. Look in the drawers, or order.`,
              autoClose: false,
            })
        },
        onError: sayNotKept,
      },
    )
}
