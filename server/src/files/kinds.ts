import { FILE_KINDS, type FileKind } from '@treadle/contract'

/** The ending that a file of each kind has in an archive. */
export const ENDINGS: Record<FileKind, string> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'audio/wav': 'wav',
}

/** Whether it is one of the few kinds that are kept. */
export function isKept(kind: string): kind is FileKind {
  return FILE_KINDS.some((known) => known === kind)
}
