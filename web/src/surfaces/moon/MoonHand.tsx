import type { MoonWork } from '@treadle/contract'
import {
  CLICKS_PER_LUNATION,
  dialTime,
  FieldError,
  moonAge,
  moonClicks,
  shownMinutes,
  SYNODIC_MONTH,
  tideMinutes,
  unlessRefused,
  type MoonAge,
} from '@treadle/core'
import { Button, Checkbox, Slider, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Caution } from '../../parts/Caution.tsx'
import { Figure } from '../../parts/Figure.tsx'
import { Fold } from '../../parts/Fold.tsx'
import { dayAndHour } from '../../parts/say.ts'
import { useNow } from '../../parts/useNow.ts'
import { useSessionValue } from '../../parts/useSessionValue.ts'
import { DiscPicture } from './DiscPicture.tsx'
import styles from './Moon.module.css'

export interface MoonNow {
  now: MoonAge
  shows: number | null
  setShows: (days: number | null) => void
  clicks: number | null
}

/** The true moon of this moment, and the clicks from what the disc shows to it. */
export function useMoon(work: MoonWork, jobId: string): MoonNow {
  const atS = Math.floor(useNow(600_000) / 1000)
  const [shows, setShows] = useSessionValue<number | null>(`treadle-moon ${jobId}`, null)
  const now = moonAge(atS)
  const clicks = shows === null ? null : moonClicks(now.ageDays, shows, work.clicksPerLunation ?? undefined)
  return { now, shows, setShows, clicks }
}

/** The disc as it is and as it should be, and what to give it. */
export function MoonHand({
  moon,
  given,
  kept,
  onAgain,
  work,
  onWork,
}: {
  moon: MoonNow
  given: number
  kept: boolean
  onAgain: () => void
  work: MoonWork
  onWork: (part: Partial<MoonWork>) => void
}) {
  const { now, shows, setShows, clicks } = moon
  const at = (s: number) => dayAndHour(new Date(s * 1000))
  return (
    <>
      <p className={styles.big} role="status">
        {shows === null || clicks === null
          ? 'Move the moon until it looks as on the dial'
          : kept
            ? 'The moon is right'
            : clicks === 0
              ? 'It shows the moon of today'
              : `${clicks} clicks forward${given > 0 ? `, ${given} given` : ''}`}
      </p>
      <div className={styles.discs}>
        <div>
          <DiscPicture
            ageDays={shows ?? 0}
            southern={work.southern}
            label={shows === null ? 'As the dial shows it' : `The dial shows ${shows.toFixed(1)} days`}
          />
          <Slider
            aria-label="Age that the disc shows, days"
            thumbLabel="Age that the disc shows, days"
            min={0}
            max={29.5}
            step={0.5}
            value={shows ?? 0}
            label={null}
            size="lg"
            onChange={(days) => {
              setShows(days)
              if (given > 0 || kept) onAgain()
            }}
          />
        </div>
        <DiscPicture
          ageDays={Math.min(now.ageDays, SYNODIC_MONTH)}
          southern={work.southern}
          label={`As it should look: ${now.ageDays.toFixed(1)} days, ${now.illuminatedPercent.toFixed(0)} % lit`}
        />
      </div>
      <p className={styles.say}>
        Full {at(now.nextFullAtS)}; new {at(now.nextNewAtS)}. A disc that is moved by two clicks a day,{' '}
        {work.clicksPerLunation ?? CLICKS_PER_LUNATION} to a moon, is a day out after some years: it is set by the sky
        then.
      </p>
      {clicks !== null && clicks > 0 && (
        <Caution>
          Forward, one tooth at a time, and never while the clock itself is about to move it: if it resists, turn the
          hands on an hour or two first. Nothing is forced.
        </Caution>
      )}
      {(given > 0 || kept) && (
        <Button variant="subtle" onClick={onAgain}>
          Begin again
        </Button>
      )}
      {work.tideMinutes !== null && (
        <p className={styles.big}>
          High water by its ring: {dialTime(tideMinutes(Math.min(now.ageDays, SYNODIC_MONTH), work.tideMinutes))}
        </p>
      )}
      <Fold title={<b>How this moon goes</b>}>
        <Figure
          label="Clicks for one moon"
          description="59 where nobody counted: 118 teeth and two moons"
          min={20}
          max={200}
          whole
          value={work.clicksPerLunation}
          onKeep={(clicksPerLunation) => onWork({ clicksPerLunation })}
        />
        <Checkbox
          my="sm"
          size="md"
          label="Made for the south: it goes from right to left"
          checked={work.southern}
          onChange={(e) => onWork({ southern: e.currentTarget.checked })}
        />
        <TideField minutes={work.tideMinutes} onKeep={(tide) => onWork({ tideMinutes: tide })} />
      </Fold>
    </>
  )
}

function TideField({ minutes, onKeep }: { minutes: number | null; onKeep: (minutes: number | null) => void }) {
  const [typed, setTyped] = useState<string | null>(null)
  const text = typed ?? (minutes === null ? '' : dialTime(minutes))
  const read = text.trim() === '' ? null : unlessRefused(() => shownMinutes('High water', text))
  const keep = () => {
    if (typed === null || read instanceof FieldError) return
    onKeep(read)
    setTyped(null)
  }
  return (
    <TextInput
      label="Ring of tides: high water at new and full moon"
      description="Of its port, such as 11:30; empty: it has none. The dial’s own rule, no tide table: never for going to sea."
      value={text}
      error={read instanceof FieldError ? `High water: ${read.allowed}` : undefined}
      onChange={(e) => setTyped(e.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(e) => e.key === 'Enter' && keep()}
    />
  )
}
