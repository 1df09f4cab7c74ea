import { randomUUID } from 'node:crypto'
import { readFileSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { end, freePort, freshFolder, gone, postmasterOf, sent, serverOf, start, type Started } from './starting.ts'
import { newJob } from './workshop.ts'

const folder = freshFolder()
const KILLS = 20
let port = 0
let running: Started | undefined

beforeAll(async () => {
  port = await freePort()
})
afterAll(async () => {
  await end(running)
  rmSync(folder, { recursive: true, force: true })
})

test('a workshop starts; killed in turn while it is written in, twenty times each, server and database come back by themselves, and all that was acknowledged is there once', async () => {
  const first = await start(folder, port)
  running = first
  const { url, child } = first
  expect(first.said()).toContain(`Treadle is at http://127.0.0.1:${port}`)
  expect(await (await fetch(url('/api/health'))).json()).toMatchObject({ ok: true, database: true })
  expect(((await (await fetch(url('/api/bench'))).json()) as { tags: unknown[] }).tags).toEqual([])
  expect(await (await fetch(url('/some/page'))).text()).toContain('<div id="root">')

  // A second start on the same port names it and leaves the first alone.
  const second = await start(folder, port)
  expect(second.said()).toContain(`Port ${port} is taken`)
  expect(await gone(second.child)).toBe(1)

  const job = newJob()
  expect(await sent(url('/api/jobs'), 'POST', job)).toBe(201)

  // Two benches write on while the server, the database, and both are killed, one after the other.
  const acknowledged: string[] = []
  let writing = true
  const bench = async () => {
    while (writing) {
      const id = randomUUID()
      const reading = { id, version: 0, at: '2026-03-01T09:30:00Z', errorSeconds: 1, sigmaSeconds: 1, way: 'eye' }
      const status = await sent(url(`/api/jobs/${job.id}/readings/${id}`), 'PUT', reading)
      expect([200, 201]).toContain(status)
      acknowledged.push(id)
    }
  }
  const benches = [bench(), bench()]
  const more = (count: number) => {
    const wanted = acknowledged.length + count
    return expect.poll(() => acknowledged.length, { timeout: 120_000, interval: 20 }).toBeGreaterThanOrEqual(wanted)
  }
  await more(6)
  for (let kill = 0; kill < KILLS; kill++) {
    process.kill(serverOf(child.pid!)!, 'SIGKILL')
    await more(3)
    process.kill(postmasterOf(folder), 'SIGKILL')
    await more(3)
  }
  process.kill(serverOf(child.pid!)!, 'SIGKILL')
  process.kill(postmasterOf(folder), 'SIGKILL')
  await more(6)
  writing = false
  await Promise.all(benches)
  const page = (await (await fetch(url(`/api/jobs/${job.id}`))).json()) as { readings: { id: string }[] }
  expect(page.readings.map((r) => r.id).sort()).toEqual([...acknowledged].sort())
  // The start itself went on through all of it, and the pause before a new start has not grown.
  expect(child.exitCode).toBeNull()
  const pauses = [...first.said().matchAll(/server has stopped.*started again in ([\d.]+) s/g)].map((m) => Number(m[1]))
  expect(pauses.length).toBeGreaterThanOrEqual(KILLS)
  expect(new Set(pauses)).toEqual(new Set([0.1]))

  // The day's backup was made beside all this, and the pages can tell of it.
  type Kept = { kept: { name: string; bytes: number }[]; failed: unknown }
  const backups = async () => (await (await fetch(url('/api/backups'))).json()) as Kept
  await expect.poll(async () => (await backups()).kept.length, { timeout: 120_000 }).toBe(1)

  // Logs are their owner's, and hold no secret address, in whatever letters it was asked for.
  const { secret } = (await (await fetch(url('/api/calendar'))).json()) as { secret: string }
  for (const path of [
    `/api/calendar/${secret}/now.ics`,
    `/API/CALENDAR/${secret}/now.ics`,
    `/api/%63alendar/${secret}/x`,
  ])
    await (await fetch(url(path))).text()
  const log = join(folder, 'log/requests.log')
  await expect.poll(() => readFileSync(log, 'utf8')).toContain('/api/calendar/…/now.ics')
  expect(readFileSync(log, 'utf8')).not.toContain(secret)
  for (const file of [log, join(folder, 'empty/postgres.log')]) expect(statSync(file).mode & 0o077).toBe(0)

  // Ctrl-C stops it cleanly, database and all; the next start finds everything.
  child.kill('SIGINT')
  expect(await gone(child)).toBe(0)
  await expect(fetch(url('/api/health'))).rejects.toThrow()
  expect(() => postmasterOf(folder)).toThrow()
  running = await start(folder, port)
  expect((await fetch(url(`/api/jobs/${job.id}`))).status).toBe(200)
}, 600_000)
