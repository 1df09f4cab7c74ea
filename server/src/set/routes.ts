import {
  DryRunChange,
  FOOTING_WAY_TITLES,
  FootingChange,
  OilSheetChange,
  StrikeCountChange,
  WITNESS_STATE_TITLES,
  WITNESS_TITLES,
  WitnessChange,
} from '@treadle/contract'
import { timeInWords } from '@treadle/core'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { dryRuns, footings, oilSheets, strikeCounts, witnesses } from '../db/schema.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'
import { requireGate } from '../gates/requireGate.ts'
import { apiRouter } from '../http/router.ts'

/** Back together: dry runs, oil, pictures of the sinks, the strike counted, and where it stands in beat. */
export function setRoutes(db: Database): Router {
  return apiRouter().use(
    rowRoutes(db, {
      path: 'dry-runs',
      table: dryRuns,
      schema: DryRunChange,
      kind: 'assemble',
      place: ['train'],
      after: async (doing, body, was) => {
        const judged = body?.verdict ?? ''
        // It is driven to be judged.
        if (judged !== '' && judged !== was?.verdict) await requireGate(doing, { work: 'assemble' })
        if (judged === '' && was?.verdict === 'free') await requireGate(doing, { work: 'dry-back' })
      },
      values: (body) => ({ ...body, ranAt: new Date(body.ranAt) }),
      sentence: ({ train, amount, drivenBy, backsOff, verdict, note }) =>
        [
          `Run dry, ${train} train: ${amount === null ? 'not measured' : `moved by ${amount} ${drivenBy === 'grams' ? 'g' : amount === 1 ? 'turn' : 'turns'}`}`,
          backsOff === '' ? '' : backsOff === 'yes' ? 'backs off at the end' : 'does not back off',
          verdict === '' ? 'not judged' : `judged ${verdict}`,
          note,
        ]
          .filter((w) => w !== '')
          .join(', ') + '.',
      goneSentence: (row) => `Dry run taken back: ${row.train} train.`,
    }),
    rowRoutes(db, {
      path: 'oil-sheets',
      table: oilSheets,
      schema: OilSheetChange,
      kind: 'oil',
      place: [],
      after: async (doing, body, was) => {
        if (body?.done.some((key) => !was?.done.includes(key))) await requireGate(doing, { work: 'oil' })
      },
      sentence: (sheet, _state, was) => {
        const ticked = sheet.done.filter((key) => !was?.done.includes(key))
        const back = (was?.done ?? []).filter((key) => !sheet.done.includes(key))
        if (ticked.length > 0) return `Oil map, ticked off: ${ticked.join('; ')}.`
        if (back.length > 0) return `Oil map, taken back: ${back.join('; ')}.`
        return `Oil map: ${sheet.done.length} ticked off, ${sheet.left.length} left out${sheet.note === '' ? '' : `; ${sheet.note}`}.`
      },
      goneSentence: () => 'Oil map taken back.',
    }),
    rowRoutes(db, {
      path: 'witnesses',
      table: witnesses,
      schema: WitnessChange,
      kind: 'oil',
      sentence: (w) =>
        `Picture of the sinks, ${w.side}, ${WITNESS_TITLES[w.moment]}${w.state === '' ? '' : `: the oil ${WITNESS_STATE_TITLES[w.state]}`}.`,
      goneSentence: (row) => `Picture of the sinks taken back, ${row.side}.`,
    }),
    rowRoutes(db, {
      path: 'strike-counts',
      table: strikeCounts,
      schema: StrikeCountChange,
      kind: 'strike',
      place: ['hour', 'quarter'],
      values: (body) => ({ ...body, heardAt: new Date(body.heardAt) }),
      sentence: ({ hour, quarter, quarters, blows }, _state, was) => {
        const counted = [
          quarters === null ? '' : `${quarters} of the quarters`,
          blows === null ? '' : `${blows} ${blows === 1 ? 'blow' : 'blows'}`,
        ]
        const before = was && was.blows !== blows && was.blows !== null ? `; it was ${was.blows} before` : ''
        return `Struck at ${timeInWords({ hour, quarter })}: ${counted.filter((w) => w !== '').join(', ')}${before}.`
      },
      goneSentence: (row) => `Count taken back: ${timeInWords(row)}.`,
    }),
    rowRoutes(db, {
      path: 'footings',
      table: footings,
      schema: FootingChange,
      kind: 'footing',
      sentence: ({ way, stoodAtDeg, evenAtDeg, standardError }) =>
        `Rocked: in beat at ${leaning(evenAtDeg)} (± ${standardError.toFixed(2)}°); it stood at ${leaning(stoodAtDeg)}; ${FOOTING_WAY_TITLES[way]}.`,
      goneSentence: (row) => `Taken back: in beat at ${leaning(row.evenAtDeg)}.`,
    }),
  )
}

function leaning(deg: number): string {
  return `${Math.abs(deg).toFixed(2)}°${Math.abs(deg) < 0.005 ? '' : deg > 0 ? ' to the right' : ' to the left'}`
}
