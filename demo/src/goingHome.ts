import { EMPTY_PENDULUM, USUAL_CARD } from '@treadle/contract'
import { clock, job, owner, things } from './island.ts'

const CUSTOMS = {
  ...clock('customs', {
    work: {
      strikeWork: 'count-wheel',
      moon: true,
      calendar: true,
      strike: { kind: 'count-outside', halves: 'none', pinArbor: 1, pins: 8, lockingArbor: 2 },
      moonWork: { state: 'works', clicksPerLunation: null, southern: false, tideMinutes: 690 },
      calendarWork: { state: 'works' },
    },
    name: 'Custom-house tall clock',
    kind: 'longcase',
    marks: 'Painted dial, ships in its corners; “C.H.” chalked inside the trunk. A ring of tides about the moon.',
    trains: [
      { train: 'going', power: 'weight', weightKg: 5.1, fallMm: 1400 },
      { train: 'strike', power: 'weight', weightKg: 5.6, fallMm: 1400 },
    ],
    home: { latitudeDeg: 57.3, altitudeM: 38, winterC: 12, summerC: 19 },
    pendulum: {
      ...EMPTY_PENDULUM,
      beatsPerHour: 3600,
      lengthMm: 994,
      pitchMm: 0.9,
      semiArcDeg: 2.6,
      releaseDeg: 1.3,
      crutchLengthMm: 155,
      footSpacingMm: 320,
      seatSpacingMm: 180,
      escapeTeeth: 30,
      windsEveryDays: 8,
    },
  }),
  card: { ...USUAL_CARD, second: 'de' as const, oilsPulleys: true },
}

const PILOT = clock('pilot', {
  work: { mercury: true },
  name: 'Pilot-house regulator',
  kind: 'longcase',
  marks: 'Plain mahogany, a glass jar of mercury in its stirrup. Pencilled on the seat board: “Pilots, dry end”.',
  trains: [{ train: 'going', power: 'weight', weightKg: 2.9, fallMm: 1250 }],
  home: { latitudeDeg: 57.1, altitudeM: 6, winterC: 9, summerC: 20 },
  pendulum: {
    ...EMPTY_PENDULUM,
    beatsPerHour: 3600,
    lengthMm: 994,
    pitchMm: 0.7,
    semiArcDeg: 1.6,
    releaseDeg: 0.9,
    crutchLengthMm: 150,
    footSpacingMm: 380,
    seatSpacingMm: 210,
    escapeTeeth: 30,
    windsEveryDays: 8,
  },
})

/** Two clocks whose work is done and that go home: one with a moon, one with mercury. */
export function jobsGoingHome(dayFromNow: (days: number) => string) {
  return {
    customs: job(
      'customs',
      CUSTOMS,
      owner('customs', 'The old custom house', 'Customs Steps 2, Ternholm'),
      'Strikes eleven at four, and its moon has not moved since the storm.',
      [
        ...things('pendulum', 'hood', 'crank', 'door key'),
        { name: 'left weight', state: 'present', returned: false, hung: 'strike', massKg: 5.6 },
        { name: 'right weight', state: 'present', returned: false, hung: 'going', massKg: 5.1 },
      ],
      dayFromNow(0),
    ),
    pilot: job(
      'pilot',
      PILOT,
      owner('pilot', 'Pilots of the sound', 'Dry end, East Landing, Ternholm'),
      'To be carried out of the old pilot house before the roof comes off, and cleaned.',
      [
        ...things('pendulum', 'crank', 'door key'),
        { name: 'weight', state: 'present', returned: false, hung: 'going', massKg: 2.9 },
      ],
      dayFromNow(2),
    ),
  }
}
