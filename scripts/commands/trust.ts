import { periodicFaults, rateBook } from '@treadle/core'
import { clockSound } from '../../core/test/clockSound.ts'
import { errors, listen } from '../../core/test/hearClock.ts'
import { madeBook } from '../../core/test/madeBooks.ts'
import { random } from '../../core/test/clockSound.ts'
import { hearStrikes, madeStrike } from '../../core/test/madeStrikes.ts'
import { MADE_TRAINS, madeBeats, type MadeRow } from '../../core/test/madeWheels.ts'
import { madeLog } from '../../core/test/madeLogs.ts'
import { madeRoom } from '../../core/test/madeRooms.ts'

/** The large simulations: how often the truth lies within two stated errors. Prints the tables of docs/RECKONING.md. */

const ROOMS = 480
const BOOKS = 300
const LOGS = 500
const WHEELS = 40
const NO_WHEELS = 1500
const STRIKES = 400

function percent(share: number): string {
  return `${(100 * share).toFixed(1)} %`
}

function median(values: number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN
}

function rooms(): void {
  const rows = new Map<string, { beatMs: number; beatHeld: boolean; errorMs: number; rateHeld: boolean }[]>()
  const unheard = new Map<string, number>()
  for (let seed = 0; seed < ROOMS; seed++) {
    const room = madeRoom(10_000 + seed, 30)
    const result = listen(clockSound(room.clock), { beatsPerHour: room.beatsPerHour })
    if (!result.heard) {
      unheard.set(room.kind, (unheard.get(room.kind) ?? 0) + 1)
      continue
    }
    const off = errors(room.clock, result)
    const held = rows.get(room.kind) ?? []
    rows.set(room.kind, held)
    held.push({
      beatMs: off.beatMs,
      beatHeld: off.beatMs < 2 * result.outOfBeatStandardError,
      errorMs: result.outOfBeatStandardError,
      rateHeld: off.rate < 2 * result.rateStandardError,
    })
  }
  print(`Listening, ${ROOMS} made rooms of 30 s\n`)
  print('| room | heard | beat within 2 errors | rate within 2 errors | median error of the beat | median stated |')
  print('|---|---|---|---|---|---|')
  for (const [kind, all] of [...rows, ['all', [...rows.values()].flat()] as const]) {
    const missed = kind === 'all' ? [...unheard.values()].reduce((a, b) => a + b, 0) : (unheard.get(kind) ?? 0)
    const share = (test: (r: (typeof all)[number]) => boolean) => percent(all.filter(test).length / all.length)
    print(
      `| ${kind} | ${all.length} of ${all.length + missed} | ${share((r) => r.beatHeld)} | ${share((r) => r.rateHeld)} | ${median(all.map((r) => r.beatMs)).toFixed(3)} ms | ${median(all.map((r) => r.errorMs)).toFixed(3)} ms |`,
    )
  }
}

function books(): void {
  print(`\nThe rate book, ${BOOKS} made books each, read by ± 0.5 s, half of them with a turn of the nut\n`)
  print('| the clock walks by | readings | rate within 2 errors | turn within 2 errors | wrongly doubted |')
  print('|---|---|---|---|---|')
  for (const walk of [0, 0.25, 0.5, 1, 2])
    for (const readings of [4, 8, 16, 30]) {
      let rate = 0
      let turn = 0
      let doubted = 0
      for (let seed = 1; seed <= BOOKS; seed++) {
        const made = madeBook(seed, readings, walk, seed % 2 === 0)
        const book = rateBook(made.input)
        if (book.rateSecondsPerDay !== null && Math.abs(book.rateSecondsPerDay - made.rate) < 2 * book.standardError!)
          rate++
        if (Math.abs(book.secondsPerDayPerTurn! - made.perTurn) < 2 * book.perTurnStandardError!) turn++
        if (book.suspects.length > 0) doubted++
      }
      print(
        `| ${walk} s/√day | ${readings} | ${percent(rate / BOOKS)} | ${percent(turn / BOOKS)} | ${percent(doubted / BOOKS)} |`,
      )
    }
}

/** Logs of months with weather, some with arcs, a winding rhythm and mistyped readings. */
function logs(): void {
  print(`\nWhat the rate book learns, ${LOGS} made logs of three months, read about once a day by ± 0.7 s\n`)
  print(
    '| the log has | a degree within 2 errors | rate within 2 errors | turns the wrong way | median error of a degree |',
  )
  print('|---|---|---|---|---|')
  const kinds = {
    'weather and turns of the nut': {},
    'arcs that change': { arcs: true },
    'a winding rhythm': { rhythm: true },
    'slips of the pen': { slips: true },
  }
  for (const [title, how] of Object.entries(kinds)) {
    let [degree, rate, wrong] = [0, 0, 0]
    const off: number[] = []
    for (let seed = 1; seed <= LOGS; seed++) {
      const log = madeLog(2000 + seed, how)
      const { readings, events, windingsS } = log
      const book = rateBook({ pitchMm: 0.7, lengthMm: 994, readings, events, windingsS })
      off.push(Math.abs(book.secondsPerDayPerC! - log.perC))
      if (Math.abs(book.secondsPerDayPerC! - log.perC) < 2 * book.perCStandardError!) degree++
      if (
        book.rateSecondsPerDay !== null &&
        Math.abs(book.rateSecondsPerDay - log.rateLately) < 2 * book.standardError!
      )
        rate++
      if (book.move !== null && (book.move === 'lower') !== log.rateLately > 0) wrong++
    }
    print(
      `| ${title} | ${percent(degree / LOGS)} | ${percent(rate / LOGS)} | ${wrong} | ${median(off).toFixed(3)} s/day |`,
    )
  }
}

/** A wheel that wobbles, listened to for three of its turns; and rows in which nothing does. */
function wheels(): void {
  print(`\nWheels in the beat, ${WHEELS} rows each of three turns, a beat scattering by 0.25 ms\n`)
  print('| the wheel’s wobble | named | another named beside it | median error of its size |')
  print('|---|---|---|---|')
  for (const ms of [0.5, 1, 2]) {
    let [asked, named, others] = [0, 0, 0]
    const off: number[] = []
    for (const { train, beatsPerHour, periodsS } of MADE_TRAINS)
      for (const arbor of [1, 2])
        for (let seed = 1; seed <= WHEELS; seed++) {
          const periodS = periodsS[arbor] ?? 60
          const row = { seconds: Math.max(120, 3.2 * periodS), scatterMs: 0.25, wobble: { periodS, ms }, seed }
          const found = periodicFaults(...madeBeats(beatsPerHour, row), train)
          const one = found.arbors.find((a) => a.arbor === arbor)
          asked++
          if (one) {
            named++
            off.push(Math.abs(one.amplitudeMs - ms))
          }
          if (found.arbors.length + found.meshes.length > (one ? 1 : 0)) others++
        }
    print(`| ${ms} ms | ${percent(named / asked)} | ${percent(others / asked)} | ${median(off).toFixed(3)} ms |`)
  }
  let blamed = 0
  for (let seed = 1; seed <= NO_WHEELS; seed++) {
    const made = MADE_TRAINS[seed % MADE_TRAINS.length]
    if (!made) continue
    const other = { periodS: (made.periodsS[2] ?? 60) * (1.09 + 0.4 * random(seed)()), ms: 1.5 }
    const rows: MadeRow[] = [
      { seconds: 200, scatterMs: 0.25, seed },
      { seconds: 300, scatterMs: 0.2, walkMs: 3, seed },
      { seconds: 300, scatterMs: 0.2, wobble: other, seed },
    ]
    const row = rows[seed % rows.length]
    if (!row) continue
    const found = periodicFaults(...madeBeats(made.beatsPerHour, row), made.train)
    if (found.arbors.length + found.meshes.length > 0) blamed++
  }
  print(
    `\nOf ${NO_WHEELS} rows with noise, wander or a rhythm of no wheel a wheel was named in ${percent(blamed / NO_WHEELS)}.`,
  )
}

function strikes(): void {
  const rows = new Map<string, { all: number; right: number }>()
  for (let seed = 1000; seed < 1000 + STRIKES; seed++) {
    const { sound, on, blows } = madeStrike(seed)
    const groups = hearStrikes(sound)
    const row = rows.get(on) ?? { all: 0, right: 0 }
    row.all++
    if (groups.length === 1 && groups[0]?.blows === blows) row.right++
    rows.set(on, row)
  }
  print(`\nStrikes of 1 to 12 over the ticking, ${STRIKES} made\n`)
  print('| on | counted right |')
  print('|---|---|')
  for (const [on, { all, right }] of rows) print(`| ${on} | ${right} of ${all} |`)
}

function print(line: string): void {
  process.stdout.write(`${line}\n`)
}

/** Prints the tables. */
export function main(): number {
  rooms()
  books()
  logs()
  wheels()
  strikes()
  return 0
}
