/** The few kinds of files that are kept. */
export const FILE_KINDS = ['image/jpeg', 'image/png', 'image/webp', 'audio/wav'] as const
export type FileKind = (typeof FILE_KINDS)[number]

/** A row that stands here otherwise than in the archive, or, of the shop’s own, not yet. */
export interface ArchiveClash {
  table: string
  /** its key, as one word */
  key: string
  title: string
  /** fields that differ; of a row that is not here, all that it has */
  fields: { name: string; here: unknown; there: unknown }[]
  /** it can be taken as it is in the archive; what was agreed or written for good can’t */
  mayTake: boolean
}

/** What an archive of a workshop brings of the shop’s own where there is a workshop already: asked about, kind by kind. */
export interface ArchiveShopKind {
  table: string
  fresh: number
  otherwise: number
  /** the first of them: what stands here, and what would */
  rows: ArchiveClash[]
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
  /** of the shop’s own, what was not asked for */
  shop: ArchiveShopKind[]
  /** rows that an archive has no business to bring here */
  leftOut: { table: string; rows: number }[]
  /** visits whose number is another’s here, or none that can be, and which they have now */
  renumbered: { clock: string; was: number; now: number | null }[]
  /** gates that were set aside elsewhere: told, and opening nothing here */
  setAside: number
  kept: boolean
}

/** How far the reading of an archive has come: bytes read and files kept, or rows. */
export interface ArchiveProgress {
  step: 'read' | 'compare' | 'files' | 'rows'
  done: number
  /** 0: not known */
  of: number
}
