import type { TrainSheet } from '@treadle/core'

interface Drawn {
  name: string
  x: number
  y: number
  wheel: number | null
  pinion: number | null
  period: number | null
}

/** The train at true ratio: every wheel and pinion by its count, each mesh touching, of one module for want of better. */
export function TrainPicture({ sheet }: { sheet: TrainSheet }) {
  const arbors = laidOut(sheet)
  if (arbors.length < 2) return null
  const reach = arbors.flatMap((a) => {
    const r = Math.max(a.wheel ?? 0, a.pinion ?? 0) / 2 + 3
    return [
      { x: a.x - r, y: a.y - r },
      { x: a.x + r, y: a.y + r },
    ]
  })
  const left = Math.min(...reach.map((p) => p.x))
  const right = Math.max(...reach.map((p) => p.x))
  const top = Math.min(...reach.map((p) => p.y))
  const bottom = Math.max(...reach.map((p) => p.y))
  const size = (right - left) / 26
  return (
    <svg
      viewBox={`${left} ${top} ${right - left} ${bottom - top}`}
      style={{ width: '100%', maxHeight: 300 }}
      role="img"
      aria-label={`The train drawn at true ratio: ${arbors.map((a) => a.name).join(', ')}`}
    >
      {arbors.map((a) => (
        <g key={a.name + String(a.x)} transform={`translate(${a.x} ${a.y})`}>
          {a.wheel !== null && (
            <circle
              r={a.wheel / 2}
              fill="var(--brass-wash)"
              fillOpacity="0.55"
              stroke="var(--brass-line)"
              strokeWidth={size / 9}
              strokeDasharray={`${size / 6} ${size / 8}`}
            />
          )}
          {a.pinion !== null && (
            <circle r={a.pinion / 2} fill="var(--steel-metal)" stroke="var(--ink)" strokeWidth={size / 12} />
          )}
          <circle r={size / 5} fill="var(--ink)" />
        </g>
      ))}
      {arbors.map((a) => (
        <text
          key={`t${a.name}${a.x}`}
          x={a.x}
          y={a.y - (a.pinion ?? 0) / 2 - size * 0.45}
          textAnchor="middle"
          fontSize={size}
          fill="var(--ink)"
        >
          {a.name} {a.wheel ?? '?'}
        </text>
      ))}
    </svg>
  )
}

/** Arbors placed mesh by mesh, wheel touching pinion, zigzag so that they do not lie on one another. */
function laidOut(sheet: TrainSheet): Drawn[] {
  const out: Drawn[] = []
  sheet.arbors.forEach(({ name, wheel, pinion, periodS }, i) => {
    const before = out[i - 1]
    const centre = before ? ((before.wheel ?? 40) + (pinion ?? 8)) / 2 : 0
    const angle = ((i % 2 === 0 ? 38 : -38) * Math.PI) / 180
    out.push({
      name,
      wheel,
      pinion: i === 0 ? null : (pinion ?? 8),
      period: periodS,
      x: before ? before.x + centre * Math.cos(angle) : 0,
      y: before ? before.y + centre * Math.sin(angle) : 0,
    })
  })
  return out
}
