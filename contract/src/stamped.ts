/** What the server adds to a row of a job. */
export interface Stamped {
  jobId: string
  at: string
  who: string
  whoId?: string | null
}
