import type { GoingCounts, Hearing, Side, SideSound } from '@treadle/core'
import { Button } from '@mantine/core'
import styles from './Deeper.module.css'
import { KnocksPicture } from './KnocksPicture.tsx'
import { ToothRing } from './ToothRing.tsx'
import { WheelsHeard } from './WheelsHeard.tsx'

/** What is asked of a beat besides its evenness: its teeth, its wheels, and what a tick is made of. */
export function Deeper({
  result,
  train,
  before,
  firstSide,
  chalk,
  onChalk,
}: {
  result: Hearing
  train: (GoingCounts & { names: string[] }) | null
  before: [SideSound, SideSound] | null
  firstSide: Side | null
  /** the tooth that passed with the chalk; null: none was named */
  chalk: number | null
  /** a press as the chalked tooth drops; not while nothing is heard live */
  onChalk: (() => void) | null
}) {
  const teeth = result.teeth && result.teeth.length > 0 ? Math.max(...result.teeth.map((t) => t.tooth)) : 0
  return (
    <div className={styles.deeper}>
      {result.teeth && teeth > 0 && (
        <div>
          <ToothRing reports={result.teeth} teeth={teeth} chalk={chalk} />
          {onChalk && (
            <Button size="md" variant="default" onClick={onChalk}>
              The chalked tooth drops now
            </Button>
          )}
        </div>
      )}
      <div>
        {result.periodic && train && (
          <WheelsHeard periodic={result.periodic} train={train} seconds={result.secondsAnalysed} />
        )}
        <KnocksPicture sides={result.sides} before={before} firstSide={firstSide} />
      </div>
    </div>
  )
}
