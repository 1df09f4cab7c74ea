import { Button } from '@mantine/core'
import { isRouteErrorResponse, Link, useRouteError } from 'react-router'
import { isPartMissing } from '../data/newPages.ts'

/** What is shown when a page breaks or there is none: what happened, what was kept, what to do. */
export function PageError() {
  const error = useRouteError()
  const missing = isRouteErrorResponse(error) && error.status === 404
  if (isPartMissing(error)) return <Renewed />
  return (
    <div style={{ padding: '3rem 1.5rem', maxWidth: '46rem' }} role="alert">
      <h1>{missing ? 'There is no such page' : 'This page has stopped'}</h1>
      <p style={{ margin: '1rem 0' }}>
        {missing
          ? 'The address leads nowhere. Nothing was changed.'
          : `Everything that was saved is safe. What broke: ${error instanceof Error ? error.message : 'unknown'}.`}
      </p>
      <Button component={Link} to="/" reloadDocument={!missing}>
        Back to the bench
      </Button>
    </div>
  )
}

/** A part that was wanted for the first time is not there: the pages were renewed, or the server is away. */
function Renewed() {
  return (
    <div style={{ padding: '3rem 1.5rem', maxWidth: '46rem' }} role="alert">
      <h1>This page is of an older version</h1>
      <p style={{ margin: '1rem 0' }}>
        The part of it that comes next could not be fetched: the workshop has newer pages by now, or its server is being
        started. Everything that was saved is safe, and what was typed is still there after it.
      </p>
      <Button onClick={() => window.location.reload()}>Go on</Button>
    </div>
  )
}

export function NoSuchPage() {
  return (
    <div>
      <h1>There is no such page</h1>
      <p style={{ margin: '1rem 0' }}>The address leads nowhere. Nothing was changed.</p>
      <Button component={Link} to="/">
        Back to the bench
      </Button>
    </div>
  )
}
