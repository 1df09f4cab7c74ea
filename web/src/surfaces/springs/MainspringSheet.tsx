import { blankSpringSheet, SpringSheetChange, type SpringSheetRow, type StockRow, type Train } from '@treadle/contract'
import {
  chooseMainspring,
  compareMainsprings,
  FieldError,
  fillPercent,
  inBarrel,
  judgeSet,
  SAFE_YIELD_MPA,
  springEnergy,
  springSteps,
  unlessRefused,
  winderMay,
} from '@treadle/core'
import { Button, Checkbox, Group } from '@mantine/core'
import { lazy, Suspense, type ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import { v5 } from 'uuid'
import { useStock } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useWorkHeld } from '../../job/useWorkHeld.ts'
import { useRows } from '../../job/useRows.ts'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { rowFigures } from '../../parts/rowFigures.tsx'
import { Pick } from '../../parts/Pick.tsx'
import { Soon } from '../../parts/Soon.tsx'
import { Steps } from '../../parts/Steps.tsx'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { CoilsPicture } from './CoilsPicture.tsx'
import type { Go } from './go.ts'
import { nextOf } from './next.ts'
import { SpringDrawer } from './SpringDrawer.tsx'
import { springsOf, stripsOf, withKnown } from './strips.ts'

const TorqueChart = lazy(() => import('./TorqueChart.tsx'))
const NAMESPACE = '52f0a6f4-7b5f-4d0c-8a7e-2f9d3c1b5e60'

/** The mainspring of a train: as it was found, drawn in its barrel, what is fitted instead, and the fitting. */
export function MainspringSheet({ train, list, go }: { train: Train; list: ReactNode; go: Go }) {
  const { job, springs } = useJobData()
  const held = useWorkHeld()
  const { data: stock } = useStock()
  const navigate = useNavigate()
  const rows = useRows<SpringSheetRow>('springs', 'stock')
  const stored = springs.find((s) => s.train === train.train)
  const blank = withKnown(blankSpringSheet(v5(`${job.id} ${train.train}`, NAMESPACE), train.train), train)
  const sheet = rows.seen(blank, stored) ?? blank
  const set = (part: Partial<SpringSheetChange>) => rows.set(blank, stored, part)
  const { old, barrel, fitted } = stripsOf(sheet)
  const there = old && barrel ? inBarrel(old, barrel) : null
  const told = old && barrel && fitted ? unlessRefused(() => compareMainsprings(barrel, old, fitted)) : null
  const inHand = sheet.choice === 'stock' && sheet.done.includes('take') ? sheet.stockId : null
  const choice =
    old && barrel && stock && !(there instanceof FieldError)
      ? unlessRefused(() =>
          chooseMainspring(
            { ...barrel, barrelHeightMm: sheet.barrelHeightMm },
            old,
            springsOf(stock, inHand),
            sheet.turnsUsed,
          ),
        )
      : null
  const strip = fitted ?? old
  const safe =
    strip && barrel
      ? unlessRefused(() => springEnergy({ ...strip, ...barrel }, undefined, undefined, SAFE_YIELD_MPA))
      : null
  const hold = safe instanceof FieldError ? null : safe
  const woundNmm = hold?.torqueWoundNmm ?? null
  const steps =
    sheet.choice === 'stock' || sheet.choice === 'order'
      ? springSteps({
          end: sheet.end,
          fromDrawer: sheet.choice === 'stock',
          woundNmm,
          open: train.power === 'open-spring',
        })
      : []
  const tooWeak = woundNmm !== null && sheet.winderNmm !== null && !winderMay(sheet.winderNmm, woundNmm)
  const asked = sheet.winderNmm === null && steps.length > 0
  const isOff = held({ work: 'spring', train: train.train }) === null
  const now = nextOf({
    steps,
    done: sheet.done,
    isOff,
    winder: tooWeak ? 'too weak' : asked ? 'not said' : 'fit',
    next: go.next,
  })
  usePedalAction({
    label: now.label,
    hint: now.hint,
    press: () => {
      switch (now.what) {
        case 'step':
          set({ done: [...sheet.done, now.key] })
          return () => set({ done: sheet.done })
        case 'next':
          go.onNext()
          return go.onBack
        case 'escapement':
          return void navigate(`/jobs/${job.id}/escapement`)
        case 'wait':
          return
        case 'power':
          return void navigate(`/jobs/${job.id}/power`)
      }
    },
  })
  const field = rowFigures<SpringSheetChange>(SpringSheetChange, sheet, train.train, set)
  const thick = [sheet.innerMm, sheet.middleMm, sheet.outerMm]
  const loose =
    sheet.looseMm !== null && sheet.barrelInsideMm !== null ? judgeSet(sheet.looseMm, sheet.barrelInsideMm) : null
  const bad = [
    ...(sheet.set || loose?.verdict === 'set'
      ? [
          `It is set: it keeps the curve it was wound to${loose ? `, opens only ${loose.times.toFixed(1)} times its barrel` : ''}, and has as much less to give before it is run down.`,
        ]
      : []),
    ...(sheet.rust ? ['Rust pits: it breaks there.'] : []),
    ...(sheet.cracks ? ['Cracks: it will break.'] : []),
    ...(sheet.holeEnd === 'torn' ? ['Its outer end is torn: it will let go under full wind.'] : []),
  ]
  return (
    <div className={parts.columns}>
      <section>
        <h2>Mainspring, {train.train}</h2>
        {strip && barrel && !(there instanceof FieldError) && there && (
          <>
            <CoilsPicture strip={strip} barrel={barrel} />
            <p>
              It has <b>{there.turnsAvailable.toFixed(1)} turns</b> and fills{' '}
              <b>{fillPercent(strip, barrel).toFixed(0)} %</b> of the barrel’s free area; most turns,{' '}
              {there.turnsAtBest.toFixed(1)}, at half, {there.bestLengthMm.toFixed(0)} mm.{' '}
              {sheet.coils !== null &&
                sheet.lengthMm === null &&
                `Length by its coils: ${strip.lengthMm.toFixed(0)} mm.`}
            </p>
          </>
        )}
        <p>
          <Mark state="danger" label="danger" /> Let down and proved off before it is touched, and still treated as
          wound: eyes covered, heavy gloves.{' '}
          {hold !== null &&
            `Fully wound this one may pull ${hold.torqueWoundNmm.toFixed(0)} N·mm and hold ${hold.energyJ.toFixed(0)} J, if its steel is hard.`}{' '}
          Follow your local rules.
        </p>
        <Soon>
          {' '}
          <div className={parts.fields}>
            {field('widthMm', 'Width')}
            {field('innerMm', 'Thick, near the arbor', 'mm', thick)}
            {field('middleMm', 'Thick, in the middle', 'mm', thick)}
            {field('outerMm', 'Thick, near the wall', 'mm', thick)}
            {field('lengthMm', 'Length')}
            {field('coils', 'or coils, run down', '')}
            {field('barrelInsideMm', 'Barrel, inside')}
            {field('barrelHeightMm', 'Barrel, height inside')}
            {field('arborMm', 'Arbor')}
            {field('turnsUsed', 'Turns used', '')}
            {field('looseMm', 'Laid loose, across')}
          </div>
          <Group>
            <Pick label="Outer end" value={sheet.end} of={['hole', 'loop']} onPick={(end) => set({ end })} />
            <Pick
              label="The end is"
              value={sheet.holeEnd}
              of={['sound', 'torn']}
              onPick={(holeEnd) => set({ holeEnd })}
            />
          </Group>
          <Group mt="sm">
            {(
              [
                ['set', 'Set'],
                ['rust', 'Rust pits'],
                ['cracks', 'Cracks'],
              ] as const
            ).map(([key, label]) => (
              <Checkbox
                key={key}
                size="md"
                label={label}
                checked={sheet[key]}
                onChange={(e) => set({ [key]: e.currentTarget.checked })}
              />
            ))}
          </Group>
        </Soon>
        {loose && loose.verdict !== 'set' && (
          <p>
            <Mark state={loose.verdict === 'sound' ? 'sound' : 'watch'} /> Laid loose it opens {loose.times.toFixed(1)}{' '}
            times its barrel:{' '}
            {loose.verdict === 'sound' ? 'sound' : 'it has taken some set; under twice it is replaced'}.
          </p>
        )}
        {bad.length > 0 && (
          <div className={parts.next}>
            <p>
              <Mark state="must" label="replace" /> <b>Replace it.</b>
            </p>
            <ul>
              {bad.map((b) => (
                <li key={b}>{b}</li>
              ))}
            </ul>
          </div>
        )}
        {there instanceof FieldError && old && (
          <p role="alert">
            <Mark state="must" label="measure again" /> A strip of these figures can’t be in this barrel:{' '}
            {there.allowed}. Measure again.
          </p>
        )}
        {strip && barrel && there && !(there instanceof FieldError) && old && (
          <Soon>
            <Suspense fallback={null}>
              <TorqueChart
                old={old}
                fitted={fitted}
                barrel={barrel}
                turnsUsed={sheet.turnsUsed}
                label={`Torque over the turns: ${there.torqueRunDownNmm.toFixed(0)} N·mm run down, ${there.torqueWoundNmm.toFixed(0)} fully wound`}
              />
            </Suspense>
          </Soon>
        )}
        {steps.length > 0 && (
          <>
            <h3 className={parts.next}>Fitting it</h3>
            <div className={parts.fields}>{field('winderNmm', 'Winder, rated for', 'N·mm')}</div>
            {!isOff && (
              <p>
                <Mark state="danger" label="danger" /> Nobody has confirmed the {train.train} train off: treat its
                spring as wound. <Link to="../power">Power</Link>
              </p>
            )}
            {tooWeak && (
              <p>
                <Mark state="danger" label="danger" /> The winder is too weak: {woundNmm?.toFixed(0)} N·mm and a fifth
                to spare are needed. A winder that is too weak is worse than none.
              </p>
            )}
            <Steps
              steps={steps}
              done={sheet.done}
              onDone={(done) => set({ done })}
              locked={tooWeak || asked || !isOff}
            />
          </>
        )}
      </section>
      <section>
        {list}
        <h3 className={parts.next}>What is fitted</h3>
        {!old || !barrel ? (
          <p className={parts.say}>
            Measure its width, thickness and length, or count its coils, and the barrel and arbor: then the drawers are
            asked.
          </p>
        ) : (
          <>
            <Pick
              label="The spring"
              value={sheet.choice}
              of={[
                ['keep', 'is kept'],
                ['stock', 'from the drawers'],
                ['order', 'to order'],
              ]}
              onPick={(picked) =>
                set({ choice: picked, ...(picked === 'stock' ? fromStock(choice, stock) : noStock), done: [] })
              }
            />
            {sheet.choice === 'order' && (
              <div className={parts.fields}>
                {field('fittedWidthMm', 'Order: width')}
                {field('fittedThickMm', 'thick')}
                {field('fittedLengthMm', 'length')}
              </div>
            )}
            {sheet.choice === 'order' && sheet.fittedLengthMm === null && old && (
              <Button
                variant="default"
                onClick={() =>
                  set({
                    fittedWidthMm: old.widthMm,
                    fittedThickMm: old.thicknessMm,
                    fittedLengthMm: Math.round(old.lengthMm),
                  })
                }
              >
                As the old one: {old.widthMm} × {old.thicknessMm} × {old.lengthMm.toFixed(0)} mm
              </Button>
            )}
            {told && !(told instanceof FieldError) && (
              <section aria-label="The fitted spring">
                <h3 className={parts.next}>
                  <Mark
                    state={told.verdict === 'alike' ? 'sound' : told.verdict === 'too strong' ? 'danger' : 'must'}
                  />{' '}
                  {VERDICTS[told.verdict]}
                </h3>
                <ul>
                  {told.reasons.map((r) => (
                    <li key={r}>{r}</li>
                  ))}
                </ul>
              </section>
            )}
            {choice && !(choice instanceof FieldError) && (
              <SpringDrawer
                stock={stock ?? []}
                choice={choice}
                chosen={sheet.stockId}
                onTake={(s) => set({ choice: 'stock', ...ofStock(s), done: [] })}
              />
            )}
          </>
        )}
      </section>
    </div>
  )
}

const VERDICTS = {
  alike: 'As strong as the old one',
  'too strong': 'Too strong: it wears the movement out',
  'too weak': 'Too weak',
  'does not fit': 'It does not go in',
}

const noStock = { stockId: null, fittedWidthMm: null, fittedThickMm: null, fittedLengthMm: null }
const ofStock = (s: StockRow) => ({
  stockId: s.id,
  fittedWidthMm: s.widthMm,
  fittedThickMm: s.thickMm,
  fittedLengthMm: s.lengthMm,
})

function fromStock(choice: ReturnType<typeof chooseMainspring> | FieldError | null, stock: StockRow[] | undefined) {
  const best = choice && !(choice instanceof FieldError) ? stock?.find((s) => s.id === choice.choice) : undefined
  return best ? ofStock(best) : noStock
}
