import { spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, expect, test } from 'vitest'
import { ownFolder } from '../src/files/ownFolder.ts'
import { begin, end, freePort, freshFolder, gone, script, sent, start, type Started } from './starting.ts'
import { newJob } from './workshop.ts'

const folder = freshFolder()
const files = freshFolder()
const begun: Started[] = []
afterAll(async () => {
  for (const one of begun) await end(one)
  for (const one of [folder, files]) rmSync(one, { recursive: true, force: true })
})

test('two first starts at once in a fresh folder both end well; neither takes anything from the other; ten backups meanwhile', async () => {
  const ports = [await freePort(), await freePort()]
  // What a start that was killed long ago has left: its number is another process's by now.
  mkdirSync(join(folder, 'empty'), { recursive: true })
  writeFileSync(join(folder, 'empty/start.lock'), '1')
  const starts = ports.map((port) => begin(folder, port))
  begun.push(...starts)
  const [one, two] = starts
  // Backups are asked for while they are laid down: each waits for its turn, and is made.
  const backups = Array.from({ length: 10 }, (_, i) =>
    script('backup.mjs', [join(files, `${i}.gz`), '--empty'], folder),
  )
  await Promise.all(starts.map((s) => s.ready))
  for (const s of starts) expect(s.said()).toContain('Treadle is at')
  for (const { said, code } of await Promise.all(backups))
    expect([code, said]).toEqual([0, expect.stringContaining('The workshop is in')])
  expect(readdirSync(files).filter((f) => f.endsWith('.gz'))).toHaveLength(10)

  const job = newJob()
  expect(await sent(one!.url('/api/jobs'), 'POST', job)).toBe(201)
  expect((await fetch(two!.url(`/api/jobs/${job.id}`))).status).toBe(200)
  // What one has begun to receive is there when the other starts anew.
  const uploads = join(folder, 'uploads/empty')
  const mine = `${one!.child.pid}-of-the-first`
  mkdirSync(join(uploads, mine), { recursive: true })
  // Whichever of them began the database stops it; the other, which did not, has it again at once.
  two!.child.kill('SIGINT')
  expect(await gone(two!.child)).toBe(0)
  expect(await sent(one!.url('/api/jobs'), 'POST', newJob())).toBe(201)
  const third = await start(folder, ports[1]!)
  begun.push(third)
  third.child.kill('SIGINT')
  expect(await gone(third.child)).toBe(0)
  // It found the database running, and left it so.
  expect((await fetch(one!.url(`/api/jobs/${job.id}`))).status).toBe(200)
  expect(one!.said().match(/database has stopped/g)?.length ?? 0).toBeLessThanOrEqual(1)
}, 300_000)

test('a folder of one’s own is cleared of those that are gone, and of no other', async () => {
  const all = join(files, 'uploads')
  const alive = `${process.pid}`
  mkdirSync(join(all, '999999999-5'), { recursive: true })
  // A process of that number is there, and began at another time.
  mkdirSync(join(all, `${alive}-1`), { recursive: true })
  const mine = ownFolder(all)
  mkdirSync(mine)
  expect(readdirSync(all)).toEqual([mine.split('/').at(-1)])
  expect(ownFolder(all)).toBe(mine)
  expect(existsSync(mine)).toBe(true)
  await Promise.resolve()
})

test('a data folder that can’t be written is told in a sentence', async () => {
  const nowhere = join(files, 'a-file')
  writeFileSync(nowhere, '')
  const port = await freePort()
  for (const place of [nowhere, '/proc/treadle']) {
    const one = begin(place, port)
    await one.ready
    expect(await gone(one.child)).toBe(1)
    const lines = one.said().trim().split('\n')
    expect(lines).toEqual([
      expect.stringMatching(/^The folder .* can’t be written \(\w+\)\. Let TREADLE_DATA name another\.$/),
    ])
  }
})

test('a lock says who holds it and since when, and is gone with whoever held it, however that ended', async () => {
  const { hold } = await import('../../scripts/lib/lock.mjs')
  const name = `test ${files}`
  const holder = `
    import { hold } from ${JSON.stringify(join(import.meta.dirname, '../../scripts/lib/lock.mjs'))}
    await hold(${JSON.stringify(name)})
    console.log('held')
    setInterval(() => {}, 1000)`
  const { spawn } = await import('node:child_process')
  const child = spawn(process.execPath, ['--input-type=module', '-e', holder], { stdio: ['ignore', 'pipe', 'inherit'] })
  await once(child.stdout, 'data')
  await expect(hold(name, { patienceMs: 0, what: 'The folder' })).rejects.toThrow(
    new RegExp(`^The folder is still held by process ${child.pid}, which began \\d{4}-`),
  )
  const told: string[] = []
  const waiting = hold(name, { say: (words: string) => told.push(words), what: 'The folder' })
  await expect.poll(() => told[0]).toContain(`process ${child.pid}`)
  child.kill('SIGKILL')
  const release = await waiting
  release()
  const again = await hold(name)
  again()
  expect(told).toHaveLength(1)
})

/** A small disk of its own, where the machine lets us make one. */
const disk = join(files, 'disk')
mkdirSync(disk)
const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=900m,mode=755', 'tmpfs', disk]).status === 0

test.runIf(mounted)(
  'a full disk stops writing, not reading, and a server that is started anew on it reads too; with room again all is well',
  async () => {
    try {
      const one = await start(disk, await freePort())
      begun.push(one)
      const job = newJob()
      expect(await sent(one.url('/api/jobs'), 'POST', job)).toBe(201)
      const ballast = join(disk, 'ballast')
      spawnSync('dd', ['if=/dev/zero', `of=${ballast}`, 'bs=1M'])
      const status = async (method: string, path: string, body?: object) =>
        (
          await fetch(one.url(path), {
            method,
            headers: { 'Content-Type': 'application/json' },
            ...(body && { body: JSON.stringify(body) }),
          }).catch(() => ({ status: 0 }))
        ).status
      await expect.poll(() => status('POST', '/api/jobs', newJob()), { timeout: 30_000 }).toBe(507)
      expect(await status('GET', `/api/jobs/${job.id}`)).toBe(200)
      const { serverOf, postmasterOf } = await import('./starting.ts')
      process.kill(serverOf(one.child.pid!)!, 'SIGKILL')
      await expect.poll(() => status('GET', `/api/jobs/${job.id}`), { timeout: 60_000 }).toBe(200)
      expect(await status('POST', '/api/jobs', newJob())).toBe(507)
      process.kill(postmasterOf(disk), 'SIGKILL')
      await expect.poll(() => status('GET', `/api/jobs/${job.id}`), { timeout: 60_000 }).toBe(200)
      rmSync(ballast)
      await expect.poll(() => status('POST', '/api/jobs', newJob()), { timeout: 60_000 }).toBe(201)
      expect(one.child.exitCode).toBeNull()
      await end(one)
    } finally {
      spawnSync('umount', ['-l', disk])
    }
  },
  300_000,
)
