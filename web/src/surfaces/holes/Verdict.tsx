import type { Hole, HoleChange } from '@treadle/contract'
import { fromMm, type BushingPlan, type BushingRules, type LengthUnit } from '@treadle/core'
import { Button, Group, Textarea } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { Mark } from '../../parts/Mark.tsx'
import styles from './Holes.module.css'

const SCHOOL_TITLES = { play: 'by play', oval: 'by ovalness', depth: 'by depth' }
const RULE_TITLES: Record<BushingRules['rule'], string> = {
  'two-or-depth': 'any two schools agree, or the depth alone is exceeded',
  play: 'the play is exceeded',
  oval: 'the ovalness is exceeded',
  depth: 'the depth is exceeded',
}

/** What to do with the hole: verdict by the three schools, sizes to cut and broach, and a person's own verdict. */
export function Verdict({
  hole,
  plan,
  rules,
  unit,
  onChange,
}: {
  hole: Hole
  plan: BushingPlan
  rules: BushingRules
  unit: LengthUnit
  onChange: (part: Partial<HoleChange>) => void
}) {
  const [overriding, setOverriding] = useState(false)
  const verdict = hole.verdictOverride ?? plan.verdict
  const other = plan.verdict === 'bush' ? 'leave' : 'bush'
  const length = (mm: number | null) =>
    mm === null ? '–' : `${fromMm(mm, unit).toFixed(unit === 'mm' ? 2 : 1)} ${unit}`
  const sizes: [string, string][] = [
    ['File back, away from the wear', length(plan.fileBackMm)],
    ['Cutter', length(plan.cutterMm)],
    ['Bush outside', length(plan.bushOutsideMm)],
    ['Drill it, then press', length(plan.drilledMm)],
    ['Broach from both sides to', length(plan.finishedHoleMm)],
    ['Length, from the inside', length(plan.lengthMm)],
  ]
  return (
    <>
      <p className={styles.verdict}>{verdict === 'bush' ? 'Bush it' : 'Leave it'}</p>
      {hole.verdictOverride !== null && (
        <p>
          The rule says {plan.verdict}; overridden: “{hole.overrideReason}”{' '}
          <Button
            variant="subtle"
            size="compact-md"
            onClick={() => onChange({ verdictOverride: null, overrideReason: '' })}
          >
            Go by the rule
          </Button>
        </p>
      )}
      {plan.nearLimit && verdict === 'leave' && (
        <p className={styles.near}>Near the limit. The plates are apart now; do it now rather than part them twice.</p>
      )}
      <ul className={styles.reasons}>
        {plan.schools.map((s) => (
          <li key={s.school}>
            <Mark
              state={s.over === null ? 'none' : s.over ? 'must' : s.near ? 'watch' : 'sound'}
              label={s.over === null ? 'not known' : s.over ? 'over' : s.near ? 'near' : 'within'}
            />
            <span>{s.reason}</span>
          </li>
        ))}
      </ul>
      {verdict === 'bush' && (
        <>
          {plan.cutterMm === null && (
            <p className={styles.near}>
              <Mark state="watch" label="watch" /> No cutter in the drawer is large enough: it takes{' '}
              {length(plan.leastCutterMm)} at least.
            </p>
          )}
          <table className={styles.sizes}>
            <tbody>
              {sizes.map(([name, size]) => (
                <tr key={name}>
                  <th scope="row">{name}</th>
                  <td>{size}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Group mt="md">
            {hole.bushed ? (
              <>
                <Mark state="sound" label="bushed" /> The bush is in.
              </>
            ) : (
              <Button component={Link} to={`../bushings?hole=${hole.id}`}>
                Bush it, by its plan
              </Button>
            )}
          </Group>
        </>
      )}
      <details className={styles.reckoning}>
        <summary>Show the reckoning</summary>
        <p>
          Wear is long less short: {length(plan.wearMm)}. The unworn side is still the original circle, so its centre
          lies {length(plan.originalCentreOffsetMm)} from the middle of the slot, away from the wear. To clean up both
          sides the cutter must be twice the long way less the short, and {length(rules.cleanUpMm)} more; to leave a
          wall of {length(rules.wallMm)} it must be at least {length(plan.leastCutterMm)}. Wall left:{' '}
          {length(plan.wallMm)}.
        </p>
        <p>
          This workshop bushes when {RULE_TITLES[rules.rule]}. Schools:{' '}
          {plan.schools
            .map((s) => `${SCHOOL_TITLES[s.school]}: ${s.over === null ? 'not known' : s.over ? 'bush' : 'leave'}`)
            .join('; ')}
          .
        </p>
      </details>
      {hole.verdictOverride === null &&
        (overriding ? (
          <OverrideForm
            verdict={other}
            onCancel={() => setOverriding(false)}
            onKeep={(reason) => {
              onChange({ verdictOverride: other, overrideReason: reason })
              setOverriding(false)
            }}
          />
        ) : (
          <Button variant="subtle" onClick={() => setOverriding(true)}>
            {other === 'bush' ? 'Bush it all the same…' : 'Leave it all the same…'}
          </Button>
        ))}
    </>
  )
}

function OverrideForm({
  verdict,
  onKeep,
  onCancel,
}: {
  verdict: 'bush' | 'leave'
  onKeep: (reason: string) => void
  onCancel: () => void
}) {
  const [reason, setReason] = useState('')
  const [wrong, setWrong] = useState(false)
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault()
        if (reason.trim().length < 4) setWrong(true)
        else onKeep(reason.trim())
      }}
    >
      <Textarea
        label={`Why ${verdict} it?`}
        value={reason}
        error={wrong && 'Reason: say why, when the verdict is not the rule’s.'}
        onChange={(e) => setReason(e.currentTarget.value)}
        data-autofocus
      />
      <Group mt="xs">
        <Button type="submit">{verdict === 'bush' ? 'Bush it' : 'Leave it'}</Button>
        <Button variant="default" onClick={onCancel}>
          Go by the rule
        </Button>
      </Group>
    </form>
  )
}
