import {
  DepthTrialChange,
  ESCAPEMENT_TITLES,
  EscapementSheetChange,
  MadePartChange,
  SpringSheetChange,
  SuspensionChange,
  WheelSheetChange,
} from '@treadle/contract'
import { drawPart, faultsInWords, FieldError, releaseOfSheet, releaseToKeep, unlessRefused } from '@treadle/core'
import { eq, sql } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import {
  clocks,
  depthTrials,
  donors,
  escapementSheets,
  madeParts,
  springSheets,
  suspensions,
  wheelSheets,
} from '../db/schema.ts'
import type { JobDoing } from '../door/jobChange.ts'
import { INERT } from '../files/send.ts'
import { requireGate } from '../gates/requireGate.ts'
import { idOf } from '../http/ask.ts'
import { badField } from '../http/problem.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'
import { findJob } from '../jobs/find.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'
import { followTaken } from '../stock/hold.ts'
import { partDxf } from './dxf.ts'
import { partSvg } from './svg.ts'

/** Wheels, pinions, springs, the escapement, the depthing tool and parts that are made. */
export function wheelRoutes(db: Database): Router {
  return apiRouter()
    .get('/jobs/:id/made-parts/:drawing', async (req, res) => {
      const [row, ending] = (req.params.drawing ?? '').split('.')
      const format = ending === 'svg' || ending === 'dxf' ? FORMATS[ending] : undefined
      if (!format) throw new Refused('no-such-part-drawing')
      const job = await findJob(db, idOf(req))
      const rows = await db.select().from(madeParts).where(eq(madeParts.jobId, job.id))
      const part = rows.find((p) => p.id === row)
      if (!part) throw new Refused('no-such-part')
      const drawing = unlessRefused(() => drawPart(part.part, part.sizes))
      if (drawing instanceof FieldError) throw new Refused('sizes')
      res
        .set(INERT)
        .type(format.type)
        .attachment(`clock-${job.number}-${part.part.replace(' ', '-')}.${ending}`)
        .send(format.draw(drawing, part.name))
    })
    .use(
      rowRoutes(db, {
        path: 'wheels',
        table: wheelSheets,
        schema: WheelSheetChange,
        kind: 'wheel',
        place: ['train', 'arbor', 'part'],
        after: async (doing, body, was) => {
          if (body) await requireGate(doing, { work: 'wheel', id: body.id })
          await followDonor(doing, was?.donorId ?? null, body?.donorId ?? null)
        },
        sentence: wheelSentence,
        goneSentence: (row) => `Sheet taken back: ${row.arbor}, ${row.part}.`,
      }),
      rowRoutes(db, {
        path: 'springs',
        table: springSheets,
        schema: SpringSheetChange,
        kind: 'spring',
        ofDrawers: true,
        place: ['train'],
        after: async (doing, body, was) => {
          if (body && body.done.some((key) => was?.train !== body.train || !was.done.includes(key)))
            await requireGate(doing, { work: 'spring', train: body.train })
          await followTaken(doing, body ?? was, inHand(was), inHand(body))
        },
        sentence: springSentence,
        goneSentence: (row) => `Sheet of the ${row.train} mainspring taken back.`,
      }),
      rowRoutes(db, {
        path: 'suspensions',
        table: suspensions,
        schema: SuspensionChange,
        kind: 'spring',
        place: [],
        sentence: (s) => {
          const found = [
            s.thickMm === null ? '' : `${s.thickMm} mm thick`,
            ...(['kinked', 'rust', 'twisted', 'makeshift'] as const).map((key) => (s[key] ? key : '')),
          ]
          const fitted = s.fittedThickMm === null ? '' : ` Fitted: ${s.fittedThickMm} mm thick.`
          return `Suspension spring: ${said(found) || 'looked at'}.${fitted}`
        },
        goneSentence: () => 'Suspension spring taken back.',
      }),
      rowRoutes(db, {
        path: 'escapements',
        table: escapementSheets,
        schema: EscapementSheetChange,
        kind: 'escapement',
        place: [],
        after: followRelease,
        sentence: (e) => {
          const release = releaseOfSheet(e)
          const what = [
            release === null ? '' : `lets go at ±${release.toFixed(2)}°`,
            e.nearerMm === 0
              ? ''
              : `arbor ${Math.abs(e.nearerMm).toFixed(2)} mm ${e.nearerMm > 0 ? 'nearer' : 'farther'}`,
            e.openedDeg === 0
              ? ''
              : `pallets ${e.openedDeg > 0 ? 'opened' : 'closed'} ${Math.abs(e.openedDeg).toFixed(2)}°`,
            e.bent.length === 0 ? '' : `bent teeth ${e.bent.join(', ')}`,
            e.topped.length === 0 ? '' : `topping: ${e.topped.at(-1)}`,
          ]
          return `Escapement, ${ESCAPEMENT_TITLES[e.kind]}: ${said(what) || 'looked at'}.`
        },
        goneSentence: () => 'Sheet of the escapement taken back.',
      }),
      rowRoutes(db, {
        path: 'depths',
        table: depthTrials,
        schema: DepthTrialChange,
        kind: 'depth',
        place: ['train', 'arbor'],
        sentence: (d) =>
          d.keptMm === null
            ? `Depthing tool, ${d.arbor}: ${d.trials.filter((t) => t.feel !== '').length} settings tried.`
            : `Depthing tool, ${d.arbor}: ${d.keptMm.toFixed(2)} mm across the runners kept.`,
        goneSentence: (row) => `Depth of the ${row.arbor} taken back.`,
      }),
      rowRoutes(db, {
        path: 'made-parts',
        table: madeParts,
        schema: MadePartChange,
        kind: 'made',
        check: ({ part, sizes }) => {
          const drawing = unlessRefused(() => drawPart(part, sizes))
          if (drawing instanceof FieldError) throw badField('sizes', `Sizes: ${drawing.field} – ${drawing.allowed}`)
        },
        sentence: (p) => `To make: ${p.part}${p.name === '' ? '' : `, ${p.name}`}; ${p.done.length} steps done.`,
        goneSentence: (row) => `Taken off the list to make: ${row.part}.`,
      }),
    )
}

const FORMATS = {
  svg: { type: 'image/svg+xml', draw: partSvg },
  dxf: { type: 'image/vnd.dxf', draw: partDxf },
}

const said = (words: string[]) => words.filter((w) => w !== '').join(', ')

function wheelSentence(w: WheelSheetChange): string {
  const found = [
    faultsInWords(w.faults),
    w.worn === '' || w.worn === 'none' ? '' : `worn on ${w.worn === 'both' ? 'both flanks' : `the ${w.worn} flank`}`,
    ...[w.click, w.clickSpring, w.rivet].map((state, i) =>
      state === 'bad' ? `${['click', 'click spring', 'rivet'][i]} bad` : '',
    ),
    w.shroud === 'bad' ? 'shroud loose' : '',
    w.grooveMm === null ? '' : `leaves grooved ${w.grooveMm} mm`,
    w.way === '' ? '' : `to be done: ${w.way}`,
    w.done.length === 0 ? '' : `${w.done.length} steps done`,
  ]
  return `${w.arbor}, ${w.part}: ${said(found) || 'looked at'}.`
}

function springSentence(s: SpringSheetChange): string {
  const found = [
    s.widthMm !== null && s.middleMm !== null ? `${s.widthMm} × ${s.middleMm} mm` : '',
    s.set ? 'set' : '',
    s.rust ? 'rust pits' : '',
    s.cracks ? 'cracks' : '',
    s.holeEnd === 'torn' ? 'end torn' : '',
    s.choice === '' ? '' : { keep: 'kept', stock: 'from the drawer', order: 'to be ordered' }[s.choice],
    s.done.length === 0 ? '' : `${s.done.length} steps done`,
  ]
  return `Mainspring, ${s.train}: ${said(found) || 'looked at'}.`
}

/** The spring that is in hand for a train: out of its drawer from the step that takes it. */
function inHand(s: { choice: string; stockId: string | null; done: string[] } | null): string | null {
  return s?.choice === 'stock' && s.done.includes('take') ? s.stockId : null
}

/** A donor that a sheet takes leaves the ledger, so that two clocks can't have it; one it gives back is there again. */
async function followDonor({ tx, write }: JobDoing, was: string | null, now: string | null): Promise<void> {
  if (was === now) return
  // In one order, so that two sheets that change places never wait for each other in a ring.
  for (const id of [was, now].filter((one) => one !== null).sort()) {
    const [donor] = await tx.select().from(donors).where(eq(donors.id, id)).for('no key update')
    if (!donor) throw badField('donorId', 'Donor: there is no such part in the ledger')
    const there = donor.there + (id === now ? -1 : 1)
    if (there < 0) throw new Refused('no-donor-left')
    await tx
      .update(donors)
      .set({ there, version: donor.version + 1 })
      .where(eq(donors.id, id))
    await write(`${id === now ? 'Taken out of' : 'Back in'} the ledger: a ${donor.kind} of ${donor.count ?? '?'}.`, {
      donorId: id,
    })
  }
}

/** The beat is reckoned by what the drawing says, unless a person typed the release angle by hand. */
async function followRelease(
  { tx, job, write }: JobDoing,
  body: EscapementSheetChange | null,
  was: EscapementSheetChange | null,
): Promise<void> {
  const now = body && releaseOfSheet(body)
  if (now === null) return
  const [clock] = await tx.select().from(clocks).where(eq(clocks.id, job.clockId)).for('no key update')
  if (!clock) return
  const { pendulum } = clock
  const releaseDeg = releaseToKeep(pendulum.releaseDeg, was && releaseOfSheet(was), now)
  const escapeTeeth = pendulum.escapeTeeth ?? body?.teeth ?? null
  if (releaseDeg === pendulum.releaseDeg && escapeTeeth === pendulum.escapeTeeth) return
  await tx
    .update(clocks)
    .set({ pendulum: { ...pendulum, releaseDeg, escapeTeeth }, version: sql`${clocks.version} + 1` })
    .where(eq(clocks.id, clock.id))
  await write(`From the escapement to the beat: it lets go at ±${releaseDeg?.toFixed(2) ?? '?'}°.`, {
    releaseDeg,
    escapeTeeth,
  })
}
