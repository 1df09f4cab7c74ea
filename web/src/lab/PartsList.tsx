import { PendulumPartOnBench, SHEET_PART_TITLES } from '@treadle/contract'
import {
  blankPart,
  BOB_SHAPES,
  HOLDS_AT,
  MATERIAL_FACTS,
  PENDULUM_MATERIALS,
  SHEET_PARTS,
  type SheetPart,
  type SheetPartKind,
} from '@treadle/core'
import { Button, Group, NativeSelect } from '@mantine/core'
import { memo } from 'react'
import { Caution } from '../parts/Caution.tsx'
import { Figure } from '../parts/Figure.tsx'
import parts from '../parts/parts.module.css'
import styles from './Lab.module.css'

type FigureField = 'massG' | 'atMm' | 'lengthMm' | 'acrossMm' | 'thickMm' | 'pairs' | 'alphaPerMillion'

/** Which figures a kind is asked, and what they are called of it. */
const ASKED: Record<SheetPartKind, [field: FigureField, label: string, unit: string][]> = {
  rod: [
    ['atMm', 'Its middle, how deep', 'mm'],
    ['lengthMm', 'Length', 'mm'],
    ['acrossMm', 'Across', 'mm'],
    ['thickMm', 'Thick, if flat', 'mm'],
    ['massG', 'Weighs, if weighed', 'g'],
  ],
  bob: [
    ['atMm', 'Its middle, how deep', 'mm'],
    ['acrossMm', 'Across', 'mm'],
    ['massG', 'Weighs, if weighed', 'g'],
  ],
  nut: [
    ['atMm', 'How deep', 'mm'],
    ['massG', 'Weighs', 'g'],
    ['acrossMm', 'Across', 'mm'],
    ['lengthMm', 'High', 'mm'],
  ],
  jar: [
    ['atMm', 'Bottom inside, how deep', 'mm'],
    ['acrossMm', 'Across inside', 'mm'],
    ['lengthMm', 'Stands how high', 'mm'],
    ['thickMm', 'Wall', 'mm'],
    ['massG', 'What stands in it weighs', 'g'],
  ],
  sleeve: [
    ['lengthMm', 'Length', 'mm'],
    ['acrossMm', 'Across outside', 'mm'],
    ['thickMm', 'Wall', 'mm'],
    ['massG', 'Weighs, if weighed', 'g'],
  ],
  gridiron: [
    ['pairs', 'Rising pairs', ''],
    ['lengthMm', 'Each rises by', 'mm'],
    ['acrossMm', 'Each rod across', 'mm'],
    ['massG', 'All of them weigh', 'g'],
  ],
  tray: [
    ['atMm', 'How deep', 'mm'],
    ['massG', 'Weighs', 'g'],
  ],
  weight: [
    ['atMm', 'How deep', 'mm'],
    ['massG', 'Weighs', 'g'],
  ],
}
/** Kinds of which there is one on a pendulum. */
const ONE_ONLY = new Set<SheetPartKind>(['rod', 'bob', 'nut', 'sleeve', 'gridiron', 'tray'])

/** Every part of the pendulum with its figures; parts are added and taken away. */
export const PartsList = memo(function PartsList({
  sheet,
  onParts,
}: {
  sheet: readonly SheetPart[]
  onParts: (parts: SheetPart[]) => void
}) {
  const set = (index: number, part: Partial<SheetPart>) =>
    onParts(sheet.map((p, i) => (i === index ? { ...p, ...part } : p)))
  const add = (kind: SheetPartKind) => onParts([...sheet, started(kind, sheet)])
  return (
    <section className={styles.parts} aria-label="Its parts">
      <h3>Its parts</h3>
      <p className="quiet">
        Depths are from where the suspension leaves its cock. A mass left empty is reckoned by size.
      </p>
      {sheet.map((part, index) => (
        <div key={index} className={styles.part} role="group" aria-label={SHEET_PART_TITLES[part.kind]}>
          <div className={styles.partHead}>
            <h4>{SHEET_PART_TITLES[part.kind]}</h4>
            <Button
              variant="subtle"
              size="compact-sm"
              aria-label={`Take away: ${SHEET_PART_TITLES[part.kind]}`}
              onClick={() => onParts(sheet.filter((_, i) => i !== index))}
            >
              take away
            </Button>
          </div>
          {part.kind === 'jar' && part.material === 'mercury' && (
            <Caution>
              Mercury stays in its jar: weigh it there or reckon it by its height. Decanted over a sided tray with the
              window open, never poured; follow the safety sheet and your local rules.
            </Caution>
          )}
          <div className={parts.fields}>
            {part.kind === 'bob' && (
              <NativeSelect
                label="Shape"
                value={part.shape ?? 'disc'}
                onChange={(e) => set(index, { shape: e.currentTarget.value as 'disc' })}
                data={BOB_SHAPES.map((s) => ({ value: s, label: s }))}
              />
            )}
            {part.kind !== 'tray' && part.kind !== 'weight' && part.kind !== 'nut' && (
              <NativeSelect
                label={part.kind === 'jar' ? 'Holds' : part.kind === 'gridiron' ? 'Rising rods of' : 'Made of'}
                value={part.material}
                onChange={(e) => set(index, { material: e.currentTarget.value as 'steel' })}
                data={materialsFor(part.kind)}
              />
            )}
            {[...ASKED[part.kind], ...shapeFields(part), ...expansion(part)].map(([field, label, unit]) => (
              <Figure
                key={field}
                label={label}
                unit={unit}
                draftOf={`part ${index}`}
                value={part[field]}
                of={[PendulumPartOnBench, field]}
                onKeep={(value) => set(index, { [field]: value })}
              />
            ))}
            {part.kind === 'bob' && (
              <NativeSelect
                label="Rests on the rod at its"
                value={part.holdsAt ?? 'centre'}
                onChange={(e) => set(index, { holdsAt: e.currentTarget.value as 'centre' })}
                data={HOLDS_AT.map((h) => ({ value: h, label: h }))}
              />
            )}
          </div>
        </div>
      ))}
      <Group mt="sm" gap="xs">
        {SHEET_PARTS.filter((kind) => !ONE_ONLY.has(kind) || !sheet.some((p) => p.kind === kind)).map((kind) => (
          <Button key={kind} variant="default" size="sm" onClick={() => add(kind)}>
            Add: {SHEET_PART_TITLES[kind].toLowerCase()}
          </Button>
        ))}
      </Group>
    </section>
  )
})

function materialsFor(kind: SheetPartKind): string[] {
  if (kind === 'jar') return ['mercury', 'shot']
  return PENDULUM_MATERIALS.filter((m) => m !== 'mercury' && m !== 'shot')
}

function shapeFields(part: SheetPart): [FigureField, string, string][] {
  if (part.kind !== 'bob') return []
  if (part.shape === 'cylinder') return [['lengthMm', 'Height', 'mm']]
  return part.shape === 'ball' ? [] : [['thickMm', 'Thick in the middle', 'mm']]
}

function expansion(part: SheetPart): [FigureField, string, string][] {
  if (part.kind === 'tray' || part.kind === 'weight' || part.kind === 'nut') return []
  const usual = part.kind === 'jar' ? MATERIAL_FACTS.glass : MATERIAL_FACTS[part.material]
  return [
    ['alphaPerMillion', `${part.kind === 'jar' ? 'Glass grows' : 'Grows'} (${usual.alphaPerMillion} if empty)`, '10⁻⁶'],
  ]
}

/** A part begun where it usually is on such a pendulum, so that it can be drawn and dragged at once. */
function started(kind: SheetPartKind, sheet: readonly SheetPart[]): SheetPart {
  const blank = blankPart(kind)
  const rod = sheet.find((p) => p.kind === 'rod')
  const bob = sheet.find((p) => p.kind === 'bob')
  const foot = (rod?.atMm ?? 500) + (rod?.lengthMm ?? 1000) / 2
  const deep = bob?.atMm ?? foot * 0.92
  const round = (mm: number) => Math.round(mm)
  switch (kind) {
    case 'rod':
      return { ...blank, atMm: 510, lengthMm: 1000, acrossMm: 7 }
    case 'bob':
      return { ...blank, atMm: round(deep), acrossMm: round(foot * 0.17), thickMm: round(foot * 0.04) }
    case 'nut':
      return { ...blank, atMm: round(foot - 8), massG: 30 }
    case 'jar':
      return { ...blank, atMm: round(foot), lengthMm: round(foot * 0.18), acrossMm: 50, thickMm: 2 }
    case 'sleeve':
      return { ...blank, lengthMm: round(foot * 0.3) }
    case 'gridiron':
      return { ...blank, pairs: 2, lengthMm: round(foot * 0.55), acrossMm: 6 }
    case 'tray':
      return { ...blank, atMm: round(deep / 2), massG: 8 }
    case 'weight':
      return { ...blank, atMm: round(deep / 2), massG: 1 }
  }
}
