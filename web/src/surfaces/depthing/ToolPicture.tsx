import type { DepthSetting } from '@treadle/core'

/** The two pitch circles touching, to scale, with the runners that carry them and what a caliper shows across. */
export function ToolPicture({
  setting,
  runnerMm,
  teeth,
  leaves,
}: {
  setting: DepthSetting
  runnerMm: number
  teeth: number
  leaves: number
}) {
  const { wheelPitchMm, pinionPitchMm, centreDistanceMm, acrossRunnersMm } = setting
  const R = wheelPitchMm / 2
  const r = pinionPitchMm / 2
  const width = R + centreDistanceMm + r
  const unit = (width * 1.1) / 100
  return (
    <svg
      viewBox={`${-R - width * 0.05} ${-R * 1.05} ${width * 1.1} ${R * 2.1 + unit * 16}`}
      style={{ width: '100%', maxWidth: 520, maxHeight: '32vh' }}
      role="img"
      aria-label={`A wheel of ${teeth} and a pinion of ${leaves}, ${centreDistanceMm.toFixed(2)} mm apart, ${acrossRunnersMm.toFixed(2)} mm across the runners`}
    >
      <circle
        r={R}
        fill="var(--brass-wash)"
        stroke="var(--brass)"
        strokeWidth={unit * 0.4}
        strokeDasharray={`${unit} ${unit * 0.6}`}
      />
      <circle
        cx={centreDistanceMm}
        r={r}
        fill="var(--steel-metal)"
        stroke="var(--ink)"
        strokeWidth={unit * 0.4}
        strokeDasharray={`${unit} ${unit * 0.6}`}
      />
      {[0, centreDistanceMm].map((x) => (
        <circle key={x} cx={x} r={runnerMm / 2} fill="none" stroke="var(--ink)" strokeWidth={unit * 0.5} />
      ))}
      <path d={`M0 0H${centreDistanceMm}`} stroke="var(--steel)" strokeWidth={unit * 0.5} />
      <text x={centreDistanceMm / 2} y={-unit * 1.6} fontSize={unit * 3.6} textAnchor="middle" fill="var(--steel)">
        {centreDistanceMm.toFixed(2)}
      </text>
      <g transform={`translate(0 ${R + unit * 6})`}>
        <path
          d={`M${-runnerMm / 2} ${-unit * 2}V${unit * 2}M${-runnerMm / 2} 0H${centreDistanceMm + runnerMm / 2}M${centreDistanceMm + runnerMm / 2} ${-unit * 2}V${unit * 2}`}
          stroke="var(--brass)"
          strokeWidth={unit * 0.5}
          fill="none"
        />
        <text x={centreDistanceMm / 2} y={unit * 5.5} fontSize={unit * 4} textAnchor="middle" fill="var(--brass)">
          {acrossRunnersMm.toFixed(2)} mm across the runners
        </text>
      </g>
    </svg>
  )
}
