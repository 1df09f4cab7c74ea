import { randomUUID } from 'node:crypto'
import type { JobPage } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { markMeshes, newHole, runSql, useWorkshop, withClientAt } from './workshop.ts'

const shop = useWorkshop()

describe('a row that can’t be read', () => {
  test('takes nothing with it: bench, lists and calendar go on, its own page says which it is, and it is set aside', async () => {
    const { job, clock } = await shop.takeIn()
    const { job: sound } = await shop.takeIn()
    const estimate = randomUUID()
    await runSql(
      shop.adminUrl,
      `insert into estimates (id, job_id, revision, state, lines, choices, chosen, currency, tax_percent, deposit_percent, note, who)
         values ('${estimate}', '${job.id}', 1, 'sent', '{"not":"a list"}', '[]', '', '€', '21', '0', '', 'Ida');
       update clocks set pendulum = '"long"', trains = '[{"train":"going"}]' where id = '${clock.id}';
       update jobs set came_with = '7' where id = '${job.id}'`,
    )
    for (const path of [
      '/bench',
      '/clocks',
      `/clocks/${clock.id}`,
      '/now.ics',
      '/year',
      '/care?months=12',
      '/find?q=kitchen',
    ])
      expect([path, (await shop.request.get(`/api${path}`)).status]).toEqual([path, 200])
    const { tags } = (await shop.request.get('/api/bench')).body as {
      tags: { job: { id: string }; owed: { kind: string }[] }[]
    }
    expect(tags.find((t) => t.job.id === job.id)?.owed[0]?.kind).toBe('unreadable')
    expect(tags.find((t) => t.job.id === sound.id)?.owed.some((o) => o.kind === 'unreadable')).toBe(false)
    const page = async () => (await shop.request.get(`/api/jobs/${job.id}`).expect(200)).body as JobPage
    const { unreadable, estimates } = await page()
    expect(estimates).toEqual([])
    expect(unreadable.map((u) => [u.table, u.field])).toEqual([
      ['estimates', 'lines'],
      ['jobs', 'cameWith'],
      ['clocks', 'trains[0].power'],
      ['clocks', 'pendulum'],
    ])
    // Nobody can tell what they say, so it is not handed over.
    for (const gate of ['power', 'pivots', 'holes', 'dry', 'oil', 'beat', 'rate', 'trial', 'estimate', 'parts'])
      await shop.request
        .post(`/api/jobs/${job.id}/overrides`)
        .send({ id: randomUUID(), gate, reason: 'As was agreed.' })
    expect((await shop.request.post(`/api/jobs/${job.id}/close`).send({}).expect(422)).text).toContain('can’t be read')
    // A change of something else goes as ever.
    const hole = newHole()
    await shop.request.put(`/api/jobs/${job.id}/holes/${hole.id}`).send(hole).expect(201)
    // But nothing is parted: the trains that nobody can read may be wound.
    const part = async () => (await shop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(422)).text
    expect(await part()).toContain('can’t be read')
    const choices = unreadable.map(({ table, id, field }) => ({ table, id, field }))
    for (const { table, id, field } of choices)
      await shop.request.post(`/api/jobs/${job.id}/unreadable`).send({ table, id, field }).expect(200)
    const after = await page()
    expect([after.unreadable, after.clock.trains, after.job.cameWith]).toEqual([[], [], []])
    // Set aside in writing they may be parted, and nothing is claimed of trains that nobody named.
    await markMeshes(shop.request, job.id)
    await shop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(200)
    const parted = (await shop.request.get(`/api/jobs/${job.id}/journal`)).body as { text: string }[]
    expect(parted[0]?.text).toContain('none is confirmed off; overridden')
    // As it was it stands in the journal.
    const entries = (await shop.request.get(`/api/jobs/${job.id}/journal`)).body as { text: string; figures: object }[]
    const told = entries.filter((e) => e.text.startsWith('Could not be read'))
    expect(told).toHaveLength(4)
    expect(JSON.stringify(told)).toContain('"not":"a list"')
    await shop.request.post(`/api/jobs/${job.id}/unreadable`).send(choices[0]).expect(409)
    await shop.request.post(`/api/jobs/${job.id}/close`).send({}).expect(200)
  })

  test.each([
    [
      'invoices',
      `(id, job_id, issued_on, lines, payments, currency, tax_percent, note, at, who)`,
      `'2026-05-01', '5', '[]', '€', '21', '', now(), 'Ida'`,
    ],
    ['conditions', `(id, job_id, kind, name, class, note, at, who)`, `'rumour', '', 'new', '', now(), 'Ida'`],
  ])('that only its own pages show, as of %s: they and the server hold the same', async (table, columns, values) => {
    const { job } = await shop.takeIn()
    await runSql(shop.adminUrl, `insert into ${table} ${columns} values ('${randomUUID()}', '${job.id}', ${values})`)
    const { unreadable } = (await shop.request.get(`/api/jobs/${job.id}`).expect(200)).body as JobPage
    expect(unreadable.map((u) => u.table)).toEqual([table])
    for (const way of ['part', 'close'])
      expect((await shop.request.post(`/api/jobs/${job.id}/${way}`).send({}).expect(422)).text).toContain(
        'can’t be read',
      )
  })

  test('of the settings or the tables: the usual stands for it, and it is said', async () => {
    const url = shop.adminUrl
    const usual = (await shop.request.get('/api/settings').expect(200)).body as object
    await shop.request
      .put('/api/settings')
      .send({ ...usual, workshop: 'Slip' })
      .expect(200)
    await withClientAt(url, async (client) => {
      const { rows } = await client.query<{ values: object }>('select "values" from settings where id = 1')
      await client.query('update settings set "values" = $1 where id = 1', [
        { ...rows[0]?.values, timeZone: 'Mars/Base', trialDays: 'seven' },
      ])
      await client.query(
        `insert into workshop_tables (name, "values") values ('baths', '{"baths":5}')
         on conflict (name) do update set "values" = excluded."values"`,
      )
    })
    const settings = (await shop.request.get('/api/settings').expect(200)).body as {
      trialDays: number
      workshop: string
    }
    expect([settings.trialDays, settings.workshop]).toEqual([7, 'Slip'])
    await shop.request.get('/api/bench').expect(200)
    const baths = (await shop.request.get('/api/tables/baths').expect(200)).body as { values: { baths: object[] } }
    expect(baths.values.baths.length).toBeGreaterThan(1)
    const said = (await shop.request.get('/api/unreadable').expect(200)).body as { table: string; field: string }[]
    expect(said.map((u) => `${u.table} ${u.field}`).sort()).toEqual([
      'settings timeZone',
      'settings trialDays',
      'workshop_tables values',
    ])
    await shop.request.put('/api/settings').send(settings).expect(200)
    expect((await shop.request.get('/api/unreadable')).body).toMatchObject([{ table: 'workshop_tables' }])
  })
})

test('an address in other letters is no other address', async () => {
  const { secret } = (await shop.request.get('/api/calendar').expect(200)).body as { secret: string }
  await shop.request.get(`/api/calendar/${secret}/now.ics`).expect(200)
  for (const path of [
    `/API/CALENDAR/${secret}/now.ics`,
    `/api/CALENDAR/${secret}/now.ics`,
    `/Api/bench`,
    `/%41pi/bench`,
    '/api/Bench',
  ])
    expect([path, (await shop.request.get(path)).status]).toEqual([path, 404])
})
