import { EscapementSheetChange } from '@treadle/contract'
import { memo } from 'react'
import { FinishUsed } from '../../job/FinishUsed.tsx'
import { Figure } from '../../parts/Figure.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { Pick } from '../../parts/Pick.tsx'

/** The pallets' faces: how deep the teeth have grooved them, what is done, and whether their cock is pinned. */
export const Faces = memo(function Faces({
  sheet,
  onSet,
}: {
  sheet: EscapementSheetChange
  onSet: (part: Partial<EscapementSheetChange>) => void
}) {
  return (
    <section aria-label="Faces">
      <h3 className={parts.next}>Faces</h3>
      <div className={parts.fields}>
        {(
          [
            ['grooveEntryMm', 'Groove, entry'],
            ['grooveExitMm', 'Groove, exit'],
          ] as const
        ).map(([key, label]) => (
          <Figure
            key={key}
            label={label}
            draftOf="escapement"
            unit="mm"
            value={sheet[key]}
            of={[EscapementSheetChange, key]}
            onKeep={(value) => onSet({ [key]: value })}
          />
        ))}
      </div>
      <p className={parts.say}>{facesSay(sheet)}</p>
      <Pick
        label="What is done"
        value={sheet.faces}
        of={['left', 'stoned', 'fresh track', 'faced']}
        onPick={(faces) => onSet({ faces })}
      />
      <Pick
        label="Mounted on a cock"
        value={sheet.cock}
        of={['no cock', 'pinned', 'not pinned']}
        onPick={(cock) => onSet({ cock })}
      />
      {sheet.cock === 'not pinned' && (
        <p>
          <Mark state="watch" label="mind" /> Not pinned: each time the cock goes back the depth may be another. Mark
          where it stands, and look at the drop again.
        </p>
      )}
      <FinishUsed />
    </section>
  )
})

function facesSay({ grooveEntryMm, grooveExitMm }: EscapementSheetChange): string {
  const deepest = Math.max(grooveEntryMm ?? 0, grooveExitMm ?? 0)
  if (grooveEntryMm === null && grooveExitMm === null)
    return 'Draw a fingernail down each face: how deep have the teeth grooved it?'
  if (deepest === 0) return 'Smooth: left as they are, polished at most.'
  if (deepest <= 0.05)
    return 'Stone it flat and polish: no rounded edge where the tooth lets go. The pallets come as much nearer.'
  return 'Too deep to stone away without losing the lift: move the wheel or the pallets to a fresh track, or face it with hard spring steel.'
}
