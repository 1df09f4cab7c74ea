import type { EscapementSheetChange } from '@treadle/contract'
import { platformWays } from '@treadle/core'
import { useDonorsFitting, useSettings, useTable } from '../../data/queries.ts'
import { Caution } from '../../parts/Caution.tsx'
import parts from '../../parts/parts.module.css'
import { Pick } from '../../parts/Pick.tsx'
import { WaysOut } from '../../job/WaysOut.tsx'

const WANTED = {
  kind: 'platform',
  count: null,
  moduleMm: null,
  boreMm: null,
  outsideMm: null,
  arborMm: null,
  side: '',
} as const

/** A platform escapement judged: do it here, exchange it, or send it, with price and risk. */
export function PlatformSheet({
  sheet,
  onSet,
}: {
  sheet: EscapementSheetChange
  onSet: (part: Partial<EscapementSheetChange>) => void
}) {
  const { data: settings } = useSettings()
  const { data: table } = useTable('ways')
  const donors = useDonorsFitting(WANTED)
  return (
    <section aria-label="Platform">
      <p className={parts.say}>
        Dirt and dried oil make a pivot bore its jewel. The balance swings freely and comes to rest slowly, both ways;
        its staff’s pivots are polished and straight, the jewels sound under a loupe, the roller seated.
      </p>
      <Pick
        label="Balance swings free, both ways"
        value={sheet.balance}
        of={['sound', 'bad']}
        onPick={(balance) => onSet({ balance })}
      />
      <Pick
        label="Staff pivots"
        value={sheet.staff}
        of={['polished', 'worn', 'bent', 'broken']}
        onPick={(staff) => onSet({ staff })}
      />
      <Pick
        label="Jewels"
        value={sheet.jewel}
        of={['sound', 'bored', 'cracked']}
        onPick={(jewel) => onSet({ jewel })}
      />
      <Pick label="Roller seated" value={sheet.roller} of={['sound', 'bad']} onPick={(roller) => onSet({ roller })} />
      <Caution>
        Never forced, never in an ultrasonic bath with its balance, no steel tool near the spring: handled as a watch
        is. Follow your local rules, and let trained people do what they are asked for.
      </Caution>
      {table && settings && (
        <WaysOut
          ways={platformWays(sheet, donors.data?.length ?? 0, [...table.values.ways])}
          chosen={sheet.way}
          ownerAgreed={sheet.ownerAgreed}
          currency={settings.currency}
          onChoose={(way) => onSet({ way })}
          onAgreed={(ownerAgreed) => onSet({ ownerAgreed })}
        />
      )}
    </section>
  )
}

/** What a verge asks for: it bends to its own rules. */
export function VergeSheet() {
  return (
    <section aria-label="Verge">
      <ul className={parts.say}>
        <li>It swings wide and recoils much: no drop and lock to be set as an anchor’s.</li>
        <li>Crown wheel: teeth of one height, its endshake small, the verge’s pivots free and without side shake.</li>
        <li>
          Pallet flags: grooves are stoned out, or the wheel moved a hair along; the angle between the flags stays.
        </li>
        <li>Depth: bring the crown wheel nearer until the drop is equal and small, never so that it catches.</li>
        <li>
          No conversion: it is recorded as it is, and stays. A conversion once made is the owner’s written decision.
        </li>
      </ul>
    </section>
  )
}
