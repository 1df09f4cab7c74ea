interface Row {
  id: string
  version: number
}

const last = new Map<string, Row>()
const turns = new Map<string, Promise<unknown>>()
let open = 0

/** The row as this page itself last wrote it; none before it wrote, or once it took it back. */
export function ownRow(id: string): Row | undefined {
  const row = last.get(id)
  return row && row.version > 0 ? row : undefined
}

/** The version at which this page last wrote the row: 0 once it took it back, none before it wrote. */
export function lastVersion(id: string): number | undefined {
  return last.get(id)?.version
}

export function rememberRow(row: Row): void {
  last.set(row.id, row)
}

/** Does work on a row after all that was begun on it before, so that quick presses never overtake each other. */
export function inTurn(id: string, work: () => Promise<void>): Promise<void> {
  const before = turns.get(id) ?? Promise.resolve()
  open++
  const mine = before.then(work, work).finally(() => open--)
  turns.set(id, mine)
  return mine
}

/** Whether anything waits for its turn, or is at it. */
export function isTurnOpen(): boolean {
  return open > 0
}
