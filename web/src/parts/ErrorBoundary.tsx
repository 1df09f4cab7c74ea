import { Button } from '@mantine/core'
import { isRouteErrorResponse, Link, useRouteError } from 'react-router'

/** What is shown when a page breaks or there is none: what happened, what was kept, what to do. */
export function PageError() {
  const error = useRouteError()
  const missing = isRouteErrorResponse(error) && error.status === 404
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
