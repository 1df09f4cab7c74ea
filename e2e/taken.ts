import { randomUUID } from 'node:crypto'
import type { JobPage, NewJob } from '@treadle/contract'
import { EMPTY_PENDULUM, PLAIN_WORK } from '@treadle/contract'
import type { Page } from '@playwright/test'
import { expect, type Workshop } from './workshop.ts'

/** The job at an address, as the server has it. */
export const read = async (address: string) =>
  (await (await fetch(address.replace('/jobs/', '/api/jobs/'))).json()) as JobPage

/** A clock with a going train, taken in by the API; gives back its job's address and how to read it. */
export async function taken(shop: Workshop) {
  const id = randomUUID()
  const body: NewJob = {
    id,
    owner: { id: randomUUID(), name: 'Gull Row', phone: '', address: '' },
    clock: {
      id: randomUUID(),
      name: 'Kitchen clock',
      kind: 'wall',
      marks: '',
      trains: [{ train: 'going', power: 'spring' }],
      pendulum: EMPTY_PENDULUM,
      work: PLAIN_WORK,
    },
    complaint: 'Stops.',
    cameWith: [],
    promisedOn: null,
    standsAt: '',
    movedLately: 'unknown',
    lastServiced: null,
  }
  await send(shop, 'POST', '/jobs', body)
  const address = `${shop.url}/jobs/${id}`
  return { id, address, read: () => read(address) }
}

/** Sends a body to the workshop's API; throws where it is refused. */
export async function send(shop: Workshop, method: string, path: string, body: unknown): Promise<void> {
  const answer = await fetch(`${shop.url}/api${path}`, {
    method,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  })
  if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`)
}

/** What the pedal would do now. */
export const bar = (page: Page, words: string) =>
  expect(page.getByRole('button', { name: words, exact: false }).last()).toBeVisible()

/** A spring clock with its going train counted, taken in by the API. */
export async function counted(shop: Workshop) {
  const clock = await taken(shop)
  const sheet = randomUUID()
  await send(shop, 'PUT', `/jobs/${clock.id}/trains/${sheet}`, {
    id: sheet,
    version: 0,
    train: 'going',
    arbors: [
      { name: 'Great wheel', pinion: null, wheel: 84 },
      { name: 'Centre', pinion: 8, wheel: 64 },
      { name: 'Third', pinion: 8, wheel: 60 },
      { name: 'Escape', pinion: 8, wheel: 30 },
    ],
    hourly: 1,
    escape: true,
    greatTurns: null,
    motion: null,
    faultPeriodS: null,
  })
  return clock
}

/** A figure as a caliper with a cable sends it: typed into the field, and Enter. */
export async function type(page: Page, label: string | RegExp, figure: string): Promise<void> {
  await page.getByLabel(label, { exact: typeof label === 'string' }).focus()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type(figure)
  await page.keyboard.press('Enter')
}

/** One of a few words, chosen by its name under what is asked. */
export const pick = (page: Page, label: string, word: string) =>
  page.getByRole('radiogroup', { name: label }).getByText(word, { exact: true }).click()
