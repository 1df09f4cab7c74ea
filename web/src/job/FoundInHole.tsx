import type { Hole, HoleChange } from '@treadle/contract'
import { NativeSelect } from '@mantine/core'
import { Figure } from '../parts/Figure.tsx'

/** Fields for what stands in a hole besides its wear: an earlier repair's bush, the hole that leaves, the oil sink. */
export function FoundInHole({
  hole,
  onKeep,
}: {
  hole: Pick<Hole, 'id' | 'old' | 'oldHoleMm' | 'sinkMm' | 'shortAxisMm'>
  onKeep: (part: Partial<HoleChange>) => void
}) {
  const bush = leavesHole(hole.old)
  // Both stand round the hole.
  const least = hole.shortAxisMm === null ? 0.1 : hole.shortAxisMm + 0.01
  return (
    <>
      <NativeSelect
        label="Met in the hole"
        value={hole.old}
        onChange={(e) => {
          const old = e.currentTarget.value as HoleChange['old']
          // A hole that nothing leaves must not go on choosing the cutter unseen.
          onKeep(leavesHole(old) ? { old } : { old, oldHoleMm: null })
        }}
        data={[
          { value: 'none', label: 'nothing' },
          { value: 'pressed', label: 'a pressed bush' },
          { value: 'screwed', label: 'a screwed bush' },
          { value: 'punched', label: 'punch marks' },
        ]}
      />
      {bush && (
        <Figure
          label={hole.old === 'screwed' ? 'Hole it leaves, across the thread’s crests' : 'Hole it leaves, across'}
          draftOf={hole.id}
          unit="mm"
          value={hole.oldHoleMm}
          min={least}
          max={60}
          onKeep={(oldHoleMm) => onKeep({ oldHoleMm })}
        />
      )}
      <Figure
        label="Oil sink, across"
        draftOf={hole.id}
        unit="mm"
        value={hole.sinkMm}
        min={least}
        max={60}
        onKeep={(sinkMm) => onKeep({ sinkMm })}
      />
    </>
  )
}

function leavesHole(old: HoleChange['old']): boolean {
  return old === 'pressed' || old === 'screwed'
}
