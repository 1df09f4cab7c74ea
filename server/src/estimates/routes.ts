import { Estimate } from '@treadle/contract'
import { estimateSpan } from '@treadle/core'
import { and, eq, ne } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { estimates } from '../db/schema.ts'
import { stale } from '../db/versioned.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'

const HOW = { signed: 'signed on the screen', call: 'by a call', letter: 'in writing' }

/** Estimates of a job, revision by revision; an accepted one is never changed. */
export function estimateRoutes(db: Database): Router {
  return apiRouter().use(
    rowRoutes(db, {
      path: 'estimates',
      table: estimates,
      schema: Estimate,
      kind: 'estimate',
      values: (body) => ({ ...body, sentAt: body.sentAt === null ? null : new Date(body.sentAt) }),
      stamp: (person) => person,
      may: async ({ tx, job }, body, was) => {
        // The acceptance sent once more, on the version before it, is a repeated request and no change.
        const again = body?.state === 'accepted' && body.version < (was?.version ?? 0)
        if (was?.state === 'accepted' && !again) throw new Refused('accepted')
        if (body === null) return
        const other = and(eq(estimates.jobId, job.id), eq(estimates.revision, body.revision), ne(estimates.id, body.id))
        const [theirs] = await tx.select().from(estimates).where(other)
        if (theirs) throw stale(theirs, `Somebody has made revision ${body.revision} meanwhile. Look at it first.`)
      },
      sentence: (e) => {
        const { least, most } = estimateSpan(e.lines, e.taxPercent)
        const sum = least.gross === most.gross ? least.gross : `${least.gross} to ${most.gross}`
        const figure = `Estimate ${e.revision}, ${sum} ${e.currency}`
        if (e.state === 'draft') return `${figure}: written.`
        if (e.state === 'sent') return `${figure}: sent to the owner.`
        const how = e.answer
          ? `${HOW[e.answer.how]}, by ${e.answer.by}${e.answer.note === '' ? '' : `: ${e.answer.note}`}`
          : ''
        return `${figure}: ${e.state} ${how}.`
      },
      goneSentence: (row) => `Estimate ${row.revision} taken back.`,
    }),
  )
}
