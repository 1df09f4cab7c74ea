import { step, type WorkStep } from '../steps/step.ts'

/** Away from where it stands, back to it, or the owner moves it without us. */
export const JOURNEYS = ['away', 'home', 'owner'] as const
export type JourneyWay = (typeof JOURNEYS)[number]

/** What of a clock says how it travels. */
export interface JourneyClock {
  kind: string
  trains: { train: string; power: string; weightKg?: number | null | undefined }[]
  mercury: boolean
  /** what came with it */
  things: { name: string; hung?: string | null | undefined; massKg?: number | null | undefined }[]
}

const HEAVY_KG = 4
const BACK = 'Lift with a straight back, the weight close to you; feet and fingers out from under it.'

/** What a person carries that is glass, gilt, silvered or polished is not touched with bare fingers. */
const BARE =
  'Gloves, or a clean cloth, for polished weights, bob, silvered or painted dial, gilt and lacquer: a finger’s mark etches in. A bare hand grips bare wood best.'

/**
 * The steps of a clock's journey, made from its own things: each what, which way round, and the caution where it applies.
 *
 * Away: hood off first, the pendulum last of what hangs. Home: the same turned round, ending where the set-up begins. The
 * owner's list is both, for a move without the workshop.
 */
export function journeySteps(clock: JourneyClock, way: JourneyWay): WorkStep[] {
  const leaving = way === 'home' ? [] : leave(clock)
  const carried = carry(clock, way)
  const coming = way === 'away' ? [] : arrive(clock)
  return [...leaving, ...carried, ...coming]
}

const isTall = ({ kind }: JourneyClock) => kind === 'longcase'
const isCarried = ({ kind }: JourneyClock) => ['mantel', 'shelf', 'bracket'].includes(kind)
const hasWeights = ({ trains }: JourneyClock) => trains.some((t) => t.power === 'weight')
const chimes = ({ trains }: JourneyClock) => trains.some((t) => t.train === 'chime')
const has = ({ things }: JourneyClock, word: RegExp) => things.some((t) => word.test(t.name))

function weightsSaid({ things, trains }: JourneyClock): { names: string; heaviest: number } {
  const named = things.filter((t) => /weight/i.test(t.name))
  const names = named.map((t) => (t.hung ? `${t.name} (${t.hung})` : t.name)).join(', ')
  const masses = [...named.map((t) => t.massKg ?? 0), ...trains.map((t) => t.weightKg ?? 0)]
  return { names, heaviest: Math.max(0, ...masses) }
}

function leave(clock: JourneyClock): WorkStep[] {
  const steps: WorkStep[] = [
    step(
      'pictures',
      'Take its picture where it stands',
      'The whole of it, its footing and packing, the wall behind it, the pendulum in its crutch, each line in its pulley.',
    ),
  ]
  if (isTall(clock))
    steps.push(
      step(
        'hood',
        'Hood off first',
        'Undo its catch inside the trunk, slide it forward level on its rails, and stand it face up on something soft.',
        'A second person holds the case: from here on it is top-heavy.',
      ),
    )
  if (hasWeights(clock)) {
    const { names, heaviest } = weightsSaid(clock)
    steps.push(
      step(
        'weights-height',
        'Weights two thirds up',
        'Wind, or let run, until they hang two thirds of the way up: they come off by hand there, and the lines stay on their barrels.',
      ),
      step(
        'weights-mark',
        'Mark each weight beneath',
        `A slip of paper or chalk under each says where it hung, left, middle or right as you face the dial${names === '' ? '' : `: ${names}`}. They look alike and seldom weigh alike.`,
      ),
      step(
        'weights-off',
        'Weights off, into socks',
        'Unhook each with a gloved hand under it. A sock or a soft bag for each; none travels in the case.',
        heaviest >= HEAVY_KG ? `The heaviest is ${heaviest} kg. ${BACK}` : BACK,
      ),
      step(
        'lines',
        'Hold the lines, wire the chains',
        'Lines: tape round the barrel so that no turn jumps off. Chains: a wire through the links close under the movement, so that none runs out of its wheel. Pulleys in a bag, marked.',
      ),
    )
  } else
    steps.push(
      step(
        'springs',
        'Leave the springs as they are',
        'Do not let them down for a short way; stop the clock first. A key in its own bag, tied to the case.',
      ),
    )
  if (chimes(clock) || has(clock, /rod/i))
    steps.push(
      step(
        'rods',
        'Chime rods guarded',
        'A soft wedge of paper between rods and hammers, and the rods tied toward the wall of the case: a knock breaks them at the block.',
      ),
    )
  if (isTall(clock) || clock.kind === 'wall')
    steps.push(
      step(
        'seat',
        'Mark movement and seat board',
        'A pencil line on seat board and cheeks, where the movement stands; old screw holes beside it. So it comes back in the middle of its mask.',
      ),
    )
  steps.push(
    step(
      'pendulum',
      'Pendulum off last',
      `Steady the crutch with one finger, lift the rod off its suspension and lead it out straight.${isCarried(clock) ? ' Where it can’t come off, the bob is packed against the movement.' : ''} It steadied the movement until now: hold that.`,
      clock.mercury
        ? 'This bob holds mercury: it is not tipped, laid down or carried as it is. Go through its own steps first.'
        : undefined,
    ),
    step(
      'suspension',
      'Guard the suspension spring',
      'A splint of card along it, or off its cock into a stiff envelope. A kinked one is a new one.',
    ),
  )
  if (isTall(clock))
    steps.push(
      step(
        'movement',
        'Movement out on its seat board',
        'With dial and seat board in one piece, forward and up; dial toward you, hands clear. Into a box that holds it by the seat board, upright.',
        `Two people: one holds the case, one lifts. ${BACK}`,
      ),
    )
  steps.push(
    step(
      'loose',
      'All that is loose, in one box',
      `Key, crank, finials, door key, packing and wedges, screws in a bag.${clock.things.length === 0 ? '' : ` It has: ${clock.things.map((t) => t.name).join(', ')}.`}`,
    ),
  )
  return steps
}

function carry(clock: JourneyClock, way: JourneyWay): WorkStep[] {
  const steps = [step('bare', 'Gloves on', BARE)]
  if (isTall(clock))
    steps.push(
      step(
        'case',
        'The case, empty, by two',
        'Doors locked or tied, on its back on blankets, nothing inside.',
        'Two people, always: its weight is high, its feet and mouldings break. Fix it to the wall again before anything heavy goes in.',
      ),
    )
  else if (isCarried(clock))
    steps.push(
      step(
        'carried',
        'Carried tipped forward',
        'Both hands under its base, face a little down, so that the bob lies against the movement and hangs on nothing; or with its pendulum off. Never by its handle, its columns or its door.',
      ),
    )
  else
    steps.push(
      step(
        'carried',
        'Carried upright',
        'One hand under it, one at its back; its glass away from your knees. Heavy ones by two.',
      ),
    )
  steps.push(
    step(
      'car',
      way === 'owner' ? 'On the way' : 'In the van',
      `Movement upright and strapped, dial away from anything that shifts; weights on the floor; pendulum flat on its own board, tied at rod and bob${clock.mercury ? ', its jar empty' : ''}. Not in the cold or the sun longer than need be.`,
    ),
  )
  return steps
}

function arrive(clock: JourneyClock): WorkStep[] {
  return [
    step('room', 'Let it come to the room', 'From the cold, an hour before it is opened: brass and steel draw damp.'),
    step(
      'unpack',
      'Nothing is left in the boxes',
      `Tick it against what left${clock.things.length === 0 ? '' : `: ${clock.things.map((t) => t.name).join(', ')}`}.`,
    ),
    step(
      'onward',
      'Pendulum first, weights after, hood last',
      'As it came down, turned round: case fixed, movement on its marks, pendulum on before any weight, each weight where its mark says, the hood when it runs.',
    ),
  ]
}
