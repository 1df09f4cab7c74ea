import { array, number, object, string, type InferType } from 'yup'

export const ARCHIVE_FORMAT = 'treadle-archive'
/** Of the format; every version up to this one is read. */
export const ARCHIVE_VERSION = 1

/** What an archive says of itself: what it is of, and the digest of each thing in it. */
export const ArchiveManifest = object({
  format: string()
    .oneOf([ARCHIVE_FORMAT] as const)
    .required(),
  version: number().integer().min(1).required(),
  of: string()
    .oneOf(['clock', 'workshop'] as const)
    .required(),
  workshop: string().max(200).defined(),
  at: string()
    .required()
    .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,9})?Z$/),
  treadle: string().max(60).defined(),
  entries: array(
    object({
      path: string().max(200).required(),
      bytes: number().integer().min(0).required(),
      sha256: string()
        .required()
        .matches(/^[0-9a-f]{64}$/),
      rows: number().integer().min(0).optional(),
    })
      .noUnknown()
      .required(),
  ).required(),
})
  .noUnknown()
  .required()
export type ArchiveManifest = InferType<typeof ArchiveManifest>
