import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { encodeWav } from '@treadle/core'
import { clockSound } from '../core/test/clockSound.ts'
import { expect } from './workshop.ts'

const FOLDER = join(import.meta.dirname, '..', 'test-results')

/** A clock 21 ms out of beat that loses 30 s a day, recorded at the fake microphone's own 44.1 kHz; its file. */
export function recordLimping(name: string): string {
  const path = join(FOLDER, name)
  mkdirSync(FOLDER, { recursive: true })
  const sound = clockSound({
    sampleRate: 44_100,
    seconds: 110,
    beatsPerHour: 7200,
    rateSecondsPerDay: -30,
    unevenMs: 21,
    seed: 17,
  })
  writeFileSync(path, encodeWav(sound.samples, sound.sampleRate))
  return path
}

/** The milliseconds of the headline, once it is there. */
export async function outOfBeat(page: Page): Promise<number> {
  const headline = page.getByText(/ms out of beat/)
  await expect(headline).toBeVisible({ timeout: 60_000 })
  return Number(/([\d.]+) ms/.exec((await headline.textContent()) ?? '')?.[1])
}
