import { rateBook } from '@treadle/core'
import { clockSound } from '../../core/test/clockSound.ts'
import { errors, listen } from '../../core/test/hearClock.ts'
import { madeBook } from '../../core/test/madeBooks.ts'
import { madeRoom } from '../../core/test/madeRooms.ts'

/** The large simulations: how often the truth lies within two stated errors. Prints the tables of docs/RECKONING.md. */

const ROOMS = 480
const BOOKS = 300

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

function print(line: string): void {
  process.stdout.write(`${line}\n`)
}

/** Prints both tables. */
export function main(): number {
  rooms()
  books()
  return 0
}
