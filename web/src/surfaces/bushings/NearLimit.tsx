import type { Hole } from '@treadle/contract'
import { Button, Group } from '@mantine/core'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { useRows } from '../../job/useRows.ts'
import type { Plan } from './planned.ts'

/** Holes just within the limit: while the plates are apart, they are done too. */
export function NearLimit({ plan }: { plan: Plan }) {
  const rows = useRows<Hole>('holes')
  if (plan.doItNow.length === 0) return null
  return (
    <>
      <h3>Near the limit: do them now</h3>
      <p className={parts.say}>The plates are apart, and won’t be parted twice for one hole.</p>
      {plan.doItNow.map(({ hole }) => (
        <Group key={hole.id}>
          <Mark state="watch" label="near the limit" />
          <span>
            {hole.arbor}, {hole.plate}
          </span>
          <Button
            variant="default"
            size="compact-md"
            onClick={() =>
              rows.put({
                ...hole,
                verdictOverride: 'bush',
                overrideReason: 'Near the limit, and the movement is apart.',
              })
            }
          >
            Put the {hole.arbor.toLowerCase()}, {hole.plate}, in the plan
          </Button>
        </Group>
      ))}
    </>
  )
}
