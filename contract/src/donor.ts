import type { DonorFit } from '@treadle/core'
import { DONOR_KINDS, DONOR_SIDES } from '@treadle/core/choices'
import { id, line, measured, mm, only, string, text, version, type InferType } from './fields.ts'

/** A used part of the ledger: a wheel, pinion, platform or spring of a scrapped movement. */
export const DonorChange = only({
  id: id(),
  version: version(),
  kind: string().oneOf(DONOR_KINDS).required().label('Kind'),
  /** teeth or leaves */
  count: measured(3, 1000).integer().nullable().defined().label('Count'),
  moduleMm: mm(0.02, 20, 'Module'),
  boreMm: mm(0.1, 300, 'Bore'),
  /** of a spring: its width */
  outsideMm: mm(0.3, 1500, 'Outside'),
  arborMm: mm(0.1, 300, 'Arbor'),
  side: string().oneOf(DONOR_SIDES).defined().label('Collet on the side'),
  there: measured(0, 10_000).integer().required().label('There'),
  from: line(120).defined().label('Out of'),
  drawer: line(40).defined().label('Drawer'),
  note: text(300).defined().label('Note'),
})
export type DonorChange = InferType<typeof DonorChange>
export type DonorRow = DonorChange & { hasPhoto: boolean }

export function blankDonor(id: string): DonorChange {
  return {
    id,
    version: 0,
    kind: 'wheel',
    count: null,
    moduleMm: null,
    boreMm: null,
    outsideMm: null,
    arborMm: null,
    side: '',
    there: 1,
    from: '',
    drawer: '',
    note: '',
  }
}

/** Donors that fit what is wanted, the nearest first. */
export type DonorFound = DonorRow & DonorFit
