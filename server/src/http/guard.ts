import type { RequestHandler } from 'express'
import { sendProblem } from './problem.ts'
import { Refused } from './refusals.ts'

const CHANGING = new Set(['POST', 'PUT', 'PATCH', 'DELETE'])

/**
 * Refuses requests meant for another host, and changes asked for by a page of another origin: a page open in the same
 * browser must not be able to write in the workshop's book, nor a name that is pointed at this machine to read it.
 */
export function guard(extraHosts: string[] = []): RequestHandler {
  return (req, res, next) => {
    const port = req.socket.localPort ?? 0
    const hosts = ['localhost', '127.0.0.1', '[::1]'].flatMap((h) => [`${h}:${port}`, ...(port === 80 ? [h] : [])])
    hosts.push(...extraHosts)
    const host = req.headers.host?.toLowerCase() ?? ''
    if (!hosts.includes(host)) {
      sendProblem(
        res,
        new Refused('wrong-host', { title: `This workshop does not answer to the name ${host || '(none)'}.` }),
      )
      return
    }
    if (/%00/.test(req.url)) {
      sendProblem(res, new Refused('bad-address'))
      return
    }
    const first = req.path.split('/')[1] ?? ''
    if (first !== 'api' && looksLikeApi(first)) {
      sendProblem(res, new Refused('not-found'))
      return
    }
    const { origin, 'sec-fetch-site': site } = req.headers
    // A page of ours says who it is by its origin; where a browser leaves that out, it still says whose page asks.
    const foreign =
      origin === undefined
        ? site !== undefined && site !== 'same-origin' && site !== 'none'
        : !hosts.includes(origin.replace(/^https?:\/\//, '').toLowerCase())
    if (CHANGING.has(req.method) && foreign) {
      sendProblem(res, new Refused('wrong-origin'))
      return
    }
    next()
  }
}

/** Whether a part of a path would be ours in other letters, plain or written by their numbers. */
function looksLikeApi(part: string): boolean {
  try {
    return decodeURIComponent(part).toLowerCase() === 'api'
  } catch {
    return false
  }
}
