/** A mesh or a place that can't be found again once the plates are apart. */
export interface MeshMark {
  key: string
  what: string
  why: string
}

/** What a clock's work has, as far as its marks ask. */
export interface MarkedWork {
  trains: { train: string; power: string }[]
  /** how the strike counts; null when it has none or nobody has looked */
  strikeWork: 'count-wheel' | 'rack' | null
  moon: boolean
  calendar: boolean
  /** has it a pendulum of its own with a nut */
  pendulum: boolean
}

/** The marks to make, or to waive with a reason, before the plates of this clock are parted. */
export function meshMarks({ trains, strikeWork, moon, calendar, pendulum }: MarkedWork): MeshMark[] {
  const strikes = trains.some((t) => t.train === 'strike')
  const chimes = trains.some((t) => t.train === 'chime')
  return [
    mark('clicks', 'Direction of each click and ratchet', 'A click put back the other way lets the spring go.'),
    ...(pendulum
      ? [mark('nut', 'Position of the rating nut, in turns from the end of the thread', 'The rate is found again.')]
      : []),
    ...(strikes
      ? [
          mark('strike-lock', 'Strike: where the locking wheel stands at rest', 'It must lock at the end of a blow.'),
          mark('warning', 'Strike: the warning pin’s part-turn from its lever', 'Too little, and it runs on.'),
        ]
      : []),
    ...(strikes && strikeWork !== 'rack'
      ? [mark('count-wheel', 'Count wheel: which way it faces and turns', 'Turned about, it counts backward.')]
      : []),
    ...(strikes && strikeWork !== 'count-wheel'
      ? [mark('gathering-pallet', 'Gathering pallet: how it stands on its square', 'Set wrong, it holds the rack.')]
      : []),
    ...(chimes
      ? [mark('chime', 'Chime: drum to locking plate, and the quarter it stands at', 'Else the tunes begin midway.')]
      : []),
    ...(moon ? [mark('moon', 'Moon: the tooth that stands in the driver, and its age', 'Its change jams.')] : []),
    ...(calendar ? [mark('calendar', 'Calendar: the date and the tooth at rest', 'It changes at noon instead.')] : []),
  ]
}

function mark(key: string, what: string, why: string): MeshMark {
  return { key, what, why }
}
