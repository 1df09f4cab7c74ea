import type { TurnedSize } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { useJobData } from '../../job/useJobData.ts'
import { usePaper } from '../../parts/usePaper.ts'
import styles from './Bushings.module.css'
import type { PlannedHole } from './planned.ts'

/** A drawing for the lathe of every bush that is turned: sizes, tolerances, the rod to begin with. */
export function TurnedSheet({ holes, onLeave }: { holes: PlannedHole[]; onLeave: () => void }) {
  const { job, clock } = useJobData()
  usePaper('A4', '14mm')
  return (
    <>
      <Group className={styles.tools} mb="md">
        <Button onClick={() => window.print()}>Print the drawings</Button>
        <Button variant="default" onClick={onLeave}>
          Back to the plan
        </Button>
      </Group>
      <h2>
        Bushes to turn: {clock.name}, job {job.number}
      </h2>
      <div className={styles.sheets}>
        {holes.map((h) => (
          <Drawing key={h.hole.id} planned={h} />
        ))}
      </div>
    </>
  )
}

function Drawing({ planned: { hole, turned } }: { planned: PlannedHole }) {
  if (!turned) return null
  const { outside, bore, length, leadMm, rodMm } = turned
  const scale = Math.min(110 / length.mm, 90 / outside.mm)
  const [w, od, id] = [length.mm * scale, outside.mm * scale, bore.mm * scale]
  const left = 70 - w / 2 + 20
  const top = 62 - od / 2
  const lead = leadMm * scale
  return (
    <article className={styles.drawing} aria-label={`Drawing of the bush for ${hole.arbor}, ${hole.plate} plate`}>
      <h3>
        {hole.arbor}, {hole.plate} plate, {hole.train}
      </h3>
      <svg
        viewBox="0 0 220 140"
        role="img"
        aria-label={`Outside ${sized(outside)}, bore ${sized(bore)}, length ${sized(length)}`}
      >
        <path
          d={`M${left} ${top}H${left + w - lead}L${left + w} ${top + lead / 3}V${top + od - lead / 3}L${left + w - lead} ${top + od}H${left}Z`}
          fill="#efe2bd"
          stroke="#1b1d22"
          strokeWidth="1.4"
        />
        <rect x={left} y={62 - id / 2} width={w} height={id} fill="#fffdf6" stroke="#1b1d22" strokeDasharray="4 3" />
        <path d={`M${left - 12} 62H${left + w + 12}`} stroke="#8a6a1f" strokeDasharray="9 3 2 3" />
        <path
          d={`M${left} ${top + od + 12}H${left + w}M${left} ${top + od + 8}v8M${left + w} ${top + od + 8}v8`}
          stroke="#1b1d22"
        />
        <path
          d={`M${left + w + 16} ${top}V${top + od}M${left + w + 12} ${top}h8M${left + w + 12} ${top + od}h8`}
          stroke="#1b1d22"
        />
        <text x={left + w / 2} y={top + od + 27} fontSize="11" textAnchor="middle">
          {sized(length)}
        </text>
        <text x={left + w + 22} y="58" fontSize="11">
          ⌀ {sized(outside)}
        </text>
        <text x={left + w + 22} y="76" fontSize="11">
          bore {sized(bore)}
        </text>
      </svg>
      <p>
        From rod of {rodMm.toFixed(1)} mm or more. Lead {leadMm.toFixed(1)} mm at the end that goes in. Bore drilled;
        broached when it is in the plate.
      </p>
    </article>
  )
}

function sized({ mm, aboveMm, belowMm }: TurnedSize): string {
  return `${mm.toFixed(2)} +${aboveMm.toFixed(2)} −${belowMm.toFixed(3).replace(/0$/, '')}`
}
