import { expect, test } from 'vitest'
import type { BenchPage } from '@treadle/contract'
import { sql } from '../../scripts/lib/sql.mjs'
import { newJob, runSql, useWorkshop } from './workshop.ts'

const shop = useWorkshop()
const fill = (name: string, numbers: Record<string, number>) => runSql(shop.adminUrl, sql(name, numbers))
const open = async () => ((await shop.request.get('/api/bench').expect(200)).body as BenchPage).tags.length

// What speed is measured on must go with every change of the tables: it is run whole too seldom to say so itself.
test('each filling of the bench makes rows that the workshop can show', async () => {
  await fill('jobs-to-find', { jobs: 50, clocks: 25, owners: 13 })
  expect(await open()).toBe(40)
  const { clock } = newJob()
  await shop.takeIn({ clock: { ...clock, name: 'Round-top drum clock' } })
  await fill('full-job', { readings: 3, holes: 2, photos: 1 })
  await fill('as-many-open', { wanted: 50 })
  expect(await open()).toBe(50)
  await fill('donors', { donors: 5 })
  const { body } = await shop.request.get('/api/donors').expect(200)
  expect(body).toHaveLength(5)
})
