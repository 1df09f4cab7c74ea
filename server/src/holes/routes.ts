import { HoleChange } from '@treadle/contract'
import { checkHole, FieldError, samePlace } from '@treadle/core'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { holes } from '../db/schema.ts'
import { requireGate } from '../gates/requireGate.ts'
import { Refused } from '../http/refusals.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'

export function holeRoutes(db: Database): Router {
  return rowRoutes(db, {
    path: 'holes',
    table: holes,
    schema: HoleChange,
    kind: 'hole',
    check: refuseImpossible,
    place: ['train', 'arbor', 'plate'],
    after: async (doing, hole, was) => {
      const moved = hole !== null && was !== null && !samePlace(hole, was)
      if (hole && (moved || (hole.bushed && !was?.bushed))) await requireGate(doing, { work: 'cut', holeId: hole.id })
    },
    stamp: ({ who, whoId }) => ({ measuredBy: who, whoId }),
    sentence,
    goneSentence: (row) => `Off the list: ${row.arbor}, ${row.plate} plate.`,
  })
}

/** What no caliper can find is refused here as it is at the field: by the core's own rule. */
function refuseImpossible(hole: HoleChange): void {
  const { longAxisMm, shortAxisMm, pivotMm } = hole
  try {
    if (longAxisMm !== null && shortAxisMm !== null)
      checkHole({ longAxisMm, shortAxisMm, pivotMm: pivotMm ?? shortAxisMm })
  } catch (error) {
    if (!(error instanceof FieldError)) throw error
    throw new Refused('bad-fields', {
      errors: [{ field: error.field, message: error.message }],
    })
  }
}

function sentence(hole: HoleChange, state: 'created' | 'changed'): string {
  const place = `${hole.arbor}, ${hole.plate} plate`
  const { longAxisMm: a, shortAxisMm: b, pivotMm: d } = hole
  const figures =
    a !== null && b !== null
      ? `: ${a.toFixed(2)} by ${b.toFixed(2)} mm${d === null ? '' : `, pivot ${d.toFixed(2)}`}`
      : ''
  if (hole.bushed) return `Bushed: ${place}${figures}.`
  if (hole.verdictOverride !== null)
    return `Verdict on ${place} overridden: ${hole.verdictOverride}. Reason: ${hole.overrideReason}${figures}.`
  return state === 'created' && figures === '' ? `On the list: ${place}.` : `Measured ${place}${figures}.`
}
