import type { RequestHandler } from 'express'
import { sendProblem } from './problem.ts'
import { Refused } from './refusals.ts'

/** Refuses a JSON body that is not there whole within `ms`: whoever stops in the middle of a sentence is not waited for. */
export function bodyInTime(ms: number): RequestHandler {
  return (req, res, next) => {
    if ((req.headers['content-type'] ?? '').startsWith('application/json')) {
      const late = setTimeout(() => {
        if (req.complete || res.headersSent) return
        res.set('Connection', 'close')
        sendProblem(res, new Refused('too-slow'))
      }, ms)
      const over = () => clearTimeout(late)
      req.once('end', over)
      res.once('close', over)
    }
    next()
  }
}
