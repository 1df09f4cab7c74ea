import { describe, expect, test } from 'vitest'
import { inTurn, isTurnOpen, lastVersion, ownRow, rememberRow } from '../src/job/ownRows.ts'

/** Work that ends when it is told to. */
function held(): { work: () => Promise<void>; end: () => void; fail: () => void; begun: () => boolean } {
  let begun = false
  let settle: { end: () => void; fail: () => void } = { end: () => undefined, fail: () => undefined }
  const done = new Promise<void>((resolve, reject) => {
    settle = { end: resolve, fail: () => reject(new Error('refused')) }
  })
  return {
    work: () => {
      begun = true
      return done
    },
    end: () => settle.end(),
    fail: () => settle.fail(),
    begun: () => begun,
  }
}

const tick = () => new Promise<void>((resolve) => setTimeout(resolve, 0))

describe('changes of one row', () => {
  test('wait for each other; those of another row do not', async () => {
    const [first, second, other] = [held(), held(), held()]
    void inTurn('a', first.work)
    void inTurn('a', second.work)
    void inTurn('b', other.work)
    await tick()
    expect([first.begun(), second.begun(), other.begun()]).toEqual([true, false, true])
    first.end()
    await tick()
    expect(second.begun()).toBe(true)
    second.end()
    other.end()
  })

  test('are open until the last of them is over, and between two of them too', async () => {
    const [first, second] = [held(), held()]
    expect(isTurnOpen()).toBe(false)
    const over = inTurn('d', first.work).then(isTurnOpen)
    const last = inTurn('d', second.work)
    expect(isTurnOpen()).toBe(true)
    await tick()
    first.end()
    expect(await over).toBe(true)
    await tick()
    second.fail()
    await last.catch(() => undefined)
    expect(isTurnOpen()).toBe(false)
  })

  test('one that is refused does not hold up the next', async () => {
    const [first, second] = [held(), held()]
    const refused = inTurn('c', first.work).catch((error: Error) => error.message)
    void inTurn('c', second.work)
    await tick()
    first.fail()
    expect(await refused).toBe('refused')
    await tick()
    expect(second.begun()).toBe(true)
    second.end()
  })
})

describe('what this page wrote itself', () => {
  test('is remembered by its version, and forgotten once it is taken back', () => {
    expect(lastVersion('row')).toBeUndefined()
    rememberRow({ id: 'row', version: 3 })
    expect(ownRow('row')?.version).toBe(3)
    rememberRow({ id: 'row', version: 0 })
    expect(ownRow('row')).toBeUndefined()
    expect(lastVersion('row')).toBe(0)
  })
})
