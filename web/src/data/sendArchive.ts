import type { ArchiveProgress, ArchiveTold, Problem } from '@treadle/contract'
import { ApiProblem } from './api.ts'
import { benchId, benchName } from './atTheBench.ts'

/** How far an archive has come: sent, then read, compared and kept. */
export type ArchiveOnItsWay = ArchiveProgress | { step: 'send'; done: number; of: number }

/**
 * Sends an archive and tells how far it has come; what it tells in the end is given. Stopped, or given up with the page, it
 * is broken off at the server too, and nothing of it comes in.
 *
 * By XMLHttpRequest: fetch tells nothing of how much was sent.
 */
export function sendArchive(
  zip: File,
  query: string,
  onProgress: (at: ArchiveOnItsWay) => void,
  signal: AbortSignal,
): Promise<ArchiveTold> {
  return new Promise((resolve, reject) => {
    const asked = new XMLHttpRequest()
    asked.open('POST', `/api/archive${query}`)
    asked.setRequestHeader('Content-Type', 'application/zip')
    asked.setRequestHeader('Accept', 'application/x-ndjson')
    asked.setRequestHeader('X-Bench', encodeURIComponent(benchName()))
    asked.setRequestHeader('X-Bench-Id', benchId())
    asked.upload.onprogress = ({ loaded, total }) => onProgress({ step: 'send', done: loaded, of: total })
    asked.onprogress = () => {
      const last = linesOf(asked.responseText).at(-1)
      if (last?.progress) onProgress(last.progress)
    }
    asked.onload = () => {
      const last = linesOf(asked.responseText).at(-1)
      if (last?.told) resolve(last.told)
      else reject(new ApiProblem(last?.problem ?? problemOf(asked)))
    }
    asked.onerror = () => reject(new Error('The workshop’s server does not answer. Send the archive once more.'))
    asked.onabort = () => reject(new Error('Stopped.'))
    signal.addEventListener('abort', () => asked.abort())
    asked.send(zip)
  })
}

interface Line {
  progress?: ArchiveProgress
  told?: ArchiveTold
  problem?: Problem
}

/** The lines that have come whole. */
function linesOf(text: string): Line[] {
  return text
    .slice(0, text.lastIndexOf('\n') + 1)
    .split('\n')
    .filter((line) => line.startsWith('{'))
    .slice(-1)
    .map((line) => JSON.parse(line) as Line)
}

/** What was refused before any of it was read. */
function problemOf({ status, statusText, responseText }: XMLHttpRequest): Problem {
  try {
    return JSON.parse(responseText) as Problem
  } catch {
    return { type: '', title: statusText || 'The archive was not taken in.', status }
  }
}
