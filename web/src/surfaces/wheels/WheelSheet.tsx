import { WheelSheetChange } from '@treadle/contract'
import {
  clockAngleOf,
  faultsInWords,
  leftOnArm,
  mirrorLines,
  TOOTH_FAULTS,
  workingFlank,
  type Reversed,
  type ToothFault,
} from '@treadle/core'
import { Button, Group, Switch } from '@mantine/core'
import { useState } from 'react'
import { Caution } from '../../parts/Caution.tsx'
import { Figure } from '../../parts/Figure.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { rowFigures } from '../../parts/rowFigures.tsx'
import { Pick } from '../../parts/Pick.tsx'
import { mm } from '../../parts/say.ts'
import type { MovementPart } from './partsOf.ts'
import styles from './Wheels.module.css'
import { WheelPicture } from './WheelPicture.tsx'

type Say = ToothFault | 'sound'
const CLICK = [
  ['click', 'Click: fits the root, nose not rounded'],
  ['clickSpring', 'Click spring: brisk'],
  ['rivet', 'Its rivet: no wobble'],
] as const

/** A wheel tooth by tooth: tapped or typed; its flanks, its click work, and its holes where it is to be reversed. */
export function WheelSheet({
  part,
  sheet,
  reversed,
  onSet,
}: {
  part: MovementPart
  sheet: WheelSheetChange
  reversed: Reversed | null
  onSet: (change: Partial<WheelSheetChange>) => void
}) {
  const [say, setSay] = useState<Say>('bent')
  const [trueSize, setTrueSize] = useState(false)
  const count = sheet.count ?? part.count
  const flank = part.turn ? workingFlank(part.turn, true) : null
  const tell = (tooth: number) => {
    const others = sheet.faults.filter((f) => f.tooth !== tooth)
    const same = sheet.faults.some((f) => f.tooth === tooth && f.fault === say)
    const faults = say === 'sound' || same ? others : [...others, { tooth, fault: say }]
    onSet({ faults: faults.sort((a, b) => a.tooth - b.tooth) })
  }
  const click = CLICK.map(([key]) => sheet[key])
  const armDeg = sheet.holes[0] ? clockAngleOf(sheet.holes[0].xMm, sheet.holes[0].yMm) : 45
  const arms = sheet.arms !== null ? { count: sheet.arms, clockAngleDeg: armDeg, widthMm: sheet.armMm ?? 6 } : null
  const figure = rowFigures(WheelSheetChange, sheet, part.key, onSet)
  return (
    <>
      <div className={parts.fields}>
        {figure('count', 'Teeth', '')}
        {figure('outsideMm', 'Outside')}
        {figure('boreMm', 'Bore')}
        {figure('thickMm', 'Thick')}
      </div>
      {count === null ? (
        <p className={parts.say}>Count its teeth, and it is drawn.</p>
      ) : (
        <>
          <Pick label="A tooth that is tapped is" value={say} of={[...TOOTH_FAULTS, 'sound']} onPick={setSay} />
          <div className={trueSize ? styles.trueSize : styles.picture}>
            <WheelPicture
              name={`${part.arbor} wheel`}
              count={count}
              outsideMm={sheet.outsideMm ?? 40}
              boreMm={sheet.boreMm}
              faults={sheet.faults}
              flank={part.escape ? null : flank}
              escape={part.escape ? (part.turn ?? 'clockwise') : null}
              holes={sheet.holes}
              mirrored={reversed?.holes ?? []}
              mirrorDeg={sheet.mirrorDeg}
              arms={arms}
              trueSize={trueSize && sheet.outsideMm !== null}
              onTooth={tell}
            />
            <div>
              <Figure
                label={`Or type the tooth that is ${say}`}
                draftOf={`${part.key} tooth ${sheet.faults.length}`}
                value={null}
                min={1}
                max={count}
                whole
                onKeep={(tooth) => tooth !== null && tell(tooth)}
              />
              <p>
                {sheet.faults.length === 0 ? (
                  'No tooth is marked.'
                ) : (
                  <>
                    <Mark state="must" label="bad" /> {faultsInWords(sheet.faults)}:{' '}
                    {sheet.faults.map((f) => `${f.tooth} ${f.fault}`).join(', ')}.
                  </>
                )}
              </p>
              <p className="quiet">
                As seen from the front; tooth 1 at twelve.{' '}
                {part.turn &&
                  `It turns ${part.turn}; the strong edge is the flank that ${part.escape ? 'locks' : 'works'}.`}
              </p>
              {sheet.outsideMm !== null && (
                <Switch
                  mt="xs"
                  label="True size"
                  checked={trueSize}
                  onChange={(e) => setTrueSize(e.currentTarget.checked)}
                />
              )}
            </div>
          </div>
          <Pick
            label="Worn flank"
            value={sheet.worn}
            of={[
              ['none', 'none'],
              ['working', `the one that works${flank ? ` (${flank})` : ''}`],
              ['other', 'the other'],
              ['both', 'both'],
            ]}
            onPick={(worn) => onSet({ worn })}
          />
        </>
      )}
      {part.hasClick && (
        <section>
          <h3 className={parts.next}>Click work</h3>
          {CLICK.map(([key, title]) => (
            <Pick
              key={key}
              label={title}
              value={sheet[key]}
              of={['sound', 'bad']}
              onPick={(v) => onSet({ [key]: v })}
            />
          ))}
          {click.includes('bad') && (
            <Caution>
              A slipping click breaks fingers and teeth: this wheel does not go under a wound spring before its click
              work is sound. Follow your local rules.
            </Caution>
          )}
          {click.includes('') && (
            <p>
              <Mark state="watch" label="not judged" /> Judge all three on every spring clock.
            </p>
          )}
        </section>
      )}
      {sheet.way === 'reverse' && (
        <section>
          <h3 className={parts.next}>The holes on the other side</h3>
          <p className={parts.say}>
            Measured from the wheel’s centre as you look at the click: to the right and up. The line brings the click’s
            arm onto another arm.
          </p>
          <div className={parts.fields}>
            {figure('arms', 'Crossings', '')}
            {figure('armMm', 'Arm, wide')}
            {figure('rivetMm', 'Rivet, across')}
          </div>
          <HoleFields sheet={sheet} draftOf={part.key} onSet={onSet} />
          {sheet.arms !== null && sheet.holes.length > 0 && (
            <Pick
              label="Mirrored about"
              value={sheet.mirrorDeg === null ? '' : sheet.mirrorDeg.toFixed(1)}
              of={mirrorLines(armDeg, sheet.arms).map((deg): [string, string] => [
                deg.toFixed(1),
                `${deg.toFixed(0)}°`,
              ])}
              onPick={(deg) => onSet({ mirrorDeg: Number(deg) })}
            />
          )}
          {reversed && (
            <ul>
              {reversed.holes.map((h) => {
                const onArm = arms ? leftOnArm(h, arms) : null
                const near = reversed.conflicts.find((c) => c.between[0] === h.name)
                return (
                  <li key={h.name}>
                    <b>{h.name}</b>: {mm(Math.abs(h.xMm))} {h.xMm < 0 ? 'left' : 'right'}, {mm(Math.abs(h.yMm))}{' '}
                    {h.yMm < 0 ? 'down' : 'up'}; {mm(Math.hypot(h.xMm, h.yMm))} from the centre, as before.{' '}
                    {near ? (
                      <>
                        <Mark state="must" label="too near" /> Only {mm(near.leftMm)} of metal to the old{' '}
                        {near.between[1]}: take another line.
                      </>
                    ) : (
                      <>
                        <Mark state="sound" label="clear" /> Clear of the old holes by a rivet’s width or more.
                      </>
                    )}
                    {onArm !== null &&
                      (onArm < 0.8
                        ? ` Only ${mm(onArm)} to the edge of its arm.`
                        : ` ${mm(onArm)} to the edge of its arm.`)}
                  </li>
                )
              })}
            </ul>
          )}
        </section>
      )}
    </>
  )
}

/** The holes of the click work, one row each. */
function HoleFields({
  sheet,
  draftOf,
  onSet,
}: {
  sheet: WheelSheetChange
  draftOf: string
  onSet: (change: Partial<WheelSheetChange>) => void
}) {
  const add = (name: string) =>
    onSet({ holes: [...sheet.holes, { name, xMm: 10, yMm: 0, diameterMm: sheet.rivetMm ?? 2 }] })
  return (
    <>
      {sheet.holes.map((h, i) => (
        <div key={h.name} className={parts.fields}>
          {(
            [
              ['xMm', 'to the right'],
              ['yMm', 'up'],
              ['diameterMm', 'across'],
            ] as const
          ).map(([key, title]) => (
            <Figure
              key={key}
              label={`${h.name}, ${title}`}
              draftOf={draftOf}
              unit="mm"
              value={h[key]}
              min={key === 'diameterMm' ? 0.1 : -1000}
              max={1000}
              onKeep={(v) =>
                v !== null && onSet({ holes: sheet.holes.map((o, n) => (n === i ? { ...o, [key]: v } : o)) })
              }
            />
          ))}
          <Button
            variant="subtle"
            size="compact-md"
            onClick={() => onSet({ holes: sheet.holes.filter((_, n) => n !== i) })}
            aria-label={`Take out ${h.name}`}
          >
            Take out
          </Button>
        </div>
      ))}
      <Group mt="xs">
        {['click rivet', 'spring wire', 'third hole']
          .filter((name) => !sheet.holes.some((h) => h.name === name))
          .slice(0, 1)
          .map((name) => (
            <Button key={name} variant="default" onClick={() => add(name)}>
              Put in the {name}
            </Button>
          ))}
      </Group>
    </>
  )
}
