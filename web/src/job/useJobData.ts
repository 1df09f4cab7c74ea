import type { JobPage } from '@treadle/contract'
import { useOutletContext } from 'react-router'

/** The job that the surface is of. */
export function useJobData(): JobPage {
  return useOutletContext<JobPage>()
}
