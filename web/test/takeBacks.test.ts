import { expect, test } from 'vitest'
import { TakeBacks } from '../src/pedal/takeBacks.ts'

test('a hold takes back what was done there last, and never what was done to another clock', () => {
  const done: string[] = []
  const made = new TakeBacks()
  made.add('/jobs/a/rate', () => done.push('first on a'))
  made.add('/jobs/b/rate', () => done.push('on b'))
  made.add('/jobs/a/rate', () => done.push('second on a'))
  made.last('/jobs/a/rate')?.()
  made.last('/jobs/a/rate')?.()
  expect(made.last('/jobs/a/rate')).toBeUndefined()
  expect(made.last('/jobs/a/listen')).toBeUndefined()
  expect(done).toEqual(['second on a', 'first on a'])
  made.last('/jobs/b/rate')?.()
  expect(done).toHaveLength(3)
})
