import { CONDITION_KIND_TITLES, ConditionItem, ConfirmedCause, Observation, PART_CLASS_TITLES } from '@treadle/contract'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { conditions, confirmedCauses, observations } from '../db/schema.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'
import { isLed, isOfMercury } from '@treadle/core'
import { requireGate } from '../gates/requireGate.ts'
import { observationWords, takenBackWords } from './words.ts'
import { apiRouter } from '../http/router.ts'

function saysTheSame(body: Observation, was: Pick<Observation, 'answer' | 'figure' | 'second'>): boolean {
  return body.answer === was.answer && body.figure === was.figure && body.second === was.second
}

/** What was seen, tried and asked; the condition record; what it was in the end. */
export function observationRoutes(db: Database): Router {
  return apiRouter().use(
    rowRoutes(db, {
      path: 'observations',
      table: observations,
      schema: Observation,
      kind: 'observed',
      place: ['key'],
      // A note or a picture added later changes neither when it was seen nor by whom; the journal has whose note it is.
      stamp: (person, at, body, was) =>
        was && saysTheSame(body, was) ? { who: was.who, whoId: was.whoId, at: was.at } : { ...person, at },
      after: async (doing, body, was) => {
        const key = body?.key ?? was?.key ?? ''
        if (body?.answer === 'done' && was?.answer !== 'done') {
          if (isLed(key)) await requireGate(doing, { work: 'assemble' })
          if (isOfMercury(key)) await requireGate(doing, { work: 'mercury', key })
        }
        if (isOfMercury(key) && was?.answer === 'so' && body?.answer !== 'so')
          await requireGate(doing, { work: 'mercury-back', key })
      },
      sentence: observationWords,
      goneSentence: takenBackWords,
    }),
    rowRoutes(db, {
      path: 'conditions',
      table: conditions,
      schema: ConditionItem,
      kind: 'condition',
      sentence: (c) =>
        `${CONDITION_KIND_TITLES[c.kind]}: ${c.name}, ${PART_CLASS_TITLES[c.class]}${c.note === '' ? '' : `. ${c.note}`}.`,
      goneSentence: (row) => `Taken off the condition record: ${row.name}.`,
    }),
    rowRoutes(db, {
      path: 'causes',
      table: confirmedCauses,
      schema: ConfirmedCause,
      kind: 'cause',
      sentence: (c) => `It was this: ${c.cause}${c.note === '' ? '' : `. ${c.note}`}.`,
      goneSentence: (row) => `Taken back: it was not ${row.cause}.`,
    }),
  )
}
