import { type EscapementSheetChange } from '@treadle/contract'
import { actionOfLowTooth, actionOfSheet, heardTeeth, type HeardTooth, type LeaveSome } from '@treadle/core'
import { Button, Checkbox, Group } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { memo, useCallback } from 'react'
import { request } from '../../data/api.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Figure } from '../../parts/Figure.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { mm } from '../../parts/say.ts'
import { useLatest } from '../../parts/useLatest.ts'
import { useStop } from '../../parts/useStop.ts'
import { Steps } from '../../parts/Steps.tsx'
import styles from './Escapement.module.css'
import { toppingOf } from './toppingOf.ts'

/** The escape wheel's tips, one after another with the gauge, what a listening says of each, and the topping. */
export const Tips = memo(function Tips({
  sheet,
  swingDeg,
  onSet,
}: {
  sheet: EscapementSheetChange
  swingDeg: number
  onSet: (part: Partial<EscapementSheetChange>) => void
}) {
  const { topping, low, even, steps } = toppingOf(sheet)
  const [asked, setAsked] = useStop('heard')
  const heardFrom = Math.max(1, Math.round(Number(asked ?? 1)) || 1)
  const teeth = sheet.teeth
  const heard = useHeard(teeth)
  const latest = useLatest({ sheet, onSet })
  const onBent = useCallback(
    (tooth: number) => {
      const { sheet: now, onSet: keep } = latest.current
      const others = now.bent.filter((t) => t !== tooth)
      keep({ bent: others.length < now.bent.length ? others : [...now.bent, tooth].sort((a, b) => a - b) })
    },
    [latest],
  )
  if (teeth === null) return null
  const tips = Array.from({ length: teeth }, (_, i) => sheet.tipRadiiMm[i] ?? null)
  const lateOf = (tooth: number) => heard?.[(((tooth - heardFrom) % teeth) + teeth) % teeth]
  const leaving = sheet.leftLow.length > 0
  return (
    <section aria-label="Tips of the escape wheel">
      <h3 className={parts.next}>Tips, tooth by tooth</h3>
      <p className={parts.say}>
        Each tip from the arbor, with the gauge or a dial gauge round the wheel; Enter goes to the next. Tick the bent
        ones: they are straightened first.
      </p>
      {heard && (
        <Group align="end">
          <Figure
            label="The tooth heard first is"
            draftOf="heard"
            value={heardFrom}
            min={1}
            max={teeth}
            whole
            onKeep={(v) => setAsked(v === null || v === 1 ? '' : String(v))}
          />
          <span className="quiet">from the last listening: how late each drops, on either pallet</span>
        </Group>
      )}
      <div className={styles.tips}>
        {tips.map((value, i) => {
          const late = lateOf(i + 1)
          return (
            <div key={i} className={styles.tip}>
              <Figure
                label={`Tooth ${i + 1}`}
                draftOf="tips"
                unit="mm"
                value={value}
                min={0.5}
                max={500}
                beside={tips.filter((_, o) => o !== i)}
                onKeep={(v) => onSet({ tipRadiiMm: tips.map((was, o) => (o === i ? v : was)) })}
              />
              <Bent tooth={i + 1} isBent={sheet.bent.includes(i + 1)} onBent={onBent} />
              {heard && (
                <small>
                  {isLate(late) && <Mark state="watch" label="drops late or early" />}
                  {late?.firstMs == null ? '–' : late.firstMs.toFixed(1)} /{' '}
                  {late?.secondMs == null ? '–' : late.secondMs.toFixed(1)} ms
                </small>
              )}
            </div>
          )
        })}
      </div>
      {topping && !even && (
        <>
          <h3 className={parts.next}>
            {leaving && low
              ? `Top to ${mm(low.toRadiusMm)}; leave ${low.left.join(' and ')}`
              : `Topping to the shortest takes ${mm(topping.mostMm)}`}
          </h3>
          <p>
            {leaving && low
              ? `At most ${mm(low.mostMm)} comes off${nearer(low.palletsNearerMm)}. ${lowSays(sheet, low, swingDeg)}`
              : `All come to ${mm(topping.toRadiusMm)}${nearer(topping.palletsNearerMm)}.`}
          </p>
          {low && (
            <Button variant="default" mt="xs" onClick={() => onSet({ leftLow: leaving ? [] : low.left })}>
              {leaving
                ? 'Take all down to the shortest'
                : `Leave ${low.left.join(' and ')} low: then at most ${mm(low.mostMm)} comes off`}
            </Button>
          )}
        </>
      )}
      {topping && even && (
        <p>
          <Mark state="sound" label="even" /> All tips are of one length within {(topping.mostMm * 1000).toFixed(0)} µm.
        </p>
      )}
      {steps.length > 0 && <Steps steps={steps} done={sheet.topped} onDone={(topped) => onSet({ topped })} />}
    </section>
  )
})

/** Drawn anew only where it changed: a wheel has thirty teeth, and a press changes none of them. */
const Bent = memo(function Bent(props: { tooth: number; isBent: boolean; onBent: (tooth: number) => void }) {
  const { tooth, isBent, onBent } = props
  return (
    <Checkbox
      mt={4}
      label="bent"
      aria-label={`Tooth ${tooth} is bent`}
      checked={isBent}
      onChange={() => onBent(tooth)}
    />
  )
})

/** A tooth that drops so late or early as no good one does, ms. */
const LATE_MS = 0.5

function isLate(late: HeardTooth | undefined): boolean {
  return Math.max(Math.abs(late?.firstMs ?? 0), Math.abs(late?.secondMs ?? 0)) > LATE_MS
}

function nearer(byMm: number | null): string {
  return byMm === null
    ? '; say how many spaces the pallets span, and it is told what that moves them by'
    : `, and the pallets come ${mm(byMm)} nearer`
}

/** More than this, degrees, is more drop than a tooth should have. */
const MUCH_DEG = 1

/** What a tooth that stays low then drops more than the others, and whether it may. */
function lowSays(sheet: EscapementSheetChange, low: LeaveSome, swingDeg: number): string {
  const one = low.left.length === 1
  const stays = `${one ? 'It stays' : 'They stay'} ${mm(low.lowerMm)} lower`
  const facts = { ...sheet, swingDeg }
  const all = actionOfSheet(facts)
  const tooth = actionOfLowTooth(facts, low.lowerMm)
  if (!all || !tooth) return `${stays}; draw the pallets, and it is told what that does.`
  if (all.verdict === 'works' && tooth.verdict !== 'works')
    return `${stays}, and there the pallets would not work (${tooth.verdict}): take all down.`
  if (
    all.entry.dropDeg === null ||
    all.exit.dropDeg === null ||
    tooth.entry.dropDeg === null ||
    tooth.exit.dropDeg === null
  )
    return `${stays}.`
  const more = Math.max(tooth.entry.dropDeg - all.entry.dropDeg, tooth.exit.dropDeg - all.exit.dropDeg)
  return `${stays} and ${one ? 'drops' : 'drop'} ${Math.abs(more).toFixed(1)}° ${more >= 0 ? 'more' : 'less'}: ${more > MUCH_DEG ? 'much; better take all down' : 'heard, not harmful'}.`
}

/** How late each tooth of the last kept listening drops; nothing where none was kept, or its beats are not there. */
function useHeard(teeth: number | null) {
  const { listenings } = useJobData()
  const last = listenings.at(-1)
  const { data } = useQuery({
    queryKey: ['listening', last?.id],
    queryFn: () => request<{ beatTimesS: number[]; beatsPerHour: number }>('GET', `/listenings/${last?.id ?? ''}`),
    enabled: last !== undefined && teeth !== null,
  })
  if (!data || teeth === null || data.beatTimesS.length < 4 * teeth) return null
  return heardTeeth(data.beatTimesS, data.beatsPerHour, teeth)
}
