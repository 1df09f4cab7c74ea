import { PlacedArbor, type PlateMapChange, type TrainSheetRow } from '@treadle/contract'
import {
  centreDistanceOf,
  FieldError,
  formatClockDirection,
  locate,
  moduleFromWheel,
  parseClockDirection,
  pointAt,
  type Located,
} from '@treadle/core'
import { Button, Group, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Fold } from '../../parts/Fold.tsx'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { hasPlace, placeWords } from '../../job/plates/PlateDrawing.tsx'

const key = (a: PlacedArbor) => `${a.train} ${a.name}`

/** One arbor: where it stands, by whichever way it was measured, and what the plates are there. */
export function ArborForm({
  arbor,
  draft,
  sheets,
  onSet,
  onRemove,
}: {
  arbor: PlacedArbor
  draft: PlateMapChange
  sheets: TrainSheetRow[]
  onSet: (part: Partial<PlacedArbor>) => void
  onRemove: () => void
}) {
  const counts = sheets.find((s) => s.train === arbor.train)?.arbors
  const wheel = counts?.[arbor.index - 1]?.wheel ?? null
  return (
    <div>
      <div className={parts.fields}>
        <Figure
          label="x"
          draftOf={arbor.name}
          unit="mm"
          value={arbor.xMm}
          of={[PlacedArbor, 'xMm']}
          onKeep={(xMm) => onSet({ xMm })}
        />
        <Figure
          label="y"
          draftOf={arbor.name}
          unit="mm"
          value={arbor.yMm}
          of={[PlacedArbor, 'yMm']}
          onKeep={(yMm) => onSet({ yMm })}
        />
        <NativeSelect
          label="Role"
          value={arbor.role}
          data={['other', 'escape', 'pallet']}
          onChange={(e) => onSet({ role: e.currentTarget.value as PlacedArbor['role'] })}
        />
      </div>
      <ByDistances arbor={arbor} draft={draft} onSet={onSet} />
      <ByDirection arbor={arbor} draft={draft} counts={counts} onSet={onSet} />
      <Fold title="Plates and wheels there">
        <div className={parts.fields}>
          <Figure
            draftOf={arbor.name}
            label="Front plate here"
            unit="mm"
            value={arbor.frontMm}
            of={[PlacedArbor, 'frontMm']}
            onKeep={(frontMm) => onSet({ frontMm })}
          />
          <Figure
            draftOf={arbor.name}
            label="Back plate here"
            unit="mm"
            value={arbor.backMm}
            of={[PlacedArbor, 'backMm']}
            onKeep={(backMm) => onSet({ backMm })}
          />
          <NativeSelect
            label="In a cock"
            value={arbor.cock}
            data={[
              { value: '', label: 'no' },
              { value: 'front', label: 'at the front' },
              { value: 'back', label: 'at the back' },
            ]}
            onChange={(e) => onSet({ cock: e.currentTarget.value as PlacedArbor['cock'] })}
          />
          <Figure
            draftOf={arbor.name}
            label="Pinion, % from the front"
            value={Math.round(100 * arbor.pinionAt)}
            min={0}
            max={100}
            onKeep={(v) => v !== null && onSet({ pinionAt: v / 100 })}
          />
          <Figure
            draftOf={arbor.name}
            label="Wheel, % from the front"
            value={Math.round(100 * arbor.wheelAt)}
            min={0}
            max={100}
            onKeep={(v) => v !== null && onSet({ wheelAt: v / 100 })}
          />
          {wheel !== null && (
            <Figure
              draftOf={arbor.name}
              label="Its driver’s wheel, across the tips"
              unit="mm"
              value={arbor.moduleMm === null ? null : Math.round(100 * arbor.moduleMm * (wheel + 2.7)) / 100}
              min={2}
              max={600}
              onKeep={(v) => onSet({ moduleMm: v === null ? null : moduleFromWheel(v, wheel) })}
            />
          )}
        </div>
      </Fold>
      <Button variant="subtle" size="compact-md" onClick={onRemove}>
        Take {arbor.name} off the plates
      </Button>
    </div>
  )
}

/** By two distances from known holes: both places are offered. */
function ByDistances({
  arbor,
  draft,
  onSet,
}: {
  arbor: PlacedArbor
  draft: PlateMapChange
  onSet: (part: Partial<PlacedArbor>) => void
}) {
  const known = [
    ...draft.arbors
      .filter((a) => a !== arbor && hasPlace(a))
      .map((a) => ({ name: key(a), xMm: a.xMm ?? 0, yMm: a.yMm ?? 0 })),
    ...draft.fixtures,
  ]
  const [from, setFrom] = useState<[string, string]>([known[0]?.name ?? '', known[1]?.name ?? ''])
  const [apart, setApart] = useState<[number | null, number | null]>([null, null])
  if (known.length < 2) return null
  let places: Located[] = []
  let wrong: string | null = null
  const [a, b] = from.map((name) => known.find((k) => k.name === name))
  if (a && b && apart[0] !== null && apart[1] !== null)
    try {
      places = locate([
        { ...a, distanceMm: apart[0] },
        { ...b, distanceMm: apart[1] },
      ])
    } catch (error) {
      if (!(error instanceof FieldError)) throw error
      wrong = error.allowed
    }
  const field = (i: 0 | 1) => (
    <>
      <NativeSelect
        label={i === 0 ? 'From' : 'and from'}
        value={from[i]}
        data={known.map((k) => k.name)}
        onChange={(e) => setFrom(i === 0 ? [e.currentTarget.value, from[1]] : [from[0], e.currentTarget.value])}
      />
      <Figure
        draftOf={arbor.name}
        label={i === 0 ? 'First distance' : 'Second distance'}
        unit="mm"
        value={apart[i]}
        min={0.1}
        max={900}
        onKeep={(v) => setApart(i === 0 ? [v, apart[1]] : [apart[0], v])}
      />
    </>
  )
  return (
    <Fold title="By two distances">
      <div className={parts.fields}>
        {field(0)}
        {field(1)}
      </div>
      {wrong !== null && <p role="alert">{wrong}.</p>}
      <Group>
        {places.map((p) => (
          <Button
            key={`${p.xMm} ${p.yMm}`}
            variant="default"
            onClick={() => onSet({ xMm: round(p.xMm), yMm: round(p.yMm) })}
          >
            {placeWords(p.xMm, p.yMm)}
          </Button>
        ))}
      </Group>
    </Fold>
  )
}

/** By counts and module: so far from the arbor that drives it, in a direction. */
function ByDirection({
  arbor,
  draft,
  counts,
  onSet,
}: {
  arbor: PlacedArbor
  draft: PlateMapChange
  counts: TrainSheetRow['arbors'] | undefined
  onSet: (part: Partial<PlacedArbor>) => void
}) {
  const below = draft.arbors.find((a) => a.train === arbor.train && a.index === arbor.index - 1)
  const [direction, setDirection] = useState('12')
  const [typed, setTyped] = useState<number | null>(null)
  if (!below || !hasPlace(below)) return null
  const wheel = counts?.[below.index]?.wheel
  const pinion = counts?.[arbor.index]?.pinion
  const computed = wheel && pinion && arbor.moduleMm !== null ? centreDistanceOf(wheel, pinion, arbor.moduleMm) : null
  const mm = typed ?? computed
  let deg: number | null = null
  try {
    deg = parseClockDirection(direction)
  } catch (error) {
    if (!(error instanceof FieldError)) throw error
  }
  return (
    <Fold
      title={`By the centre distance from ${below.name}${computed === null ? '' : `: ${computed.toFixed(2)} mm by counts and wheel`}`}
    >
      <div className={parts.fields}>
        <Figure
          label="Centre distance"
          draftOf={arbor.name}
          unit="mm"
          value={mm}
          min={0.5}
          max={600}
          onKeep={setTyped}
        />
        <TextInput
          label="Toward, on the dial"
          value={direction}
          error={deg === null ? 'Such as 2 or 1:50' : undefined}
          onChange={(e) => setDirection(e.currentTarget.value)}
        />
        <Button
          variant="default"
          disabled={mm === null || deg === null}
          onClick={() => {
            if (mm === null || deg === null) return
            const { xMm, yMm } = pointAt(below, deg, mm)
            onSet({ xMm: round(xMm), yMm: round(yMm) })
          }}
        >
          Place it {deg === null ? '' : `toward ${formatClockDirection(deg)}`}
        </Button>
      </div>
    </Fold>
  )
}

function round(mm: number): number {
  return Math.round(mm * 1000) / 1000
}
