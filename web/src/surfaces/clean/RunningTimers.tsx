import type { TimerRow } from '@treadle/contract'
import { Button } from '@mantine/core'
import { Mark } from '../../parts/Mark.tsx'
import { useNow } from '../../parts/useNow.ts'
import styles from './Clean.module.css'
import { leftWords } from './timers.ts'

/** The clocks that run, large; what is left is reckoned from when each ends, so a reload or another device shows the same. */
export function RunningTimers({ running, onStop }: { running: TimerRow[]; onStop: (timer: TimerRow) => void }) {
  const now = useNow(500)
  return (
    <>
      {running.map((timer) => {
        const ends = Date.parse(timer.endsAt)
        const begun = Date.parse(timer.startedAt)
        const over = now >= ends
        const share = Math.min(1, Math.max(0, (now - begun) / (ends - begun)))
        return (
          <div
            key={timer.id}
            className={over ? `${styles.timer} ${styles.over}` : styles.timer}
            role="timer"
            aria-label={timer.title}
          >
            <svg viewBox="0 0 40 40" width="72" height="72" aria-hidden="true">
              <circle cx="20" cy="20" r="17" fill="none" stroke="var(--line)" strokeWidth="4" />
              <circle
                cx="20"
                cy="20"
                r="17"
                fill="none"
                stroke={over ? 'var(--madder)' : 'var(--brass-line)'}
                strokeWidth="4"
                strokeDasharray={`${share * 106.8} 106.8`}
                transform="rotate(-90 20 20)"
              />
            </svg>
            <span className={styles.what}>
              <span className={styles.left}>{leftWords(ends, now)}</span>
              <span>
                {over && <Mark state="must" label="over" />} {over ? `Take it out now: ${timer.title}` : timer.title}
              </span>
            </span>
            <Button size="lg" variant={over ? 'filled' : 'default'} onClick={() => onStop(timer)}>
              It is out
            </Button>
          </div>
        )
      })}
    </>
  )
}
