import { DEFAULT_SETTINGS, EMPTY_PENDULUM, PLAIN_WORK } from '@treadle/contract'
import type { NewClock, NewJob, Owner, Settings, Work } from '@treadle/contract'
import { demoId } from './api.ts'

/** The made-up island of Ternholm, its workshop and its clocks. */
export const PEOPLE = [
  { id: demoId('ida'), name: 'Ida Vos', initials: 'IV', active: true, version: 0 },
  { id: demoId('rasmus'), name: 'Rasmus Oake', initials: 'RO', active: true, version: 0 },
]

export const SETTINGS: Settings = {
  ...DEFAULT_SETTINGS,
  version: 0,
  workshop: 'Ternholm clock workshop',
  place: 'Ternholm, above the slip',
  latitudeDeg: 57.2,
  altitudeM: 12,
  phone: 'Ternholm 14',
  taxPercent: '20',
  depositPercent: '30',
  rateToleranceSecondsPerDay: 5,
}

export const owner = (key: string, name: string, address: string): Owner => ({
  id: demoId(`owner ${key}`),
  name,
  address,
  phone: '',
})

const OWNERS = {
  harbour: owner('harbour', 'Harbour office', 'Long Quay 1, Ternholm'),
  school: owner('school', 'Ternholm schoolhouse', 'Upper Lane, Ternholm'),
  chapel: owner('chapel', 'Chapel wardens', 'Chapel Hill, Ternholm'),
  cafe: owner('cafe', 'Café on the slip', 'The Slip 4, Ternholm'),
  post: owner('post', 'Post room', 'Long Quay 9, Ternholm'),
  ferry: owner('ferry', 'Ferry house', 'East Landing, Ternholm'),
  rooms: owner('rooms', 'Assembly rooms', 'Long Quay 20, Ternholm'),
  nursery: owner('nursery', 'Mrs. P. Hallam', 'Net Loft 2, Ternholm'),
  row: owner('row', 'Miss A. Tarn', 'Gull Row 4, Ternholm'),
  keeper: owner('keeper', 'The light-keeper', 'Keeper’s cottage, North Head'),
}

export const clock = (key: string, rest: Omit<NewClock, 'id' | 'work'> & { work?: Partial<Work> }): NewClock => ({
  id: demoId(`clock ${key}`),
  ...rest,
  work: { ...PLAIN_WORK, ...rest.work },
})

const DRUM_SPRING = { widthMm: 16, thicknessMm: 0.34, lengthMm: 1250, barrelInsideMm: 36, arborMm: 11 }

const CLOCKS = {
  regulator: clock('regulator', {
    work: { mercury: true },
    name: 'Harbour regulator',
    kind: 'wall',
    marks: 'Scratched inside the case: “No. 3, H.O.” No maker’s name.',
    trains: [{ train: 'going', power: 'weight', weightKg: 3.2, fallMm: 850 }],
    home: { latitudeDeg: 57.2, altitudeM: 4, winterC: 11, summerC: 21 },
    pendulum: {
      ...EMPTY_PENDULUM,
      beatsPerHour: 3600,
      lengthMm: 994,
      pitchMm: 0.8,
      semiArcDeg: 2,
      releaseDeg: 1,
      crutchLengthMm: 160,
      caseHeightMm: 1250,
      escapeTeeth: 30,
      windsEveryDays: 7,
    },
  }),
  school: clock('school', {
    name: 'School dial',
    kind: 'wall',
    marks: 'Painted dial, repainted once. Penciled dates behind it.',
    trains: [{ train: 'going', power: 'spring' }],
    pendulum: {
      ...EMPTY_PENDULUM,
      beatsPerHour: 7200,
      lengthMm: 248,
      pitchMm: 0.7,
      semiArcDeg: 5,
      releaseDeg: 2,
      crutchLengthMm: 115,
      footSpacingMm: 300,
      caseHeightMm: 420,
      escapeTeeth: 30,
      windsEveryDays: 7,
    },
  }),
  chapel: clock('chapel', {
    work: { strikeWork: 'count-wheel' },
    name: 'Chapel tower clock',
    kind: 'tower',
    marks: 'Flat bed of cast iron; a smith’s mark like a fish on the setting dial.',
    trains: [
      { train: 'going', power: 'weight', weightKg: 62, fallMm: 9000 },
      { train: 'strike', power: 'weight', weightKg: 85, fallMm: 9000 },
    ],
    pendulum: {
      ...EMPTY_PENDULUM,
      beatsPerHour: 2880,
      lengthMm: 1552,
      pitchMm: 1.5,
      semiArcDeg: 2.2,
      releaseDeg: 1,
      crutchLengthMm: 420,
      escapeTeeth: 40,
      windsEveryDays: 7,
    },
  }),
  cafe: clock('cafe', {
    work: {
      strikeWork: 'rack',
      moon: true,
      strike: { kind: 'rack', halves: 'none', pinArbor: 1, pins: 8, lockingArbor: 2 },
    },
    name: 'Long café clock',
    kind: 'longcase',
    marks: 'Provincial, tall pine case, pendulum with a pressed brass front.',
    trains: [
      { train: 'going', power: 'weight' },
      { train: 'strike', power: 'weight' },
    ],
    pendulum: {
      ...EMPTY_PENDULUM,
      beatsPerHour: 3600,
      lengthMm: 994,
      pitchMm: 1,
      semiArcDeg: 2.5,
      releaseDeg: 1.2,
      crutchLengthMm: 150,
      footSpacingMm: 330,
      escapeTeeth: 30,
      windsEveryDays: 7,
    },
  }),
  drum: clock('drum', {
    work: {
      strikeWork: 'count-wheel',
      strike: { kind: 'count-outside', halves: 'one', pinArbor: 1, pins: 10, lockingArbor: 2 },
    },
    name: 'Round-top drum clock',
    kind: 'mantel',
    marks: 'Back plate numbered 1184, pendulum the same.',
    trains: [
      { train: 'going', power: 'spring', spring: DRUM_SPRING },
      { train: 'strike', power: 'spring', spring: DRUM_SPRING },
    ],
    pendulum: {
      ...EMPTY_PENDULUM,
      beatsPerHour: 9000,
      lengthMm: 159,
      pitchMm: 0.6,
      semiArcDeg: 5,
      releaseDeg: null,
      crutchLengthMm: 45,
      footSpacingMm: 190,
      escapeTeeth: 30,
      windsEveryDays: 14,
    },
  }),
  chimer: clock('chimer', {
    work: { strikeWork: 'rack', strike: { kind: 'chime', halves: 'none', pinArbor: 1, pins: 10, lockingArbor: 2 } },
    name: 'Assembly-room chiming clock',
    kind: 'mantel',
    marks: 'Three winding squares; five rods, one of them lately replaced.',
    trains: [
      { train: 'going', power: 'spring' },
      { train: 'strike', power: 'spring' },
      { train: 'chime', power: 'spring' },
    ],
    pendulum: {
      ...EMPTY_PENDULUM,
      beatsPerHour: 7200,
      lengthMm: 248,
      pitchMm: 0.7,
      semiArcDeg: 4.5,
      releaseDeg: 2,
      crutchLengthMm: 70,
      footSpacingMm: 260,
      escapeTeeth: 30,
      windsEveryDays: 7,
    },
  }),
  bird: clock('bird', {
    work: {
      strikeWork: 'count-wheel',
      strike: { kind: 'bird-two', halves: 'one', pinArbor: 1, pins: 6, lockingArbor: 2 },
    },
    name: 'Net-loft bird clock',
    kind: 'wall',
    marks: 'Carved leaves, one antler lost. The bird repainted blue by a child.',
    trains: [
      { train: 'going', power: 'weight', weightKg: 0.32, fallMm: 1500 },
      { train: 'strike', power: 'weight', weightKg: 0.32, fallMm: 1500 },
    ],
    pendulum: {
      ...EMPTY_PENDULUM,
      beatsPerHour: 9000,
      lengthMm: 159,
      semiArcDeg: 6,
      releaseDeg: 2.5,
      crutchLengthMm: 40,
      caseHeightMm: 300,
      windsEveryDays: 1,
    },
  }),
  ferry: clock('ferry', {
    name: 'Ferry-house wall clock',
    kind: 'wall',
    marks: 'Thirty-hour, thin plates; an old solder blob on the back plate.',
    trains: [{ train: 'going', power: 'weight' }],
    pendulum: {
      ...EMPTY_PENDULUM,
      beatsPerHour: 5400,
      lengthMm: 441,
      pitchMm: 0.9,
      semiArcDeg: 3.5,
      releaseDeg: 1.5,
      crutchLengthMm: 90,
      caseHeightMm: 520,
      windsEveryDays: 1,
    },
  }),
  shelf: clock('shelf', {
    name: 'Lantern-top shelf clock',
    kind: 'shelf',
    marks: '',
    trains: [
      { train: 'going', power: 'open-spring' },
      { train: 'strike', power: 'open-spring' },
    ],
    pendulum: { ...EMPTY_PENDULUM, windsEveryDays: 8 },
  }),
  bracket: clock('bracket', {
    name: 'Light-keeper’s bracket clock',
    kind: 'bracket',
    marks: 'Engraved back plate, a gull among the leaves.',
    trains: [{ train: 'going', power: 'fusee' }],
    pendulum: {
      ...EMPTY_PENDULUM,
      beatsPerHour: 7200,
      lengthMm: 248,
      pitchMm: 0.7,
      semiArcDeg: 4,
      releaseDeg: 2,
      crutchLengthMm: 80,
      footSpacingMm: 240,
      escapeTeeth: 30,
      windsEveryDays: 7,
    },
  }),
}

/** What the owners told. */
const AT_HOME: Record<string, Pick<NewJob, 'standsAt' | 'movedLately' | 'lastServiced'>> = {
  school: { standsAt: 'Schoolroom wall, now between the windows', movedLately: 'yes', lastServiced: 2021 },
  drum: { standsAt: 'Counter of the post room, above the stove pipe', movedLately: 'no', lastServiced: null },
  ferry: { standsAt: 'Ferry-house wall, damp side', movedLately: 'no', lastServiced: 2009 },
  cafe: { standsAt: 'Floor of the café, by the door to the slip', movedLately: 'no', lastServiced: 2017 },
  chimer: {
    standsAt: 'Mantel of the long room, over a fire that is lit on Saturdays',
    movedLately: 'no',
    lastServiced: 2014,
  },
  bird: { standsAt: 'Above the stairs of the net loft', movedLately: 'no', lastServiced: null },
  shelf: { standsAt: 'A sideboard with drawers', movedLately: 'yes', lastServiced: null },
}

export const things = (...names: string[]) =>
  names.map((name) => ({ name, state: 'present' as const, returned: false }))

export const job = (
  key: string,
  clockOf: NewClock,
  ownerOf: Owner,
  complaint: string,
  cameWith: NewJob['cameWith'],
  promisedOn: string | null = null,
): NewJob => ({
  id: demoId(`job ${key}`),
  owner: ownerOf,
  clock: clockOf,
  complaint,
  cameWith,
  promisedOn,
  ...(AT_HOME[key] ?? { standsAt: '', movedLately: 'unknown', lastServiced: null }),
})

/** The visits of the demo, by name. */
export function jobsOfTheDemo(dayFromNow: (days: number) => string) {
  return {
    regulatorBefore: job(
      'regulator before',
      CLOCKS.regulator,
      OWNERS.harbour,
      'It loses, and the ferry blames us.',
      things('crank', 'weight', 'door key'),
    ),
    regulator: job(
      'regulator',
      CLOCKS.regulator,
      OWNERS.harbour,
      'Four years since it was last seen to. Loses half a minute a day.',
      things('crank', 'weight', 'door key'),
      dayFromNow(9),
    ),
    school: job(
      'school',
      CLOCKS.school,
      OWNERS.school,
      'Limps since the caretaker moved it to the other wall.',
      things('key', 'pendulum'),
      dayFromNow(5),
    ),
    chapel: job(
      'chapel',
      CLOCKS.chapel,
      OWNERS.chapel,
      'Stops in frost. The strike has been silent since Candlemas.',
      [
        ...things('crank'),
        { name: 'going weight', state: 'present', returned: false, hung: 'left line', massKg: 62 },
        { name: 'strike weight', state: 'present', returned: false, hung: 'right line', massKg: 85 },
      ],
      dayFromNow(60),
    ),
    cafe: job(
      'cafe',
      CLOCKS.cafe,
      OWNERS.cafe,
      'Stops on Sundays, when the place is full.',
      [
        ...things('pendulum', 'hood', 'door key'),
        { name: 'left weight', state: 'present', returned: false, hung: 'strike', massKg: 5.4 },
        { name: 'right weight', state: 'present', returned: false, hung: 'going', massKg: 4.9 },
        { name: 'finials', state: 'damaged', returned: false },
      ],
      dayFromNow(3),
    ),
    drum: job(
      'drum',
      CLOCKS.drum,
      OWNERS.post,
      'Stopped after forty years. Somebody oiled it from a can.',
      things('key', 'pendulum', 'bell', 'glass dome'),
      dayFromNow(20),
    ),
    ferry: job(
      'ferry',
      CLOCKS.ferry,
      OWNERS.ferry,
      'Needs a bunch of keys on the weight to keep going.',
      things('weight', 'chain', 'pendulum'),
      dayFromNow(25),
    ),
    chimer: job(
      'chimer',
      CLOCKS.chimer,
      OWNERS.rooms,
      'It chimed the quarters late, and then stopped at all of them.',
      things('key', 'pendulum', 'glass'),
      dayFromNow(8),
    ),
    bird: job(
      'bird',
      CLOCKS.bird,
      OWNERS.nursery,
      'The bird calls when it likes, and never at bedtime.',
      [
        ...things('pendulum'),
        { name: 'weight', state: 'present', returned: false, hung: 'left chain', massKg: 0.32 },
        { name: 'weight', state: 'present', returned: false, hung: 'right chain', massKg: 0.32 },
      ],
      dayFromNow(12),
    ),
    shelf: job(
      'shelf',
      CLOCKS.shelf,
      OWNERS.row,
      'It was my aunt’s. It has not gone since she did.',
      things('key', 'pendulum'),
    ),
    bracket: job(
      'bracket',
      CLOCKS.bracket,
      OWNERS.keeper,
      'A service, as every five years. It has been good company.',
      things('key', 'pendulum', 'papers'),
      dayFromNow(1),
    ),
  }
}
