import { WheelSheetChange } from '@treadle/contract'
import { lanternTrundles, workingFlank, type FreshTrack } from '@treadle/core'
import { Figure } from '../../parts/Figure.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { rowFigures } from '../../parts/rowFigures.tsx'
import { Pick } from '../../parts/Pick.tsx'
import { mm } from '../../parts/say.ts'
import { useStock } from '../../data/queries.ts'
import type { MovementPart } from './partsOf.ts'
import styles from './Wheels.module.css'

interface PinionSheetProps {
  part: MovementPart
  sheet: WheelSheetChange
  track: FreshTrack | null
  onSet: (change: Partial<WheelSheetChange>) => void
  onKind: (kind: 'pinion' | 'lantern') => void
}

/** A pinion: cut leaves grooved by their wheel, or the trundles of a lantern, one after another with the caliper. */
export function PinionSheet(props: PinionSheetProps) {
  const { sheet, onKind } = props
  return (
    <>
      <Pick
        label="Its leaves are"
        value={sheet.part === 'lantern' ? 'lantern' : 'pinion'}
        of={[
          ['pinion', 'cut'],
          ['lantern', 'trundles of a lantern'],
        ]}
        onPick={onKind}
      />
      {sheet.part === 'lantern' ? <Lantern {...props} /> : <Cut {...props} />}
    </>
  )
}

function Cut({ part, sheet, track, onSet }: PinionSheetProps) {
  const field = rowFigures(WheelSheetChange, sheet, part.key, onSet)
  const { leafMm, grooveFromMm, grooveToMm } = sheet
  return (
    <>
      <div className={parts.fields}>
        {field('count', 'Leaves', '')}
        {field('outsideMm', 'Across')}
        {field('leafMm', 'Leaves, long')}
        {field('grooveFromMm', 'Groove from the front end')}
        {field('grooveToMm', 'Groove to')}
        {field('grooveMm', 'Groove, deep')}
        {field('thickMm', 'The wheel in it, thick')}
      </div>
      {leafMm !== null && grooveFromMm !== null && grooveToMm !== null && grooveFromMm < grooveToMm && (
        <svg
          viewBox="0 0 420 130"
          style={{ width: '100%', maxWidth: 520 }}
          role="img"
          aria-label={`Leaves ${leafMm} mm long, grooved from ${grooveFromMm} to ${grooveToMm} mm`}
        >
          <rect x="10" y="35" width="400" height="60" fill="var(--steel-metal)" stroke="var(--ink)" />
          {[50, 65, 80].map((y) => (
            <path key={y} d={`M10 ${y}H410`} stroke="var(--ink)" strokeWidth="0.7" />
          ))}
          <rect
            x={10 + (400 * grooveFromMm) / leafMm}
            y="29"
            width={(400 * (grooveToMm - grooveFromMm)) / leafMm}
            height="72"
            fill="none"
            stroke="var(--madder)"
            strokeWidth="2"
            strokeDasharray="5 3"
          />
          <text x="14" y="22" fontSize="14" fill="var(--quiet)">
            front {track ? mm(track.frontMm) : ''}
          </text>
          <text x="406" y="22" fontSize="14" textAnchor="end" fill="var(--quiet)">
            {track ? mm(track.backMm) : ''} back
          </text>
          <text
            x={10 + (200 * (grooveFromMm + grooveToMm)) / leafMm}
            y="120"
            fontSize="14"
            textAnchor="middle"
            fill="var(--madder)"
          >
            groove
          </text>
        </svg>
      )}
      {track &&
        (track.way === null ? (
          <p>
            <Mark state="must" label="no room" /> No fresh track: {mm(track.frontMm)} and {mm(track.backMm)} of leaf are
            left, less than the wheel needs.
          </p>
        ) : (
          <p>
            <Mark state="watch" label="to move" /> A fresh track of {mm(Math.max(track.frontMm, track.backMm))} at the{' '}
            {track.way}: move the wheel, or the pinion under it, {mm(track.moveMm)} so that it runs there.
          </p>
        ))}
      {part.turn && (
        <p className="quiet">
          It turns {part.turn}, so its wheel pushes the {workingFlank(part.turn, false)} side of its leaves.
        </p>
      )}
    </>
  )
}

function Lantern({ part, sheet, onSet }: PinionSheetProps) {
  const { data: stock } = useStock()
  const n = sheet.count ?? part.count ?? 8
  const all = Array.from({ length: n }, (_, i) => sheet.trundlesMm[i] ?? null)
  const gauged = all.filter((mm): mm is number => mm !== null)
  const told = gauged.length >= 3 && gauged.length === n ? lanternTrundles(gauged) : null
  const wire = told && nearestWire(stock ?? [], told.keptMm)
  return (
    <>
      <div className={styles.picture}>
        <svg
          viewBox="-120 -120 240 240"
          className={styles.lantern}
          role="img"
          aria-label={
            told
              ? `Lantern pinion: ${told.replace.length === 0 ? 'all sound' : `replace ${told.replace.join(', ')}`}`
              : 'Lantern pinion'
          }
        >
          <circle r="104" fill="var(--brass-wash)" stroke="var(--brass)" strokeWidth="1.5" />
          <circle r="16" fill="var(--steel-metal)" stroke="var(--ink)" />
          {all.map((mm, i) => {
            const a = (2 * Math.PI * i) / n
            const bad = told?.replace.includes(i + 1) ?? false
            const r = Math.min(17, (150 / n) * (mm === null ? 0.6 : 0.8))
            return (
              <g key={i} transform={`translate(${80 * Math.sin(a)} ${-80 * Math.cos(a)})`}>
                <circle
                  r={r}
                  fill={mm === null ? 'none' : 'var(--steel-metal)'}
                  stroke={bad ? 'var(--madder)' : 'var(--ink)'}
                  strokeWidth={bad ? 4 : 1.2}
                  strokeDasharray={mm === null ? '3 3' : undefined}
                />
                <text
                  fontSize="14"
                  textAnchor="middle"
                  dominantBaseline="central"
                  fill={bad ? 'var(--madder)' : 'var(--ink)'}
                >
                  {bad ? `${i + 1}!` : i + 1}
                </text>
              </g>
            )
          })}
        </svg>
        <div>
          {told === null ? (
            <p className={parts.say}>Gauge each in its middle, where the wheel runs; Enter goes to the next.</p>
          ) : told.replace.length === 0 ? (
            <p>
              <Mark state="sound" label="sound" /> All lie within {(told.spreadMm * 1000).toFixed(0)} µm of each other.
            </p>
          ) : (
            <p>
              <Mark state="must" label="replace" />{' '}
              {told.verdict === 'replace all' ? (
                'Half of them or more would go: replace all.'
              ) : (
                <>
                  Replace {told.replace.length === 1 ? 'number' : 'numbers'} <b>{told.replace.join(', ')}</b>
                </>
              )}
              , of wire <b>{told.keptMm.toFixed(2)} mm</b>: then all lie within about 0.01 mm.{' '}
              {wire ? (
                <>
                  The drawer has {wire.outsideMm?.toFixed(2)} mm{wire.drawer === '' ? '' : `, drawer ${wire.drawer}`}.
                </>
              ) : (
                'No wire of the drawers is near enough: order some, or turn it down.'
              )}
            </p>
          )}
        </div>
      </div>
      <div className={parts.fields}>
        <Figure
          label="Trundles"
          draftOf={part.key}
          value={n}
          min={3}
          max={40}
          whole
          onKeep={(count) => onSet({ count })}
        />
        {all.map((mm, i) => (
          <Figure
            key={i}
            label={`Trundle ${i + 1}`}
            draftOf={part.key}
            unit="mm"
            value={mm}
            min={0.1}
            max={30}
            beside={all.filter((_, o) => o !== i)}
            onKeep={(value) => onSet({ trundlesMm: all.map((was, o) => (o === i ? value : was)) })}
          />
        ))}
      </div>
      <Pick
        label="Shroud"
        value={sheet.shroud}
        of={[
          ['sound', 'sound'],
          ['bad', 'loose'],
        ]}
        onPick={(shroud) => onSet({ shroud })}
      />
    </>
  )
}

/** Wire of the drawers as thick as the trundles that stay, or a hair over, to be polished down. */
function nearestWire<S extends { kind: string; outsideMm: number | null; count: number }>(
  stock: S[],
  mm: number,
): S | undefined {
  return stock
    .filter((s) => s.kind === 'trundle wire' && s.count > 0 && s.outsideMm !== null)
    .filter((s) => (s.outsideMm ?? 0) >= mm - 0.005 && (s.outsideMm ?? 0) <= mm + 0.03)
    .sort((a, b) => (a.outsideMm ?? 0) - (b.outsideMm ?? 0))[0]
}
