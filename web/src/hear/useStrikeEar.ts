import { useWorkerEar, type WorkerEar } from './useWorkerEar.ts'
import type { StrikesHeard } from './strike.worker.ts'

export type StrikeHeardLive = WorkerEar<StrikesHeard>

const NOTHING: StrikesHeard = { groups: [], quietS: null }

/** Hears a strike by the microphone while it is on, in a worker. */
export function useStrikeEar(): StrikeHeardLive {
  return useWorkerEar(
    () => new Worker(new URL('./strike.worker.ts', import.meta.url), { type: 'module' }),
    null,
    NOTHING,
    'Count by the foot.',
  )
}
