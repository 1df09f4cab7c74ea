import { expect, test } from 'vitest'
import { inNextRound } from '../src/http/rounds.ts'

/** A reckoning that goes on until it is told, of what there is when it begins. */
function held() {
  const begun: { of: number; end: () => void; fail: () => void }[] = []
  let there = 0
  const ask = inNextRound(() => {
    const of = there
    return new Promise<object>((resolve, reject) => {
      begun.push({ of, end: () => resolve({ of }), fail: () => reject(new Error('gone')) })
    })
  })
  return { begun, ask, change: () => ++there }
}
const settled = () => new Promise((resolve) => setImmediate(resolve))

test('many at once are answered by two reckonings, and each sees what was changed before it asked', async () => {
  const { begun, ask, change } = held()
  const first = ask('a', null)
  const before = change()
  const later = Array.from({ length: 500 }, () => ask('a', null))
  begun[0]!.end()
  expect(await first).toBe('{"of":0}')
  await settled()
  expect(begun).toHaveLength(2)
  begun[1]!.end()
  expect(new Set(await Promise.all(later))).toEqual(new Set([JSON.stringify({ of: before })]))
  // Once all are answered nothing is kept: the next one is reckoned anew.
  change()
  const last = ask('a', null)
  begun[2]!.end()
  expect(await last).toBe('{"of":2}')
})

test('one that fails fails for those who shared it, and the next is tried', async () => {
  const { begun, ask } = held()
  const [first, second] = [ask('a', null), ask('a', null)]
  begun[0]!.fail()
  await expect(first).rejects.toThrow('gone')
  await settled()
  begun[1]!.end()
  expect(await second).toBe('{"of":0}')
})

test('one thing does not wait for another', async () => {
  const { begun, ask } = held()
  const [a, b] = [ask('a', null), ask('b', null)]
  begun[1]!.end()
  expect(await b).toBe('{"of":0}')
  begun[0]!.end()
  await a
})
