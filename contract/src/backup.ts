/** The workshop's daily backups, newest first; no folder: nobody makes them here. */
export interface BackupsKept {
  folder: string | null
  kept: { name: string; at: string; bytes: number }[]
  /** why the last try failed, and when; null: it did not */
  failed: { at: string; why: string } | null
}
