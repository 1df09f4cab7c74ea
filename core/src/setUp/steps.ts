import { step, type WorkStep } from '../steps/step.ts'

/** What of a clock says how it is set up in its place. */
export interface SetUpClock {
  kind: string
  trains: { train: string; power: string }[]
  work: { moon: boolean; calendar: boolean; mercury: boolean }
}

/** What a step asks besides being done. */
export type SetUpAsks = 'picture' | 'settle' | 'beat' | 'rate' | 'hands' | 'moon' | 'mercury' | null

export interface SetUpStep extends WorkStep {
  asks: SetUpAsks
  /** what a press says is so, after “Press when ” */
  when: string
}

/** So long an arc settles after the pendulum was touched, minutes. */
export const SETTLE_MINUTES = 10

function led(
  key: string,
  when: string,
  title: string,
  does: string,
  { caution, asks = null }: { caution?: string; asks?: SetUpAsks } = {},
): SetUpStep {
  return { ...step(key, title, does, caution), when, asks }
}

/**
 * The walk that sets a clock up where it will stand: footing, movement, pendulum, weights, beat in place, hands, moon.
 *
 * @param levelFirst - school: the case plumb first and the beat set there; else the footing is taken as it is
 */
export function setUpSteps(clock: SetUpClock, levelFirst: boolean): SetUpStep[] {
  const tall = clock.kind === 'longcase'
  const hangs = clock.kind === 'wall'
  const weights = clock.trains.some((t) => t.power === 'weight')
  return [
    place(tall, hangs),
    ...footing(tall, hangs),
    levelFirst
      ? led(
          'plumb',
          'it is plumb',
          'Plumb it by a level',
          `Across ${hangs ? 'its top and down its side' : 'the case and front to back'}, until the bubble is in the middle both ways.`,
        )
      : led(
          'firm',
          'it stands without rocking',
          'Firm, as it stands',
          'Not a hair of rocking: push it at the top with a finger. Level to the eye is enough; the beat is set to the footing.',
        ),
    ...(clock.work.mercury
      ? [
          led(
            'mercury',
            'its jar is filled and capped',
            'Mercury into its jar',
            'Only after the case is fixed, over a sided tray, by who may: its own steps say how.',
            { asks: 'mercury', caution: 'Mercury gives off a vapour that harms, and spilt it runs everywhere.' },
          ),
        ]
      : []),
    ...(tall || hangs
      ? [
          led(
            'movement',
            'the dial is in the middle of its mask',
            'Movement in, dial in its mask',
            'On its old marks or screw holes; the gap round the dial even in the mask of hood or door.',
            tall
              ? { caution: 'Until the pendulum hangs it may tip forward: hold it. A second person holds the case.' }
              : {},
          ),
        ]
      : []),
    led(
      'pendulum',
      'the rod is free in the crutch',
      'Pendulum first',
      'Onto its suspension, the rod in the middle of the crutch with just free clearance, the bob clear of case and weights right through its swing.',
    ),
    ...(weights
      ? [
          led(
            'weights',
            'each weight hangs on its own line',
            'Then the weights',
            'Each on the line that its mark says, the line in its pulley and on its barrel, none against the case.',
            { caution: 'Lift with a straight back; feet out from under; gloves on polished weights.' },
          ),
        ]
      : [
          led(
            'wind',
            'it is wound',
            'Wind it',
            'Every square, gently, to the stop, the case held with the other hand.',
          ),
        ]),
    led(
      'going',
      'it swings well past the drop',
      'Set it going',
      'A little farther than it needs, straight, with no twist.',
    ),
    led(
      'beat',
      'it is even',
      'Beat, in place',
      'By ear, then by instrument, on its final footing. Card under a foot, a wedge under the seat board, or the crutch: each has its own lever arm.',
      { asks: 'beat' },
    ),
    led(
      'settle',
      'it has had its minutes',
      'Let the arc settle',
      `${SETTLE_MINUTES} minutes untouched, then hear it again: only then is it judged, and held against how it ran on the stand.`,
      { asks: 'settle' },
    ),
    led(
      'footing-picture',
      'the picture is taken',
      'A picture of the footing',
      'Feet, packing, wedge, wall fixing: when it is called in again, this tells whether somebody moved it.',
      { asks: 'picture' },
    ),
    led(
      'hands',
      'it shows and strikes the time',
      'Hands and strike',
      'The way of least work, each hour let finish; resistance: stop, and go the other way.',
      { asks: 'hands' },
    ),
    ...(clock.work.moon || clock.work.calendar
      ? [
          led('moon', 'moon and date are right', 'Moon and date', 'Forward, click by click, never near their change.', {
            asks: 'moon',
          }),
        ]
      : []),
    led(
      'rate',
      'the nut is as it should be',
      'The rate to expect here',
      'Gravity, height and the warmth of the room change it by a known amount; leave the nut until a reading says so.',
      { asks: 'rate' },
    ),
    led(
      'last',
      'hood and door are shut',
      tall ? 'Hood last' : 'Shut it',
      'Nothing rubs: hands clear of the glass, weights of the door. Key and crank where the owner finds them.',
    ),
  ]
}

function place(tall: boolean, hangs: boolean): SetUpStep {
  return led(
    'place',
    'it has a good place',
    hangs ? 'The wall' : 'The floor',
    hangs
      ? 'A solid wall that does not shake when a door shuts. No sun, radiator, chimney or draught.'
      : `Solid and level: not on deep carpet${tall ? '' : ', a cupboard with drawers or a piano'}. No sun, radiator, stove or draught; no door that shakes it.`,
  )
}

function footing(tall: boolean, hangs: boolean): SetUpStep[] {
  if (hangs)
    return [
      led(
        'holes',
        'you have looked for old holes',
        'Old holes first',
        'In the case’s back and in the wall: they tell where it hung. No pipe and no wire behind a new one.',
        { caution: 'Before you drill: find pipes and wires with a detector; if in doubt ask an electrician.' },
      ),
      led(
        'points',
        'it holds at three points',
        'Three points',
        'A hook that bears the whole clock with its weights, and two pins or screws at the foot, so that no winding swings it.',
      ),
    ]
  if (!tall) return []
  return [
    led(
      'holes',
      'you have looked for old holes',
      'Old holes first',
      'In the backboard and in the wall: they tell how high and how far off it was fixed.',
      { caution: 'Before you drill: find pipes and wires with a detector; if in doubt ask an electrician.' },
    ),
    led(
      'spacer',
      'it is fixed to the wall',
      'Spacer, and fixed to the wall',
      'A block as thick as the skirting between wall and backboard, screwed through both at shoulder height. A case that sways with its pendulum stops when the weights hang beside the bob.',
      { caution: 'A tall case that is not fixed falls on whoever opens its door. A second person holds it.' },
    ),
  ]
}
