import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { afterAll, describe, expect, test } from 'vitest'
import { isDue, makeDaily, mayGo, nameOf } from '../lib/dailyBackups.mjs'
import { keepRunning, pauseMs } from '../lib/keepRunning.mjs'

const folder = mkdtempSync(join(tmpdir(), 'treadle-keeping-'))
afterAll(() => rmSync(folder, { recursive: true }))

const day = (n: number) => new Date(2026, 2, 1 + n, 12)

describe('which daily backups may go', () => {
  test('after a year of days, seven days and the newest of each of four weeks are kept', () => {
    // 28 February 2027 is a Sunday, the last day of its week; each Sunday before it is the newest of its own.
    const names = Array.from({ length: 365 }, (_, n) => nameOf(day(n)))
    const gone = new Set(mayGo(names, 7, 4))
    expect(names.filter((n) => !gone.has(n))).toEqual(
      [
        '2027-02-07',
        '2027-02-14',
        '2027-02-21',
        '2027-02-22',
        '2027-02-23',
        '2027-02-24',
        '2027-02-25',
        '2027-02-26',
        '2027-02-27',
        '2027-02-28',
      ]
        .map((d) => `treadle-${d}.jsonl.gz`)
        .filter((n) => names.includes(n)),
    )
  })

  test('the newest is never among them, nor what somebody else put there, however few are kept', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 2000 }), { minLength: 1, maxLength: 60 }),
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 0, max: 20 }),
        (days, keptDays, weeks) => {
          const names = days.map((n) => nameOf(day(n)))
          const gone = mayGo([...names, 'notes.txt', 'treadle-2026-03-01.jsonl.gz.part', 'last.json'], keptDays, weeks)
          const newest = [...names].sort().slice(-keptDays)
          for (const name of [...newest, 'notes.txt', 'last.json']) expect(gone).not.toContain(name)
          // What stays is no more than was asked for.
          expect(names.length - gone.length).toBeLessThanOrEqual(keptDays + weeks)
          // As days go by one at a time, nothing that was let go would have been kept later.
          expect(
            mayGo(
              names.filter((n) => !gone.includes(n)),
              keptDays,
              weeks,
            ),
          ).toEqual([])
        },
      ),
      { numRuns: 300, seed: 2 },
    )
  })
})

test('a day’s backup is made once, old ones go, and a failure is told and leaves the others', async () => {
  const write = (file: string) => Promise.resolve(writeFileSync(file, 'all of it'))
  for (let n = 0; n < 12; n++) {
    expect(isDue(folder, day(n))).toBe(true)
    await makeDaily(folder, day(n), { days: 3, weeks: 0 }, write)
    expect(isDue(folder, day(n))).toBe(false)
  }
  expect(readdirSync(folder).filter((f) => f.endsWith('.gz'))).toEqual([9, 10, 11].map((n) => nameOf(day(n))))
  const last = () => JSON.parse(readFileSync(join(folder, 'last.json'), 'utf8')) as { failed: { why: string } | null }
  expect(last().failed).toBeNull()
  const fails = () => Promise.reject(new Error('The disk is full.'))
  await expect(makeDaily(folder, day(12), { days: 3, weeks: 0 }, fails)).rejects.toThrow('The disk is full.')
  expect(last().failed).toMatchObject({ why: 'The disk is full.' })
  expect(readdirSync(folder).filter((f) => f.endsWith('.gz'))).toHaveLength(3)
})

describe('a process that is kept running', () => {
  test('waits longer each time, up to half a minute', () => {
    expect([1, 2, 3, 7, 50].map(pauseMs)).toEqual([500, 1000, 2000, 30_000, 30_000])
  })

  test('is started again when it dies, told of, and ended for good when it is asked to', async () => {
    const said: string[] = []
    let starts = 0
    const kept = keepRunning({
      what: 'The lamp',
      hint: 'look at the wick.',
      say: (words) => said.push(words),
      begin: () => {
        starts++
        // Dies at once the first time, and stays the second.
        const script = starts === 1 ? 'process.exit(3)' : "process.send('ready'); setInterval(() => {}, 1000)"
        return {
          command: process.execPath,
          args: ['-e', script],
          options: { stdio: ['ignore', 'ignore', 'ignore', 'ipc'] },
        }
      },
    })
    expect(await kept.ready).toBe(true)
    expect(starts).toBe(2)
    expect(said[0]).toBe('The lamp has stopped (3). It is started again in 0.5 s.')
    expect(said[1]).toBe('The lamp runs again.')
    const pid = kept.pid()
    await kept.end()
    expect(kept.pid()).toBeUndefined()
    expect(() => process.kill(pid ?? 0, 0)).toThrow()
    expect(starts).toBe(2)
  })

  test('that keeps dying is told with what to look at, and can be ended while it is waited for', async () => {
    const said: string[] = []
    let told = () => undefined as void
    const hinted = new Promise<void>((resolve) => (told = resolve))
    const kept = keepRunning({
      what: 'The lamp',
      hint: 'look at the wick.',
      say: (words) => {
        said.push(words)
        if (words.includes('wick')) told()
      },
      begin: () => ({ command: process.execPath, args: ['-e', 'process.exit(1)'], options: {} }),
    })
    await hinted
    expect(said.at(-1)).toBe('It has stopped 4 times in a row: look at the wick.')
    await kept.end()
    expect(await kept.ready).toBe(false)
  })
})
