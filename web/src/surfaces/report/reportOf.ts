import { PART_CLASS_TITLES, RUNS_TITLES, type JobPage, type PhotoRow, type Settings } from '@treadle/contract'
import {
  DRIVE_AGAIN,
  DRIVE_KEY,
  driveCompared,
  FieldError,
  isMade,
  outOfBeatMs,
  secondsOf,
  splitTold,
  unlessRefused,
  visitInWords,
} from '@treadle/core'

export type PictureSide = 'before' | 'after' | 'out'

export const pictureKey = (photoId: string) => `report picture: ${photoId}`
export const BAG_KEY = 'report: kept in the bag'

/** So many pictures of each side are shown where nobody chose. */
const USUAL = 4

/** The pictures of before and after: as chosen, else the first that were taken before it was parted and the last after it was oiled. */
export function picturesOf({ job, photos, observations, events }: JobPage): Record<'before' | 'after', PhotoRow[]> {
  const chosen = (p: PhotoRow) => observations.find((o) => o.key === pictureKey(p.id))?.answer
  const partedS = job.partedAt === null ? null : secondsOf(job.partedAt)
  const oiled = events.find((e) => e.kind === 'oiled')
  const usual = {
    before: photos.filter((p) => partedS === null || secondsOf(p.takenAt) <= partedS).slice(0, USUAL),
    after: oiled ? photos.filter((p) => secondsOf(p.takenAt) >= secondsOf(oiled.at)).slice(-USUAL) : [],
  }
  const side = (p: PhotoRow): PictureSide => {
    const said = chosen(p)
    if (said === 'before' || said === 'after' || said === 'out') return said
    return usual.after.includes(p) ? 'after' : usual.before.includes(p) ? 'before' : 'out'
  }
  return { before: photos.filter((p) => side(p) === 'before'), after: photos.filter((p) => side(p) === 'after') }
}

export interface ReportLine {
  title: string
  before: string
  after: string
}

/** What was measured when it came and when it left; only what was. */
export function beforeAndAfter(data: JobPage): ReportLine[] {
  const { listenings, observations, job } = data
  const of = (key: string) => observations.find((o) => o.key === key)
  const told = listenings.filter(splitTold)
  const [first, last] = [told.find((l) => l.purpose === 'observe'), told.findLast((l) => l.purpose !== 'observe')]
  const drive = driveCompared(of(DRIVE_KEY), of(DRIVE_AGAIN))
  const beat = (l: typeof first) =>
    l ? `${outOfBeatMs(l).toFixed(1)} ± ${l.outOfBeatStandardError.toFixed(1)} ms out` : ''
  const arc = of('arc')?.figure
  const lines: ReportLine[] = [
    { title: 'Ran', before: RUNS_TITLES[job.runs], after: '' },
    { title: 'Beat', before: beat(first), after: beat(last) },
    {
      title: 'Scatter of a beat',
      before: first ? `${first.scatterMs.toFixed(2)} ms` : '',
      after: last ? `${last.scatterMs.toFixed(2)} ms` : '',
    },
    {
      title: 'Kept going by',
      before: drive ? `${drive.before} ${drive.unit}` : '',
      after: drive ? `${drive.now} ${drive.unit}` : '',
    },
    {
      title: 'Arc, each side',
      before: arc == null ? '' : `${arc}°`,
      after: '',
    },
  ]
  return lines.filter((l) => l.before !== '' || l.after !== '')
}

/** What was changed on it: what the record has as made now, and parts whose every step is done; bushes are told with what was done. */
export function changesOf(data: JobPage): string[] {
  const made = data.conditions
    .filter((c) => c.class === 'made-now')
    .map((c) => `${c.name}: ${PART_CLASS_TITLES[c.class]}${c.note === '' ? '' : `, ${c.note}`}`)
  const parts = data.madeParts.filter(isMade).map((p) => `${p.name === '' ? p.part : `${p.name}, ${p.part}`}: made`)
  return [...made, ...parts]
}

/** What was done, in sentences. */
export function workOf(data: JobPage, settings: Settings): string[] {
  const words = unlessRefused(() => visitInWords({ ...data, causes: data.confirmedCauses }, settings))
  return words instanceof FieldError ? [] : words
}
