import type { WatchPage } from '@treadle/contract'
import { queryClient } from '../../data/queries.ts'
import { TemperatureForm } from '../../job/TemperatureForm.tsx'
import { count } from '../../parts/say.ts'

/** How warm it is beside the clock: read off a thermometer now and then, or from the sheet of a logger. */
export function Temperatures({ jobId, page }: { jobId: string; page: WatchPage }) {
  const { watch } = page
  const all = watch.temperatures.map((t) => t.celsius)
  const path = `/jobs/${jobId}/watches/${watch.id}`
  return (
    <section aria-label="How warm it is">
      <h3>How warm it is</h3>
      <p className="quiet">
        {all.length > 0
          ? `${count(all.length, 'temperature')}, from ${Math.min(...all).toFixed(1)} to ${Math.max(...all).toFixed(1)} °C.`
          : 'Type it now and then, or read a logger’s sheet: what a degree does is told apart from the hours since winding.'}
      </p>
      <TemperatureForm
        path={`${path}/temperatures`}
        logger={`${path}/logger`}
        some={all.length > 0}
        noneKept="None of its temperatures lies in the time of this watch."
        onKept={() => void queryClient.invalidateQueries({ queryKey: ['watch', watch.id] })}
      />
    </section>
  )
}
