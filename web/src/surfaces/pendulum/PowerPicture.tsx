import type { PowerGoes } from '@treadle/core'
import styles from '../../lab/Lab.module.css'

const WIDTH = 420
const SLIVER = 50

/** What a beat is given, and what the pendulum takes of it, to one scale; without a drive only what it takes. */
export function PowerPicture({ goes }: { goes: PowerGoes }) {
  const { givenMicroJ: given, decay } = goes
  const takes = decay.lossPerBeatMicroJ
  const most = Math.max(given ?? 0, takes)
  const wide = (microJ: number) => Math.max(2, (microJ / most) * (WIDTH - 4))
  const words = (microJ: number) => (microJ < 10 ? microJ.toFixed(1) : microJ.toFixed(0))
  const height = given === null ? 48 : 98
  // A share that its own figure does not fit into is said with the other.
  const isSliver = given !== null && given > takes && wide(takes) < SLIVER
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} className={styles.curve} role="img" aria-label={label(goes)}>
      {given !== null && (
        <>
          <rect x={2} y={2} width={wide(given)} height={40} className={styles.gives} />
          <text x={14} y={27} fontSize="15" fontWeight="600" fill="currentColor">
            given {words(given)} µJ
          </text>
        </>
      )}
      <g transform={`translate(0 ${given === null ? 2 : 52})`}>
        <rect x={2} y={2} width={wide(takes)} height={40} className={styles.takes} />
        {given !== null && given > takes && (
          <>
            <rect x={2 + wide(takes)} y={2} width={wide(given - takes)} height={40} className={styles.stays} />
            <text
              x={wide(takes) + 14}
              y={27}
              fontSize="15"
              fontWeight="600"
              className={styles.staysWords}
              {...(wide(given - takes) < 190 && { textAnchor: 'end' as const, x: WIDTH - 12 })}
            >
              {isSliver && `pendulum ${words(takes)}, `}train and pallets {words(given - takes)}
            </text>
          </>
        )}
        {!isSliver && (
          <text x={14} y={27} fontSize="15" fontWeight="600" className={styles.takesWords}>
            {wide(takes) > 120 || given === null
              ? `pendulum ${words(takes)}${given === null ? ' µJ' : ''}`
              : words(takes)}
          </text>
        )}
      </g>
    </svg>
  )
}

function label({ givenMicroJ, decay }: PowerGoes): string {
  const takes = `the pendulum takes ${decay.lossPerBeatMicroJ.toFixed(1)} µJ`
  return givenMicroJ === null ? `A beat: ${takes}` : `A beat is given ${givenMicroJ.toFixed(1)} µJ; ${takes}`
}
