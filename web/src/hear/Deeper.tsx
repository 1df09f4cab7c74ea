import type { GoingCounts, Hearing, Side, SideSound } from '@treadle/core'
import { Button } from '@mantine/core'
import styles from './Deeper.module.css'
import { KnocksPicture } from './KnocksPicture.tsx'
import { ToothRing } from './ToothRing.tsx'
import { WheelsHeard } from './WheelsHeard.tsx'

/** Fewer turns say nothing of a tooth that one knock would not. */
const TURNS = 2

/** What is asked of a beat besides its evenness: its teeth, its wheels, and what a tick is made of. */
export function Deeper({
  result,
  train,
  before,
  firstSide,
  chalk,
  onChalk,
  onChalkByPedal,
  sheetOf,
}: {
  result: Hearing
  train: (GoingCounts & { names: string[] }) | null
  before: [SideSound, SideSound] | null
  firstSide: Side | null
  /** the tooth that passed with the chalk; null: none was named */
  chalk: number | null
  /** a press as the chalked tooth drops; not while nothing is heard live */
  onChalk: (() => void) | null
  /** the next press of the foot is the chalked tooth; where a foot is listened to */
  onChalkByPedal?: (() => void) | undefined
  /** where the escape wheel’s own sheet is, to be given the number of the tooth that was heard first */
  sheetOf?: ((heardFirst: number) => string) | undefined
}) {
  const teeth = result.teeth && result.teeth.length > 0 ? Math.max(...result.teeth.map((t) => t.tooth)) : 0
  const turns = Math.min(...(result.teeth ?? []).map((t) => t.turnsHeard))
  return (
    <div className={styles.deeper}>
      {result.teeth && teeth > 0 && (
        <div>
          {turns >= TURNS ? (
            <ToothRing reports={result.teeth} teeth={teeth} chalk={chalk} sheetOf={sheetOf} />
          ) : (
            <p className="quiet">
              Its {teeth} teeth are told apart after {TURNS} whole turns of the escape wheel:{' '}
              {Math.ceil((TURNS * teeth * 7200) / result.beatsPerHour)} s.
            </p>
          )}
          {onChalk && (
            <Button size="md" variant="default" onClick={onChalk}>
              The chalked tooth drops now
            </Button>
          )}
          {onChalk && onChalkByPedal && (
            <Button size="md" variant="subtle" onClick={onChalkByPedal}>
              Name it by the foot
            </Button>
          )}
        </div>
      )}
      <KnocksPicture sides={result.sides} before={before} firstSide={firstSide} />
      {result.periodic && train && (
        <WheelsHeard periodic={result.periodic} train={train} seconds={result.secondsAnalysed} />
      )}
    </div>
  )
}
