import type { BushedBefore, Hole, PlacedArbor, Plate, PlateMapChange } from '@treadle/contract'
import {
  formatClockDirection,
  type HoleState,
  type Movement,
  ofArbor,
  pitchRadiiOf,
  type Point,
  samePlace,
  stateOf,
  thenBy,
  type Trueing,
  wearOf,
} from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { useDebouncedCallback } from '@mantine/hooks'
import { useEffect, useRef, useState, type KeyboardEvent, type MouseEvent } from 'react'
import { Fixtures } from './Fixtures.tsx'
import { frameOf } from './frame.ts'
import styles from './Plates.module.css'
import { useFinePhoto } from './useFinePhoto.ts'
import { useZoom } from './useZoom.ts'

/** How many times deeper than it is a wear is drawn: at its true depth it could not be seen. */
const WEAR_DRAWN = 12
const REST_MS = 120

export interface DrawnPhoto {
  id: string
  width: number
  height: number
  trueing: Trueing
}

/** One plate to scale: edge, pillars, ghosts of the wheels, every hole with its wear as measured and as expected. */
export function PlateDrawing({
  map,
  plate,
  movement,
  holes,
  chosen,
  onChoose,
  onPlace,
  photo,
  order,
  points = [],
  bushedBefore = [],
}: {
  map: Pick<PlateMapChange, 'arbors' | 'fixtures' | 'edge'>
  plate: Plate
  movement: Movement | undefined
  holes: Hole[]
  chosen: string | null
  onChoose: (arbor: PlacedArbor) => void
  onPlace?: ((xMm: number, yMm: number) => void) | undefined
  photo?: DrawnPhoto | undefined
  /** arbors in the order in which they are gone through, joined by a line */
  order?: PlacedArbor[] | undefined
  /** places to mark on the brass, such as a marker’s two outer points */
  points?: Point[]
  /** what was bushed on earlier visits */
  bushedBefore?: BushedBefore[]
}) {
  const mirrored = plate === 'back'
  const frame = frameOf(map, mirrored)
  const image = useRef<HTMLImageElement>(null)
  const fine = useFinePhoto(photo?.id)
  const [closeness, setCloseness] = useState(1)
  // What is moved is moved at once; marks and photo are made finer once the hand rests.
  const atRest = useDebouncedCallback((scale: number) => {
    fine.lookAt(scale)
    setCloseness(closenessOf(scale))
  }, REST_MS)
  const svg = useRef<SVGSVGElement>(null)
  const group = useRef<SVGGElement>(null)
  const layPhoto = () => {
    const box = svg.current?.getBoundingClientRect()
    const matrix = group.current?.getScreenCTM()
    if (!photo || !image.current || !box || !matrix) return
    // From mm of the plate to pixels of the page: the drawing's own matrix, y upside down, the back plate mirrored.
    const side = mirrored ? -1 : 1
    const toPage: Trueing = [
      matrix.a * side,
      -matrix.c,
      matrix.e - box.left,
      matrix.b * side,
      -matrix.d,
      matrix.f - box.top,
      0,
      0,
      1,
    ]
    const [a, b, c, d, e, f, g, h, i] = thenBy(photo.trueing, toPage)
    image.current.style.transform = `matrix3d(${[a, d, 0, g, b, e, 0, h, 0, 0, 1, 0, c, f, 0, i].join(',')})`
  }
  const {
    by,
    move: moveBy,
    whole,
  } = useZoom(
    (transform) => {
      layPhoto()
      atRest(transform.k)
    },
    svg,
    group,
  )
  useEffect(layPhoto)
  // Marks keep their size on the screen, or they would hide what one looks at closely.
  const share = Math.max(frame.width, frame.height) / 100
  const unit = share / closeness
  const x = (mm: number) => (mirrored ? -mm : mm)
  const place = (event: MouseEvent<SVGSVGElement>) => {
    const matrix = group.current?.getScreenCTM()
    if (!onPlace || !matrix) return
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
    onPlace(round(x(at.x)), round(-at.y))
  }
  const keys = (event: KeyboardEvent) => {
    const step = 8 * unit
    const moves: Record<string, () => void> = {
      '+': () => by(1.4),
      '-': () => by(1 / 1.4),
      '0': () => whole(),
      ArrowLeft: () => moveBy(step, 0),
      ArrowRight: () => moveBy(-step, 0),
      ArrowUp: () => moveBy(0, step),
      ArrowDown: () => moveBy(0, -step),
    }
    const move = moves[event.key]
    if (!move || event.target !== event.currentTarget) return
    event.preventDefault()
    move()
  }
  const placed = map.arbors.filter(hasPlace)
  return (
    <div>
      <div className={styles.stage}>
        {photo && (
          <img
            ref={image}
            src={fine.url}
            alt=""
            draggable={false}
            className={styles.photo}
            style={{ width: photo.width, height: photo.height }}
          />
        )}
        <svg
          ref={svg}
          viewBox={`${frame.left} ${frame.top} ${frame.width} ${frame.height}`}
          className={onPlace ? `${styles.map} ${styles.placing}` : styles.map}
          tabIndex={0}
          role="group"
          aria-label={`The ${plate} plate, to scale${mirrored ? ', mirrored: as seen from the back' : ', as seen from the front'}. Plus and minus enlarge it, arrows move it.`}
          onClick={place}
          onKeyDown={keys}
        >
          <g ref={group}>
            {map.edge.length > 0 && (
              <path
                d={`M${map.edge.map((p) => `${x(p.xMm)} ${-p.yMm}`).join('L')}Z`}
                className={photo ? styles.edgeOnly : styles.edge}
                strokeWidth={unit / 3}
              />
            )}
            {placed.map((a) => (
              <Ghost key={`${a.train} ${a.name}`} arbor={a} movement={movement} unit={unit} dash={share} x={x} />
            ))}
            <Fixtures fixtures={map.fixtures} plate={plate} x={x} unit={unit} />
            {order && order.length > 1 && (
              <path
                d={`M${order
                  .filter(hasPlace)
                  .map((a) => `${x(a.xMm)} ${-a.yMm}`)
                  .join('L')}`}
                className={styles.order}
                strokeWidth={unit / 2.5}
              />
            )}
            {placed.map((a) => (
              <HoleMark
                key={`${a.train} ${a.name}`}
                arbor={a}
                hole={holes.find((h) => samePlace(h, { ...ofArbor(a), plate }))}
                plate={plate}
                movement={movement}
                chosen={chosen === `${a.train} ${a.name}`}
                before={bushedBefore.filter((b) => samePlace(b, { ...ofArbor(a), plate }))}
                unit={unit}
                x={x}
                open={photo !== undefined}
                onChoose={() => onChoose(a)}
              />
            ))}
            {points.map((p) => (
              <path
                key={`${p.xMm} ${p.yMm}`}
                transform={`translate(${x(p.xMm)} ${-p.yMm})`}
                d={`M${-unit * 1.6} 0H${unit * 1.6}M0 ${-unit * 1.6}V${unit * 1.6}`}
                className={styles.point}
                strokeWidth={unit / 2.2}
              />
            ))}
          </g>
        </svg>
      </div>
      <Group gap="xs" mt="xs">
        <Button variant="default" size="sm" onClick={() => by(1.5)}>
          Larger
        </Button>
        <Button variant="default" size="sm" onClick={() => by(1 / 1.5)}>
          Smaller
        </Button>
        <Button variant="subtle" size="sm" onClick={whole}>
          Whole plate
        </Button>
        <span className="quiet">
          {mirrored ? 'Seen from the back: mirrored.' : 'Seen from the front.'} Wear is drawn {WEAR_DRAWN} times as
          deep.
        </span>
      </Group>
    </div>
  )
}

/** How closely it is looked at, in powers of two, so that marks are drawn anew but seldom. */
function closenessOf(scale: number): number {
  return Math.max(1, 2 ** Math.round(Math.log2(scale)))
}

/** A wheel and pinion at their pitch circles, where centre distances tell them. */
function Ghost({
  arbor,
  movement,
  unit,
  dash,
  x,
}: {
  arbor: PlacedArbor & { xMm: number; yMm: number }
  movement: Movement | undefined
  unit: number
  /** stays as it is when one looks closely: thousands of dashes round a wheel would take the browser too long */
  dash: number
  x: (mm: number) => number
}) {
  const { wheelMm, pinionMm } = pitchRadiiOf(
    movement?.trains.find((t) => t.train === arbor.train)?.arbors ?? [],
    arbor.name,
  )
  return (
    <g transform={`translate(${x(arbor.xMm)} ${-arbor.yMm})`} className={styles.ghost} strokeWidth={unit / 5}>
      {wheelMm !== null && <circle r={wheelMm} strokeDasharray={`${dash / 1.6} ${dash / 2.4}`} />}
      {pinionMm !== null && <circle r={pinionMm} />}
    </g>
  )
}

function HoleMark({
  arbor,
  hole,
  plate,
  movement,
  chosen,
  before,
  unit,
  x,
  open,
  onChoose,
}: {
  arbor: PlacedArbor & { xMm: number; yMm: number }
  before: BushedBefore[]
  hole: Hole | undefined
  plate: Plate
  movement: Movement | undefined
  chosen: boolean
  unit: number
  x: (mm: number) => number
  /** only its rim is drawn, so that the photo’s own hole is seen through it */
  open: boolean
  onChoose: () => void
}) {
  const judged = hole && movement?.judged(hole)
  const r = Math.max(unit * 1.5, (hole?.shortAxisMm ?? 1) / 2)
  const expected = movement?.expected({ train: arbor.train, arbor: arbor.name, plate }) ?? null
  const wear = hole ? (wearOf(hole) ?? 0) : 0
  // Directions are as seen from the front; the back plate's drawing is its mirror image.
  const turn = (deg: number) => `rotate(${plate === 'back' ? -deg : deg})`
  const state = stateOf(hole, judged)
  const inner = r * (open ? 0.25 : 0.6)
  const press = (event: MouseEvent | KeyboardEvent) => {
    event.stopPropagation()
    onChoose()
  }
  return (
    <g
      transform={`translate(${x(arbor.xMm)} ${-arbor.yMm})`}
      role="button"
      tabIndex={-1}
      aria-label={`${arbor.name}, ${arbor.train} train: ${STATE_WORDS[state]}${before.map((b) => `, bushed on job ${b.jobNumber}`).join('')}`}
      aria-pressed={chosen}
      className={styles.hole}
      onClick={press}
      onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && press(e)}
    >
      <circle r={unit * 5.6} className={styles.touch} />
      {chosen && <circle r={unit * 3.8} className={styles.chosen} strokeWidth={unit / 2.5} />}
      {expected !== null && (
        <g transform={turn(expected)}>
          <path
            d={`M0 ${-r}V${-unit * 5.6}`}
            className={styles.expected}
            strokeWidth={unit / 2.6}
            strokeDasharray={`${0.9 * unit} ${0.7 * unit}`}
          />
          <circle cy={-unit * 6.2} r={unit * 0.7} className={styles.expectedEnd} strokeWidth={unit / 3.5} />
        </g>
      )}
      {hole?.wearDeg != null && wear > 0 && (
        <g transform={turn(hole.wearDeg)}>
          <path
            d={`M${-r} 0A${r} ${r} 0 0 0 ${r} 0L${r} ${-wear * WEAR_DRAWN}A${r} ${r} 0 0 0 ${-r} ${-wear * WEAR_DRAWN}Z`}
            className={open ? styles.openSlot : styles.slot}
            strokeWidth={unit / 3}
          />
          <path
            d={`M0 ${-r - wear * WEAR_DRAWN}v${-unit * 1.6}m${-unit * 0.8} ${unit}l${unit * 0.8} ${-unit * 1.4}l${unit * 0.8} ${unit * 1.4}z`}
            className={styles.wear}
            strokeWidth={unit / 3}
          />
        </g>
      )}
      <circle r={r} className={`${open ? styles.openBore : styles.bore} ${styles[state]}`} strokeWidth={unit / 2.2} />
      {state === 'must' && <circle r={inner} className={styles.mustMark} />}
      {state === 'watch' && (
        <path d={`M0 ${-inner}A${inner} ${inner} 0 0 1 0 ${inner}Z`} className={styles.watchMark} />
      )}
      {before.length > 0 && (
        <circle
          r={r * 2.1}
          className={styles.before}
          strokeWidth={unit / 4}
          strokeDasharray={`${unit / 2} ${unit / 2}`}
        />
      )}
      {state === 'bushed' && <circle r={r * 1.55} className={styles.bushed} strokeWidth={unit / 3} />}
      <text y={unit * 3 + r} textAnchor="middle" fontSize={unit * 2.9} className={styles.name}>
        {arbor.name}
      </text>
    </g>
  )
}

export const STATE_WORDS: Record<HoleState, string> = {
  open: 'not judged',
  must: 'to be bushed',
  watch: 'near the limit: do it now',
  sound: 'to be left',
  bushed: 'bushed',
  waived: 'not judged, waived',
}

/** What is worn, in words: how deep and which way. */
export function wearWords(hole: Hole): string | null {
  const wear = wearOf(hole)
  if (wear === null) return null
  const way = hole.wearDeg === null ? '' : ` toward ${formatClockDirection(hole.wearDeg)}`
  return `${wear.toFixed(2)} mm${way}`
}

export function hasPlace<A extends PlacedArbor>(arbor: A): arbor is A & { xMm: number; yMm: number } {
  return arbor.xMm !== null && arbor.yMm !== null
}

/** A place in words, with true minus signs. */
export function placeWords(xMm: number, yMm: number): string {
  return `x ${xMm.toFixed(2)}, y ${yMm.toFixed(2)}`.replaceAll('-', '−')
}

/** A tap is read to the hundredth; the caliper is surer. */
function round(mm: number): number {
  return Math.round(mm * 100) / 100
}
