import { randomUUID } from 'node:crypto'
import { describe, expect, test } from 'vitest'
import type { JobPage } from '@treadle/contract'
import { GATE_NAMES, type GateName } from '@treadle/core'
import { markMeshes, newHole, newListening, powerOff, useWorkshop } from './workshop.ts'

const workshop = useWorkshop()
const page = async (id: string) => (await workshop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage
const close = (id: string) => workshop.request.post(`/api/jobs/${id}/close`).send({})
const gate = async (id: string, name: GateName) => (await page(id)).gates.find((g) => g.name === name)!
const override = (id: string, name: GateName, reason = 'Kept by agreement with the owner.') =>
  workshop.request.post(`/api/jobs/${id}/overrides`).send({ id: randomUUID(), gate: name, reason })

/** A job that no gate but the one named holds back. */
async function heldOnlyBy(name: GateName): Promise<string> {
  const { job } = await workshop.takeIn()
  for (const other of GATE_NAMES) if (other !== name) await override(job.id, other).expect(201)
  if (name === 'holes') {
    const hole = newHole()
    await workshop.request.put(`/api/jobs/${job.id}/holes/${hole.id}`).send(hole).expect(201)
  }
  return job.id
}

describe.each(['holes', 'beat', 'rate', 'trial', 'parts'] as const)('the %s gate', (name) => {
  test('holds the job back by itself, in a sentence', async () => {
    const id = await heldOnlyBy(name)
    const refused = await close(id).expect(422)
    const { reason, passed } = await gate(id, name)
    expect(passed).toBe(false)
    expect((refused.body as { detail: string }).detail).toBe(reason)
    expect((await page(id)).job.closedAt).toBeNull()
  })

  test('is overridden only in writing, and says so on the job from then on', async () => {
    const id = await heldOnlyBy(name)
    await override(id, name, 'ok').expect(400)
    await override(id, name, '        ').expect(400)
    await close(id).expect(422)
    await override(id, name, 'The owner wants it back as it is.').expect(201)
    expect((await gate(id, name)).overriddenBecause).toBe('The owner wants it back as it is.')
    await close(id).expect(200)
    expect((await page(id)).overrides.map((o) => o.gate)).toContain(name)
    const journal = (await workshop.request.get(`/api/jobs/${id}/journal`)).body as { text: string }[]
    expect(journal.some((e) => e.text.includes('The owner wants it back as it is.'))).toBe(true)
  })
})

describe('the power gate', () => {
  test('is asked at the parting; overridden there, the job remembers it to the end', async () => {
    const { job } = await workshop.takeIn()
    await workshop.request.post(`/api/jobs/${job.id}/power`).send(powerOff('going')).expect(201)
    await markMeshes(workshop.request, job.id)
    await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(422)
    await override(job.id, 'power', 'Strike spring broken and out.').expect(201)
    await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(200)
    // Once parted so, the gate has not passed: it stands overridden.
    expect(await gate(job.id, 'power')).toMatchObject({
      passed: false,
      overriddenBecause: 'Strike spring broken and out.',
    })
  })

  test('a confirmation is not taken back once the plates are apart', async () => {
    const { job } = await workshop.takeIn()
    const offs = [powerOff('going'), powerOff('strike')]
    for (const off of offs) await workshop.request.post(`/api/jobs/${job.id}/power`).send(off).expect(201)
    await markMeshes(workshop.request, job.id)
    await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(200)
    await workshop.request.delete(`/api/jobs/${job.id}/power/${offs[0]!.id}`).expect(409)
    expect((await page(job.id)).powerOffs).toHaveLength(2)
    // Parted twice is parted once.
    const { partedAt } = (await page(job.id)).job
    await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(200)
    expect((await page(job.id)).job.partedAt).toBe(partedAt)
  })
})

test('a gate that is passed in earnest needs no override', async () => {
  const { job } = await workshop.takeIn({ cameWith: [] })
  const heard = newListening()
  await workshop.request.put(`/api/jobs/${job.id}/listenings/${heard.id}`).send(heard).expect(201)
  const gates = (await page(job.id)).gates.filter((g) => g.passed).map((g) => g.name)
  expect(gates).toEqual(expect.arrayContaining(['power', 'holes', 'beat', 'parts']))
  await override(job.id, 'rate').expect(201)
  await override(job.id, 'trial').expect(201)
  await close(job.id).expect(200)
})

test('a gate there is not can’t be overridden', async () => {
  const { job } = await workshop.takeIn()
  await override(job.id, 'luck' as GateName).expect(400)
})
