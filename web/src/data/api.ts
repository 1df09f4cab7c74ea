import type { FieldProblem, Problem } from '@treadle/contract'
import { setServerAnswers, setServerState } from './away.ts'
import { benchId, benchName } from './atTheBench.ts'
import { notePages } from './newPages.ts'

/** A request that the server refused: its sentence, the fields that are wrong, the row as it stands now. */
export class ApiProblem extends Error {
  readonly status: number
  readonly detail: string
  readonly errors: FieldProblem[]
  readonly current: unknown

  constructor(problem: Problem) {
    super(problem.title)
    this.status = problem.status
    this.detail = problem.detail ?? ''
    this.errors = problem.errors ?? []
    this.current = problem.current
  }

  /** The whole of it in words. */
  get sentence(): string {
    return [this.message, this.detail, ...this.errors.map((e) => `${e.message}.`)].filter(Boolean).join(' ')
  }
}

const DISK_FULL = '/problems/disk-full'

/** The server does not answer; the request may be tried again as it is. */
class ServerAway extends Error {}

export function isAway(error: unknown): boolean {
  return error instanceof ServerAway
}

/** Sends a request to the workshop's server and gives back its JSON. */
export async function request<T>(method: string, path: string, body?: unknown): Promise<T> {
  const bytes = body instanceof Blob
  let answer: Response
  try {
    answer = await fetch(`/api${path}`, {
      method,
      headers: {
        'X-Bench': encodeURIComponent(benchName()),
        'X-Bench-Id': benchId(),
        ...(body !== undefined && { 'Content-Type': bytes ? body.type : 'application/json' }),
      },
      ...(body !== undefined && { body: bytes ? body : JSON.stringify(body) }),
    })
  } catch {
    setServerState('away')
    throw new ServerAway('The workshop’s server does not answer.')
  }
  notePages(answer.headers.get('X-Pages'))
  const text = await answer.text()
  const problem = (answer.headers.get('content-type') ?? '').includes('problem+json')
  const said = problem ? (JSON.parse(text) as Problem) : null
  // It waits like any change that the server did not answer: nothing of it is kept until there is room.
  if (said?.type === DISK_FULL) {
    setServerState('full')
    throw new ServerAway(said.title)
  }
  if (answer.status === 503 || (answer.status >= 500 && !problem && answer.status !== 507)) {
    setServerState('away')
    throw new ServerAway('The workshop’s server does not answer.')
  }
  setServerAnswers(answer.ok && method !== 'GET')
  if (!answer.ok) throw new ApiProblem(said ?? { type: '', title: answer.statusText, status: answer.status })
  return (text === '' ? undefined : JSON.parse(text)) as T
}
