import { createHash } from 'node:crypto'
import { once } from 'node:events'
import { connect, createServer } from 'node:net'
import { setTimeout as pause } from 'node:timers/promises'

const PATIENCE_MS = 10 * 60_000
const AGAIN_MS = 100
/** A holder that says nothing for so long is too busy to, or stopped. */
const ANSWER_MS = 3000
const SILENT = ['a process that does not answer']

/**
 * Holds a thing by name, such as a folder that is being set up, against every other process of this machine; gives how to
 * let go of it.
 *
 * The lock is a socket of the kernel's own, without a file: it is gone with its process, however that ends, so none is ever
 * stale; and it needs no room on a disk. Whoever finds it held asks the holder who it is and since when, and waits.
 *
 * @param say - is told once whom it waits for
 * @throws Error in a sentence, when it is still held after `patienceMs`
 */
export async function hold(name, { patienceMs = PATIENCE_MS, say = console.error, what = name } = {}) {
  const address = `\0treadle-${createHash('sha256').update(name).digest('hex').slice(0, 40)}`
  const since = new Date().toISOString()
  const until = Date.now() + patienceMs
  let told = false
  for (;;) {
    const server = await taken(address, since)
    if (server) return () => void server.close()
    const holder = await ask(address)
    if (holder === null) continue
    if (Date.now() > until) {
      holder.end()
      throw new Error(`${what} is still held by ${holder.who}. Stop that, or wait for it, and try again.`)
    }
    if (!told) say(`${what} is held by ${holder.who}; waiting for it…`)
    told = true
    // Its end is known the moment it comes, by the connection that it closes.
    await Promise.race([holder.gone, pause(Math.min(until - Date.now() + 1, 1000))])
    holder.end()
    await pause(AGAIN_MS)
  }
}

/** The socket that is the lock, answering who holds it; null: somebody has it. */
function taken(address, since) {
  return new Promise((resolve, reject) => {
    const open = new Set()
    const server = createServer((socket) => {
      open.add(socket)
      socket.on('error', () => undefined)
      socket.on('close', () => open.delete(socket))
      socket.unref()
      socket.write(`process ${process.pid}, which began ${since}\n`)
    })
    const close = server.close.bind(server)
    server.close = () => {
      for (const socket of open) socket.destroy()
      return close()
    }
    server.once('error', (error) => (error.code === 'EADDRINUSE' ? resolve(null) : reject(error)))
    server.listen(address, () => {
      server.unref()
      resolve(server)
    })
  })
}

/** Asks a lock who holds it; null: it was let go of meanwhile. */
async function ask(address) {
  const socket = connect(address)
  try {
    await once(socket, 'connect')
    socket.on('error', () => undefined)
    const gone = once(socket, 'close')
    const first = await Promise.race([once(socket, 'data'), gone.then(() => null), pause(ANSWER_MS, SILENT)])
    if (first === null) return null
    return { who: String(first[0]).trim(), gone, end: () => void socket.destroy() }
  } catch {
    return null
  }
}
