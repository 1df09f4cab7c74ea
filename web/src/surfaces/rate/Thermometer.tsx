import { TemperatureForm } from '../../job/TemperatureForm.tsx'
import { useJobData } from '../../job/useJobData.ts'
import { Fold } from '../../parts/Fold.tsx'
import { count } from '../../parts/say.ts'

/** How warm it is beside the clock, day by day: read off now and then, or from a logger's sheet. */
export function Thermometer() {
  const { job, thermometers } = useJobData()
  const all = thermometers[0]?.temperatures.map((t) => t.celsius) ?? []
  const path = `/jobs/${job.id}/thermometer`
  return (
    <Fold
      title={
        all.length === 0
          ? 'How warm it is beside it'
          : `Beside it: ${count(all.length, 'temperature')}, ${Math.min(...all).toFixed(1)} to ${Math.max(...all).toFixed(1)} °C`
      }
    >
      <p className="quiet">
        One a day is enough: what a degree does is then told apart from nut and wear. A watch’s temperatures count here
        too.
      </p>
      <TemperatureForm
        path={path}
        logger={`${path}/logger`}
        some={all.length > 0}
        noneKept="All of its temperatures were there already, or are from before the clock came."
      />
    </Fold>
  )
}
