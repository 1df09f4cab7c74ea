import { QueryClient } from '@tanstack/react-query'
import { expect, test } from 'vitest'
import { keepInPage } from '../src/data/keepInPage.ts'
import { at, PAGE } from './page.ts'

const SHOWN_AT = 1000
const PUT = { method: 'PUT', path: '/jobs/j/readings/new' }
const answer = { ...PAGE.readings[0]!, id: 'new', at: at(3), standing: { gates: [], owed: [{ title: 'now' }] } }

/** A page that is shown since 1000 ms. */
function shown(): QueryClient {
  const client = new QueryClient()
  client.setQueryData(['job', 'j'], PAGE, { updatedAt: SHOWN_AT })
  return client
}
const pageOf = (client: QueryClient) => client.getQueryData<typeof PAGE>(['job', 'j'])

test('the answer to a change that was sent from the page as it is, is put into it', () => {
  const client = shown()
  expect(keepInPage(client, { ...PUT, sentAt: SHOWN_AT + 1 }, answer)).toBe(true)
  expect(pageOf(client)?.readings.map((r) => r.id)).toContain('new')
  expect(pageOf(client)?.owed).toMatchObject([{ title: 'now' }])
})

test('of two under way one answer is put in; the other, which may be older, has the page fetched', () => {
  const client = shown()
  const sentAt = SHOWN_AT + 1
  expect(keepInPage(client, { ...PUT, sentAt }, answer)).toBe(true)
  const older = { ...answer, id: 'old', standing: { gates: [], owed: [{ title: 'before that' }] } }
  expect(keepInPage(client, { method: 'PUT', path: '/jobs/j/readings/old', sentAt }, older)).toBe(false)
  expect(pageOf(client)?.owed).toMatchObject([{ title: 'now' }])
})

test('nothing is put into a page that is being fetched, or is not there', () => {
  const client = shown()
  void client.fetchQuery({ queryKey: ['job', 'j'], queryFn: () => new Promise(() => undefined) })
  expect(keepInPage(client, { ...PUT, sentAt: SHOWN_AT + 1 }, answer)).toBe(false)
  expect(keepInPage(new QueryClient(), { ...PUT, sentAt: 1 }, answer)).toBe(false)
})

test('what was taken back has the page fetched', () => {
  expect(keepInPage(shown(), { ...PUT, method: 'DELETE', sentAt: SHOWN_AT + 1 }, answer)).toBe(false)
})
