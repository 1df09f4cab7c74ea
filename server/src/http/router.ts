import { Router } from 'express'

/** Routes of the API. A path in other letters is another path: what is not known is not answered. */
export function apiRouter(): Router {
  return Router({ caseSensitive: true })
}
