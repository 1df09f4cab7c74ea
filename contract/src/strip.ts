import {
  boolean,
  id,
  idOrNone,
  line,
  measured,
  only,
  ruled,
  requiredLine,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'

export const TRAYS = ['going', 'strike', 'chime', 'case'] as const
export const TRAY_TITLES: Record<(typeof TRAYS)[number], string> = {
  going: 'Going tray',
  strike: 'Strike tray',
  chime: 'Chime tray',
  case: 'Case and dial tray',
}

/** One step of taking apart: what came out, into which tray, with which screws, as on its picture. */
export const StripStep = only({
  id: id(),
  version: version(),
  position: measured(-1e9, 1e9).required().label('Place in the log'),
  part: requiredLine(120).label('Part'),
  tray: string().oneOf(TRAYS).required().label('Tray'),
  screws: line(200).defined().label('Screws and their holes'),
  marks: line(200).defined().label('Marks'),
  remark: text(1000).defined().label('Remark'),
  /** single parts that came out, screws with them */
  count: measured(1, 200).integer().required().label('Parts out'),
  photoId: idOrNone(),
  back: boolean().required().label('Back in'),
  /** why it does not go back, where it doesn't: broken, replaced, not its own */
  notBack: text(300).defined().label('Why it does not go back'),
})
export type StripStep = InferType<typeof StripStep>
export type StripStepRow = StripStep & { jobId: string; at: string; who: string; whoId?: string | null }

/** A mesh marked before parting, or waived with a reason. */
export const StripMark = ruled(
  only({
    id: id(),
    version: version(),
    key: requiredLine(40).label('Mark'),
    state: string().oneOf(['done', 'waived']).required(),
    note: text(500).defined().label('Reason'),
  }),
  [
    'reason',
    'Reason: say in a few words why this mark may be left out',
    (mark) => mark.state === 'done' || mark.note.trim().length >= 4,
  ],
)
export type StripMark = InferType<typeof StripMark>
export type StripMarkRow = StripMark & { jobId: string; at: string; who: string; whoId?: string | null }
