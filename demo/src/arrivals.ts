import { DEFAULT_PRICES, type Estimate, type TrainSheetChange } from '@treadle/contract'
import { demoId, type DemoApi } from './api.ts'
import { putRow } from './history.ts'
import { partPicture } from './pictures.ts'

/** Something seen or asked on a job. */
export async function observe(
  api: DemoApi,
  jobId: string,
  key: string,
  part: { answer?: string; figure?: number; second?: number; note?: string },
): Promise<void> {
  await putRow(api, jobId, 'observations', `seen ${jobId} ${key}`, {
    key,
    answer: part.answer ?? '',
    figure: part.figure ?? null,
    second: part.second ?? null,
    note: part.note ?? '',
    photoId: null,
  })
}

/** Counts of a going train from the great wheel up: names, then pinion and wheel of each. */
export async function countTrain(
  api: DemoApi,
  jobId: string,
  arbors: [name: string, pinion: number | null, wheel: number | null][],
  rest: Partial<TrainSheetChange> = {},
): Promise<void> {
  const name = rest.train && rest.train !== 'going' ? `train ${jobId} ${rest.train}` : `train ${jobId}`
  await putRow(api, jobId, 'trains', name, {
    train: 'going',
    arbors: arbors.map(([name, pinion, wheel]) => ({ name, pinion, wheel })),
    hourly: 1,
    escape: true,
    greatTurns: null,
    motion: null,
    faultPeriodS: null,
    ...rest,
  })
}

/** One step of taking apart: what came out, its tray, how many parts, its screws and its marks. */
export type Step = [part: string, tray: string, count: number, screws: string, marks: string]

/** The drum clock's strip log, in the order in which it came apart. */
export const DRUM_STEPS: Step[] = [
  ['Bell and its nut', 'case', 3, 'washer of leather under it', ''],
  ['Pendulum', 'case', 1, '', 'nut 6½ turns from the end'],
  ['Minute hand and collet', 'case', 3, 'pin, tapered', 'bowed washer behind it'],
  ['Hour hand', 'case', 1, 'push fit', ''],
  ['Dial and bezel', 'case', 5, '2 long, from the back', 'dot at 12'],
  ['Motion work', 'going', 3, '', 'hour wheel with its spring washer'],
  ['Count wheel', 'strike', 2, 'tapered pin', 'dot toward the front'],
  ['Count wheel detent', 'strike', 2, '1 short, lower left', ''],
  ['Pallets, cock and crutch', 'going', 4, '2 short, upper', 'steady pin left'],
  ['Suspension', 'going', 2, '', ''],
  ['Going click work', 'going', 3, '1 blued', 'click to the left'],
  ['Strike click work', 'strike', 3, '1 blued', 'click to the left'],
  ['Back plate', 'case', 5, '4 pillar nuts', ''],
  ['Going train', 'going', 5, '', ''],
  ['Strike train', 'strike', 6, '', 'warning pin at 4, two dots in mesh'],
  ['Barrels', 'going', 2, '', 'one dot: going'],
]

/** Lays down a strip log with its pictures. */
export async function takeApart(api: DemoApi, jobId: string, steps: Step[]): Promise<void> {
  for (const [i, [part, tray, count, screws, marks]] of steps.entries()) {
    const photoId = demoId(`strip photo ${jobId} ${i}`)
    await api.sendBytes(
      `/jobs/${jobId}/photos/${photoId}?caption=${encodeURIComponent(part)}`,
      'image/jpeg',
      await partPicture(part, i),
    )
    const row = { position: i + 1, part, tray, screws, marks, remark: '', count, photoId, back: false, notBack: '' }
    await putRow(api, jobId, 'strip-steps', `strip ${jobId} ${i}`, row)
  }
}

/** An estimate by the price book’s own lines, by key and quantity. */
export function demoEstimate(
  jobId: string,
  revision: number,
  lines: [key: string, quantity: number, kind?: 'if-needed'][],
  rest: Partial<Estimate>,
): Omit<Estimate, 'id' | 'version'> {
  return {
    revision,
    state: 'draft',
    lines: lines.flatMap(([key, quantity, kind]) => {
      const price = DEFAULT_PRICES.lines.find((l) => l.key === key)
      if (!price) return []
      const { title, unit, unitPrice, upToPrice, taxed } = price
      const sure = kind ?? (upToPrice === null ? 'fixed' : 'range')
      const id = demoId(`line ${jobId} ${key}`)
      return [{ id, title, kind: sure, quantity, unit, unitPrice, upToPrice, taxed, order: key === 'mainspring' }]
    }),
    choices: DEFAULT_PRICES.choices,
    chosen: 'service',
    currency: '€',
    taxPercent: '20',
    depositPercent: '30',
    note: '',
    sentAt: null,
    answer: null,
    ...rest,
  }
}
