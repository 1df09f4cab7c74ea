import { NO_HOME, type JobPage, type Settings } from '@treadle/contract'
import {
  aheadOf,
  DRIVE_AGAIN,
  DRIVE_KEY,
  driveCompared,
  FieldError,
  gradeHeard,
  mendDone,
  oilDue,
  outOfBeatMs,
  pendulumTells,
  perDegreeOf,
  rateBookOf,
  seasonInWords,
  splitTold,
  strikeWanted,
  type RateBook,
} from '@treadle/core'
import dayjs from 'dayjs'

export interface CardSection {
  title: string
  lines: string[]
}

/** The owner's own card, in plain words, from what was measured and done on this clock. */
export function ownerCard(data: JobPage, settings: Settings): { sections: CardSection[]; done: string[]; due: string } {
  const { clock, events } = data
  const untouched = data.job.scope === 'untouched' && data.job.partedAt === null
  const hangs = clock.kind === 'wall'
  const tall = clock.kind === 'longcase'
  const weights = clock.trains.some((t) => t.power === 'weight')
  const strikes = clock.trains.some((t) => t.train !== 'going')
  const days = clock.pendulum.windsEveryDays
  const oiled = events.filter((e) => e.kind === 'oiled').at(-1)
  const inPlace = data.observations.find((o) => o.key === 'in-place' && o.answer === 'done')
  const oiledOn = oiled?.at ?? inPlace?.at
  const due =
    oiledOn === undefined ? null : oilDue(new Date(oiledOn).toISOString(), settings.oilSchool, inPlace !== undefined)
  const last = data.listenings.filter(splitTold).at(-1)
  // It left even only if somebody changed its beat or set it, and heard it even afterwards.
  const set = !untouched && last !== undefined && gradeHeard(last, settings.beat) !== 'must'
  const long = (iso: string) => dayjs(iso).format('MMMM YYYY')
  const sections: CardSection[] = [
    {
      title: 'Setting it up',
      lines: [
        hangs
          ? 'Hang it on a firm hook on a solid wall, plumb, out of sun and draught and away from a radiator.'
          : tall
            ? 'Stand it on a solid floor, not on deep carpet, and fix the case to the wall with a spacer as thick as the skirting.'
            : 'Stand it level on a firm shelf, out of sun and draught; not on a cupboard with drawers.',
        `Hang the pendulum${weights ? ', then each weight on its own line with the line in its pulley, the weight last so that nothing falls' : ''}. The rod goes through the middle of the crutch.`,
        ...(tall ? ['Two people move the case: without its movement it is top-heavy.'] : []),
      ],
    },
    {
      title: 'Is it in beat?',
      lines: [
        'Listen: tick and tock must be evenly spaced, like a walking step. If it limps, it will stop.',
        `If it limps, ${hangs ? 'swing the bottom of the case a little to one side' : 'put a card under one side of the case'}, and listen again; whichever way makes it even is right. ${set ? 'It was set even in our shop and needs it once more in its place.' : 'We did not set it.'}`,
      ],
    },
    {
      title: 'Winding',
      lines: [
        days === null
          ? 'Wind it on the same day each week.'
          : days === 1
            ? 'Wind it every day at the same hour.'
            : `Wind it every ${days} days, always on the same weekday.`,
        `${clock.trains.length > 1 ? 'Wind every square. ' : ''}Wind gently all the way to the stop: a healthy clock can’t be overwound. Hold the case with the other hand.`,
      ],
    },
    {
      title: 'Setting the hands',
      lines: [
        `Move the minute hand only, and only forward${strikes ? ', and let it finish each strike before you go on' : ''}. If you feel resistance, stop.`,
        'If you go away, stop the pendulum; start it again when the true time comes round to what the clock shows.',
      ],
    },
    { title: 'Fast or slow', lines: regulation(data, settings) },
    {
      title: 'Take care',
      lines: [
        ...(weights
          ? ['Weights are heavy: take them off before the clock is moved, and keep feet and children clear.']
          : []),
        ...(clock.trains.some((t) => t.power !== 'weight')
          ? ['There is a strong spring inside. Leave the movement to somebody trained.']
          : []),
        'If it stops or limps, hold your telephone against its case, record its sound for a minute and send us that: it often tells us what is wrong before anybody drives out.',
        'Never oil it yourself: household oil ruins it. If you move it, have its beat looked at again.',
      ],
    },
  ]
  return {
    sections,
    done: whatWasDone(data, settings),
    due:
      due === null
        ? ''
        : `${inPlace ? 'It was oiled in place, fresh oil on old: a stop-gap. ' : ''}Its oil should be looked at in ${long(due.checkOn)}, and the clock serviced in ${long(due.serviceOn)}, even if it still goes.`,
  }
}

function bookOf(data: JobPage, settings: Settings): RateBook | null {
  try {
    return rateBookOf(data, { pendulum: data.clock.pendulum, settings })
  } catch (error) {
    if (error instanceof FieldError) return null
    throw error
  }
}

function regulation(data: JobPage, settings: Settings): string[] {
  const perTurn = bookOf(data, settings)?.secondsPerDayPerTurn
  const figure =
    perTurn == null
      ? 'A small turn does much.'
      : `On this clock one full turn of the nut to the right gains about ${Math.round(perTurn)} seconds a day${perTurn >= 20 ? `, a quarter turn ${Math.round(perTurn / 4)}` : ''}.`
  return [
    ...throughTheYear(data, settings),
    `Under the bob is a nut. To the right raises the bob and the clock goes faster; to the left lowers it: lower is slower. ${figure}`,
    'Turn once, then wait a week before you judge it.',
  ]
}

/** What the seasons do to it, where its figure for a degree and its room are known. */
function throughTheYear(data: JobPage, settings: Settings): string[] {
  const { clock, pendulums } = data
  const perC = perDegreeOf(bookOf(data, settings), pendulumTells(pendulums.at(-1)?.parts)?.warmth ?? null)
  const { season } = aheadOf(settings, null, clock.home ?? NO_HOME, perC, new Date().getMonth() + 1) ?? {}
  const words = season ? seasonInWords(season) : null
  return words === null ? [] : [words]
}

function whatWasDone(data: JobPage, settings: Settings): string[] {
  const lines: string[] = []
  if (data.job.scope === 'untouched' && data.job.partedAt === null) return ['Nothing: it goes back as it came.']
  const bushed = data.holes.filter((h) => h.bushed)
  const cleaned = data.cleanParts.length > 0 && data.cleanParts.every((p) => p.done)
  if (data.job.partedAt !== null) lines.push(cleaned ? 'Taken apart and cleaned.' : 'Taken apart.')
  if (bushed.length > 0)
    lines.push(
      `${bushed.length} worn ${bushed.length === 1 ? 'hole' : 'holes'} bushed: ${[...new Set(bushed.map((h) => `${h.arbor.toLowerCase()}, ${h.plate}`))].join('; ')}.`,
    )
  lines.push(...mendDone(data))
  const told = data.listenings.filter(splitTold)
  const [first, last] = [told[0], told.at(-1)]
  if (first && last && first !== last && gradeHeard(last, settings.beat) !== 'must') {
    lines.push(
      `Set in beat: ${outOfBeatMs(first).toFixed(0)} ms out when it came, ${outOfBeatMs(last).toFixed(1)} ms when it left.`,
    )
  }
  if (data.events.some((e) => e.kind === 'oiled')) lines.push('Oiled where it should be, dry where it should be.')
  lines.push(...provedInWords(data))
  const book = bookOf(data, settings)
  if (book?.rateSecondsPerDay != null && book.standardError !== null && book.suspects.length === 0)
    lines.push(
      `${data.events.some((e) => e.kind === 'nut') ? 'Regulated' : 'Its rate'}: it ${book.rateSecondsPerDay >= 0 ? 'gains' : 'loses'} ${Math.abs(book.rateSecondsPerDay).toFixed(1)} ± ${book.standardError.toFixed(1)} seconds a day, from ${data.readings.length} readings.`,
    )
  return lines
}

/** What a trial showed besides beat and rate: how little drives it now, and that it strikes right round the dial. */
function provedInWords({ observations, clock, strikeCounts }: JobPage): string[] {
  const of = (key: string) => observations.find((o) => o.key === key)
  const drive = driveCompared(of(DRIVE_KEY), of(DRIVE_AGAIN))
  const strike = clock.work.strike
  return [
    ...(drive && drive.changePercent < 0
      ? [`It needed ${drive.before} ${drive.unit} to keep going when it came, and ${drive.now} ${drive.unit} now.`]
      : []),
    ...(strike && strikeCounts.length > 0 && strikeWanted(strike, strikeCounts).length === 0
      ? ['Its strike was counted right round the dial, and every hour is right.']
      : []),
  ]
}
