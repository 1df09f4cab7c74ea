import { randomUUID } from 'node:crypto'
import type { JobPage, PlateMapChange } from '@treadle/contract'
import { beforeAll, describe, expect, test } from 'vitest'
import { newHole, useWorkshop } from './workshop.ts'

const shop = useWorkshop()
let job: JobPage['job']

const arbor = (name: string, index: number, xMm: number | null, yMm: number | null) => ({
  train: 'going' as const,
  name,
  index,
  role: 'other' as const,
  xMm,
  yMm,
  pinionAt: 0.5,
  wheelAt: 0.5,
  frontMm: null,
  backMm: null,
  cock: '' as const,
  moduleMm: null,
})
const EDGE = [
  { xMm: -30, yMm: -20 },
  { xMm: 30, yMm: -20 },
  { xMm: 30, yMm: 50.5 },
  { xMm: -30, yMm: 50.5 },
]
const MAP: PlateMapChange = {
  id: randomUUID(),
  version: 0,
  arbors: [arbor('Centre', 1, 0, 0), arbor('Third <b>&', 2, 12.345, 36), arbor('Fly', 3, null, null)],
  fixtures: [
    { name: 'Pillar', kind: 'pillar', plate: 'both', xMm: -24, yMm: 44, diameterMm: 6 },
    { name: 'Screw', kind: 'screw', plate: 'back', xMm: 20, yMm: 0, diameterMm: 3 },
  ],
  edge: EDGE,
  betweenMm: null,
  photoId: null,
  trueing: null,
  note: '',
}

beforeAll(async () => {
  ;({ job } = await shop.takeIn())
  await shop.request.put(`/api/jobs/${job.id}/plates/${MAP.id}`).send(MAP).expect(201)
  const hole = newHole({ arbor: 'Centre', plate: 'front', longAxisMm: 1.9, shortAxisMm: 1.7, pivotMm: 1.6 })
  await shop.request.put(`/api/jobs/${job.id}/holes/${hole.id}`).send(hole).expect(201)
})

/** Text of a drawing; it comes as a file to keep. */
async function drawing(name: string): Promise<string> {
  const answer = await shop.request
    .get(`/api/jobs/${job.id}/plates/${name}`)
    .buffer(true)
    .parse((res, done) => {
      let text = ''
      res.setEncoding('utf8')
      res.on('data', (part: string) => (text += part))
      res.on('end', () => done(null, text))
    })
    .expect(200)
  expect(answer.headers['content-disposition']).toContain(`clock-${job.number}-${name.replace('.', '-plate.')}`)
  return answer.body as string
}

/** The entities of a DXF, by its own rule: a line with a code, then one with its value. */
function entities(dxf: string): { type: string; codes: Map<number, string[]> }[] {
  const lines = dxf.split(/\r?\n/)
  const found: { type: string; codes: Map<number, string[]> }[] = []
  let section = ''
  for (let i = 0; i + 1 < lines.length; i += 2) {
    const code = Number(lines[i])
    const value = (lines[i + 1] ?? '').trim()
    if (code === 2 && lines[i - 1]?.trim() === 'SECTION') section = value
    if (section !== 'ENTITIES') continue
    if (code === 0) found.push({ type: value, codes: new Map() })
    else {
      const codes = found.at(-1)?.codes
      codes?.set(code, [...(codes.get(code) ?? []), value])
    }
  }
  return found
}

describe('a plate as a drawing', () => {
  test('DXF: every round where it is and as large as it is, in mm, by layers', async () => {
    const dxf = await drawing('front.dxf')
    expect(dxf).toMatch(/\$INSUNITS\s+70\s+4\s/)
    const all = entities(dxf)
    const circles = all.filter((e) => e.type === 'CIRCLE')
    const round = (e: (typeof all)[number]) => [8, 10, 20, 40].map((code) => e.codes.get(code)?.[0])
    expect(circles.map(round)).toEqual([
      ['HOLES', '0', '0', '0.85'],
      ['PILLARS', '-24', '44', '3'],
    ])
    // A hole that nobody measured is a point.
    const [point] = all.filter((e) => e.type === 'POINT')
    expect([10, 20].map((code) => point?.codes.get(code)?.[0])).toEqual(['12.345', '36'])
    const [edge] = all.filter((e) => e.type === 'LWPOLYLINE')
    expect(edge?.codes.get(10)?.map(Number)).toEqual(EDGE.map((p) => p.xMm))
    expect(edge?.codes.get(20)?.map(Number)).toEqual(EDGE.map((p) => p.yMm))
    expect(edge?.codes.get(70)).toEqual(['1'])
    expect(all.filter((e) => e.type === 'TEXT').map((e) => e.codes.get(1)?.[0])).toEqual([
      'Centre, going',
      'Third <b>&, going',
      'Pillar',
    ])
  })

  test('SVG: at its true size, y upward, with names that can’t become markup', async () => {
    const svg = await drawing('front.svg')
    const [, width, height] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(svg) ?? []
    const [, box] = /viewBox="([^"]+)"/.exec(svg) ?? []
    const [left, top, across, down] = box!.split(' ').map(Number)
    expect([across, down]).toEqual([Number(width), Number(height)])
    for (const corner of EDGE) {
      expect(corner.xMm).toBeGreaterThan(left!)
      expect(corner.xMm).toBeLessThan(left! + across!)
      expect(-corner.yMm).toBeGreaterThan(top!)
      expect(-corner.yMm).toBeLessThan(top! + down!)
    }
    expect(svg).toContain('translate(12.345 -36)')
    expect(svg).toContain('<circle r="0.85"/>')
    expect(svg).toContain('M0 0H20')
    expect(svg).toContain('Third &lt;b&gt;&amp;, going')
    expect(svg).not.toContain('<b>')
    expect(svg).not.toContain('Screw')
    expect(await drawing('back.svg')).toContain('Screw')
  })

  test('what there is no drawing of is said', async () => {
    for (const name of ['front.pdf', 'side.svg', 'front', 'constructor.dxf', 'front.constructor'])
      await shop.request.get(`/api/jobs/${job.id}/plates/${name}`).expect(404)
    const bare = await shop.takeIn()
    const answer = await shop.request.get(`/api/jobs/${bare.job.id}/plates/front.svg`).expect(404)
    expect(JSON.stringify(answer.body)).toContain('not set out yet')
  })
})
