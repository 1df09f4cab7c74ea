/** A cause of stopping, and how often a workshop meets it: weights, taken as shares of their sum. */
export interface TroubleCause {
  key: string
  title: string
  weight: number
  remark: string
}

/** Something that can be seen or tried, and how likely it is to be so under each cause. */
export interface TroubleCheck {
  key: string
  /** a question answered yes or no, or asking for years */
  question: string
  /** what to do to find out, and how many minutes that takes */
  how: string
  minutes: number
  /** where an answer falls: yes and no, or spans of years that end at these */
  yearsUpTo: number[] | null
  /** chance of each answer under a cause, in the order of the answers; a cause not named has those of `otherwise` */
  given: Record<string, number[]>
  otherwise: number[]
}

export interface TroubleTable {
  causes: TroubleCause[]
  checks: TroubleCheck[]
}

const cause = (key: string, title: string, weight: number, remark: string): TroubleCause => ({
  key,
  title,
  weight,
  remark,
})

const yesNo = (
  key: string,
  question: string,
  how: string,
  minutes: number,
  otherwise: number,
  given: Record<string, number>,
): TroubleCheck => ({
  key,
  question,
  how,
  minutes,
  yearsUpTo: null,
  otherwise: [otherwise, round(1 - otherwise)],
  given: Object.fromEntries(Object.entries(given).map(([c, p]) => [c, [p, round(1 - p)]])),
})

/**
 * The craft's list of likely causes, with shares and chances that are workshop rules of thumb: no published counts
 * stand behind them. They rank; they do not prove. The workshop changes them, and its own confirmed causes sharpen the
 * shares.
 */
export const DEFAULT_TROUBLE_TABLE: TroubleTable = {
  causes: [
    cause('beat-out', 'It is out of beat', 18, 'Moved or levelled anew: the first thing to hear.'),
    cause('hands-rub', 'A hand rubs on hand, dial or glass', 7, 'Look from the side, hour by hour.'),
    cause('crutch-rubs', 'The crutch rubs or has no free clearance', 4, 'The rod stands in the middle of the fork.'),
    cause('weight-or-line', 'A weight touches the case, or its line is off', 5, 'Often near the bottom of the fall.'),
    cause('no-power', 'Power is not let through: barrel, click or line', 6, 'Wound, and yet the great wheel is slack.'),
    cause('suspension', 'The suspension is kinked or makeshift', 6, 'It makes the bob wobble or twist.'),
    cause('pendulum-touches', 'The pendulum touches case or weights', 5, 'Seen from the side as well as the front.'),
    cause(
      'strike-in-warning',
      'The strike is stuck in warning',
      4,
      'It stops the going train within minutes of the hour.',
    ),
    cause('oil-dry', 'The oil is dry or has gummed', 14, 'After long neglect: inspect before oiling.'),
    cause('dirt', 'Dirt in the teeth or the holes', 8, 'Black sinks, fluff in the pinions.'),
    cause('worn-holes', 'Holes are worn', 10, 'Which one shows by its shake with the power on.'),
    cause('bent-tooth', 'A tooth of the escape wheel is bent', 2, 'It comes back at each turn of the wheel.'),
    cause('bent-pivot', 'A pivot is bent', 2, 'It binds once a turn of its arbor.'),
    cause('pallet-depth', 'The pallets are too deep or too shallow', 3, 'Uneven drop, or a tooth that catches.'),
    cause('moon-calendar', 'The moon or calendar work at its change', 2, 'Only at the change, a few hours each day.'),
    cause('cold-oil', 'Too cold for its oil', 2, 'Goes again when the room warms.'),
    cause('another', 'Something that is not on this list', 4, 'Kept so that the list never claims to be whole.'),
  ],
  checks: [
    yesNo('movedLately', 'Was it moved lately?', 'Ask the owner.', 1, 0.2, {
      'beat-out': 0.75,
      suspension: 0.5,
      'pendulum-touches': 0.55,
      'weight-or-line': 0.4,
      'crutch-rubs': 0.35,
    }),
    yesNo('ranUntilMoved', 'Did it run until it was moved, and not since?', 'Ask the owner.', 1, 0.05, {
      'beat-out': 0.95,
      suspension: 0.2,
      'pendulum-touches': 0.2,
      'weight-or-line': 0.12,
    }),
    yesNo('evenBeat', 'Is the beat even?', 'Hear it for a minute.', 2, 0.85, {
      'beat-out': 0.03,
      'bent-tooth': 0.5,
      suspension: 0.6,
      'pallet-depth': 0.65,
      'crutch-rubs': 0.65,
    }),
    yesNo('tiltCures', 'Does tilting the case make it go?', 'Lift one side, then the other, and listen.', 4, 0.08, {
      'beat-out': 0.92,
      'pendulum-touches': 0.4,
      'weight-or-line': 0.25,
    }),
    yesNo(
      'stopsSamePlace',
      'Does it stop at the same place each time?',
      'Note the hands and mark the escape wheel at two stops.',
      15,
      0.12,
      {
        'bent-tooth': 0.9,
        'bent-pivot': 0.7,
        'hands-rub': 0.65,
        'strike-in-warning': 0.6,
        'moon-calendar': 0.7,
        dirt: 0.4,
      },
    ),
    yesNo('needsExtraDrive', 'Does it need more than its own drive?', 'Drive margin: add or take weight.', 10, 0.2, {
      'worn-holes': 0.8,
      'oil-dry': 0.7,
      dirt: 0.7,
      'pallet-depth': 0.5,
      'bent-pivot': 0.6,
      'cold-oil': 0.6,
      'no-power': 0.7,
      'beat-out': 0.15,
    }),
    yesNo(
      'stopsInWarning',
      'Does it stop just before the hour or half?',
      'See where the minute hand stands.',
      2,
      0.06,
      {
        'strike-in-warning': 0.92,
        'oil-dry': 0.12,
      },
    ),
    yesNo('stopsAtMoonChange', 'Does it stop while moon or calendar change?', 'See where they stand.', 2, 0.03, {
      'moon-calendar': 0.9,
    }),
    yesNo('worseCold', 'Is it worse in the cold?', 'Ask, and compare with the room.', 2, 0.15, {
      'cold-oil': 0.95,
      'oil-dry': 0.55,
      dirt: 0.3,
    }),
    {
      key: 'yearsSinceOil',
      question: 'Years since it was oiled',
      how: 'Ask the owner, and read our own record.',
      minutes: 1,
      yearsUpTo: [3, 6],
      otherwise: [0.42, 0.33, 0.25],
      given: {
        'oil-dry': [0.06, 0.22, 0.72],
        dirt: [0.2, 0.3, 0.5],
        'worn-holes': [0.22, 0.3, 0.48],
        'cold-oil': [0.2, 0.35, 0.45],
      },
    },
    yesNo(
      'handsClear',
      'Are the hands free of each other, dial and glass?',
      'Look from the side right round.',
      2,
      0.96,
      {
        'hands-rub': 0.06,
      },
    ),
    yesNo('crutchFree', 'Has the rod free clearance in the crutch?', 'Try it with a slip of paper.', 1, 0.96, {
      'crutch-rubs': 0.08,
      suspension: 0.85,
    }),
    yesNo('weightsFree', 'Do weights and lines hang free?', 'Look down the whole fall.', 2, 0.96, {
      'weight-or-line': 0.08,
    }),
    yesNo(
      'powerArrives',
      'Does the power reach the great wheel?',
      'Feel the great wheel, click and line, power on.',
      3,
      0.95,
      {
        'no-power': 0.06,
      },
    ),
    yesNo('suspensionStraight', 'Is the suspension straight and its own?', 'Look at it from front and side.', 2, 0.93, {
      suspension: 0.08,
    }),
    yesNo('pendulumClear', 'Does the pendulum swing clear?', 'Watch from front and side at full arc.', 2, 0.97, {
      'pendulum-touches': 0.06,
    }),
    yesNo(
      'holesShake',
      'Does an arbor shake in its hole with the power on?',
      'Rock the great wheel and watch.',
      6,
      0.25,
      {
        'worn-holes': 0.93,
      },
    ),
    yesNo('teethDirty', 'Is there dirt in teeth or sinks?', 'Loupe, pinions first.', 4, 0.3, {
      dirt: 0.95,
      'oil-dry': 0.6,
      'worn-holes': 0.5,
    }),
    yesNo(
      'beatComesBack',
      'Does an unevenness come back at each turn of a wheel?',
      'Hear it with the teeth folded.',
      5,
      0.08,
      {
        'bent-tooth': 0.92,
        'bent-pivot': 0.35,
      },
    ),
  ],
}

function round(p: number): number {
  return Math.round(p * 1e6) / 1e6
}
