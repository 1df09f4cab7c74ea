import { Alert, Button, Loader } from '@mantine/core'
import type { UseQueryResult } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { sentenceOf } from '../data/queries.ts'

/** Shows what a query brought, or that it is on its way, or why it can't be had and what to do. */
export function Loaded<T>({ query, children }: { query: UseQueryResult<T>; children: (data: T) => ReactNode }) {
  if (query.data !== undefined) return <>{children(query.data)}</>
  if (query.isError)
    return (
      <Alert color="red" title="That could not be fetched" role="alert">
        {sentenceOf(query.error)}
        <Button variant="default" mt="sm" onClick={() => void query.refetch()}>
          Try again
        </Button>
      </Alert>
    )
  return <Loader aria-label="Fetching" m="xl" />
}
