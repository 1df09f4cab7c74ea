/** An error as the database, its driver or the system tells it, perhaps within another. */
export interface DatabaseError {
  code?: string
  message?: string
  /** as PostgreSQL tells it: Key (stock_id)=(…) is not present in table "stock". */
  detail?: string
  cause?: unknown
}

/** An error and all that it was thrown for, the outermost first. */
export function* errorsWithin(error: unknown): Generator<DatabaseError> {
  for (let e = error as DatabaseError | undefined; e; e = e.cause as DatabaseError | undefined) yield e
}

/** The code that the database gave its refusal (SQLSTATE), or the system its own; empty where there is none. */
export function databaseCode(error: unknown): string {
  for (const { code } of errorsWithin(error)) if (code !== undefined) return code
  return ''
}
