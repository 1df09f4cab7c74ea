/** A row that stands here otherwise than in the archive. */
export interface ArchiveClash {
  table: string
  /** its key, as one word */
  key: string
  title: string
  fields: { name: string; here: unknown; there: unknown }[]
  /** it can be taken as it is in the archive; what was agreed or written for good can’t */
  mayTake: boolean
}

/** What is in an archive, against what is here; after it was brought in, what became of it. */
export interface ArchiveTold {
  of: 'clock' | 'workshop'
  workshop: string
  at: string
  /** rows that are not here yet, or were put in; rows that stand here just so; files the same way */
  fresh: { table: string; rows: number }[]
  same: number
  freshFiles: number
  sameFiles: number
  clashes: ArchiveClash[]
  /** more clashes than are shown */
  moreClashes: number
  /** clashing rows that were taken as they are in the archive, with what stood here before */
  taken: ArchiveClash[]
  /** visits whose number is another’s here, and which they have now */
  renumbered: { clock: string; was: number; now: number | null }[]
  kept: boolean
}
