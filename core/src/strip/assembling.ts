import { TRAIN_NAMES } from '../train/names.ts'
import { step, type WorkStep } from '../steps/step.ts'
import type { LoggedStep } from './assembly.ts'

/** A step of the log, as far as putting it back in asks. */
export interface TrayStep extends LoggedStep {
  tray: string
}

export type AssemblyItem<S> =
  | { kind: 'part'; key: string; part: S }
  | { kind: 'led'; key: string; step: WorkStep }
  | { kind: 'dry'; key: string; train: string }

/** Whether a part is one of the two plates, so that taking it off parts them. */
export function isPlate(part: string): boolean {
  return /\b(front|back|top|upper|bottom) plate\b/i.test(part) && !/screw|pin|nut|cover|name|dial/i.test(part)
}

/** By which key it is kept that a led step of the assembly was done. */
export function ledKey(key: string): string {
  return `assembly:${key}`
}

/** Whether a key keeps a led step of the assembly. */
export function isLed(key: string): boolean {
  return key.startsWith(ledKey(''))
}

/**
 * How a movement goes together again: its strip log read backwards, with what the log can't know between: the going train
 * alone and run dry before the others are in, the plate closed a little at a time, endshake at every arbor.
 *
 * What came out after a plate was between the plates; without a plate in the log, what lies in the trains’ trays was.
 *
 * @param arbors - names by train, from the great wheel up
 */
export function assemblyPlan<S extends TrayStep>(
  log: S[],
  trains: string[],
  arbors: Record<string, string[]>,
): AssemblyItem<S>[] {
  const back = [...log].sort((a, b) => b.position - a.position || (a.id < b.id ? 1 : -1))
  const plate = back.findLastIndex((s) => isPlate(s.part))
  const inside = plate < 0 ? back.filter((s) => s.tray !== 'case') : back.slice(0, plate)
  const outside = plate < 0 ? back.filter((s) => s.tray === 'case') : back.slice(plate)
  const first = trains.includes('going') ? 'going' : trains[0]
  const others = TRAIN_NAMES.filter((t) => t !== first && trains.includes(t))
  const of = (train: string | undefined) => inside.filter((s) => s.tray === train)
  const rest = inside.filter((s) => s.tray !== first && !others.some((t) => t === s.tray))
  const part = (s: S): AssemblyItem<S> => ({ kind: 'part', key: s.id, part: s })
  const led = (one: WorkStep): AssemblyItem<S> => ({ kind: 'led', key: one.key, step: one })
  const names = (train: string | undefined) => (train === undefined ? [] : (arbors[train] ?? []))
  if (first === undefined) return back.map(part)
  const closing = (which: string[], key: string) => [
    led(
      step(
        `caught-${key}`,
        'Plate on, nuts only just caught',
        'On two posts, a turn each: the plate must still give everywhere.',
        'Keep your fingers out from between the plates.',
      ),
    ),
    led(
      step(
        `pivots-${key}`,
        'Bring the pivots in, from the great wheels up',
        `With a thin tool, never forced; the plate closed a little after each. ${orderOf(which.flatMap(names))}`,
        'A pivot that is not in its hole breaks when the nut is turned.',
      ),
    ),
    led(
      step(
        `endshake-${key}`,
        'Endshake at every arbor, then the last nut',
        `Each arbor lifted and let fall before the nuts are tight. ${orderOf(which.flatMap(names))}`,
      ),
    ),
  ]
  return [
    led(
      step(
        'stand',
        'Front plate down on stand-offs',
        'The heaviest and lowest go in first, by the winding-arbor end; then up the train.',
        'Springs stay in their barrels or clamps: nothing is wound yet.',
      ),
    ),
    ...rest.map(part),
    ...of(first).map(part),
    ...(others.length === 0
      ? []
      : [
          ...closing([first], first),
          { kind: 'dry' as const, key: `dry-${first}`, train: first },
          led(
            step(
              'open-again',
              `Plate off again, the ${first} train stays`,
              `It ran alone. Now the ${others.join(' and ')} train, at its marks.`,
              'Let off whatever drove it, and prove it by hand, before a nut is loosened.',
            ),
          ),
          ...others.flatMap((t) => of(t).map(part)),
        ]),
    ...closing(others.length === 0 ? [first] : [first, ...others], 'all'),
    ...(others.length === 0 ? [{ kind: 'dry' as const, key: `dry-${first}`, train: first }] : []),
    ...outside.filter((s) => isPlate(s.part)).map(part),
    ...others.map((train) => ({ kind: 'dry' as const, key: `dry-${train}`, train })),
    ...outside.filter((s) => !isPlate(s.part)).map(part),
  ]
}

function orderOf(names: string[]): string {
  return names.length === 0 ? '' : `In turn: ${names.join(', ')}.`
}
