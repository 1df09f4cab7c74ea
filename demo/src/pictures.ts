import type { PlateMapChange } from '@treadle/contract'
import sharp from 'sharp'

/** A drawn stand-in for a photograph: a dial on a bench, in the colours of a lamp-lit room. */
export async function dialPicture(seed: number): Promise<Uint8Array<ArrayBuffer>> {
  const hour = (seed * 47) % 360
  const minute = (seed * 101) % 360
  const marks = Array.from({ length: 60 }, (_, i) => {
    const long = i % 5 === 0
    return `<line x1="0" y1="-${long ? 268 : 280}" x2="0" y2="-292" stroke="#222" stroke-width="${long ? 7 : 2}" transform="rotate(${i * 6})"/>`
  }).join('')
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="900" viewBox="-600 -450 1200 900">
    <defs><radialGradient id="l" cx="45%" cy="35%"><stop offset="0" stop-color="#8b6f4e"/><stop offset="1" stop-color="#2e2318"/></radialGradient>
    <radialGradient id="d" cx="42%" cy="34%"><stop offset="0" stop-color="#fffdf4"/><stop offset="1" stop-color="#cfc4a4"/></radialGradient></defs>
    <rect x="-600" y="-450" width="1200" height="900" fill="url(#l)"/>
    <circle r="356" fill="#4a3018"/><circle r="330" fill="#b9924c"/><circle r="308" fill="url(#d)"/>${marks}
    <circle cx="-96" cy="40" r="15" fill="#3a3128"/><circle cx="96" cy="40" r="15" fill="#3a3128"/>
    <path d="M0 30 L-9 -150 L0 -196 L9 -150 Z" fill="#1d2350" transform="rotate(${hour})"/>
    <path d="M0 34 L-6 -210 L0 -272 L6 -210 Z" fill="#1d2350" transform="rotate(${minute})"/><circle r="14" fill="#1d2350"/></svg>`
  const jpeg = await sharp(Buffer.from(svg)).jpeg({ quality: 84 }).toBuffer()
  return new Uint8Array(jpeg)
}

const PARTS = [
  ['hand', /hand/i],
  ['barrel', /barrel/i],
  ['lever', /click|detent|suspension/i],
  ['cock', /plate|cock|bell|dial/i],
  ['wheel', /wheel|train|motion/i],
] as const

/** A drawn stand-in for a photograph of a part on the bench, by its name. */
export async function partPicture(part: string, seed: number): Promise<Uint8Array<ArrayBuffer>> {
  const kind = PARTS.find(([, words]) => words.test(part))?.[0] ?? 'screw'
  const teeth = Array.from(
    { length: 40 },
    (_, i) => `<rect x="-9" y="-252" width="18" height="40" transform="rotate(${i * 9})"/>`,
  ).join('')
  const drawn = {
    hand: '<path d="M0 120 L-24 -150 L0 -300 L24 -150 Z" fill="#1d2350"/><circle cy="40" r="34" fill="none" stroke="#1d2350" stroke-width="16"/>',
    screw:
      '<rect x="-26" y="-60" width="52" height="230" fill="#9a9ca2"/><rect x="-74" y="-120" width="148" height="62" rx="12" fill="#b9bbc0"/><path d="M-74 -89h148" stroke="#444" stroke-width="10"/>',
    wheel: `<g fill="#b9924c"><circle r="222"/>${teeth}</g><circle r="150" fill="#5a4630"/><path d="M-222 0h444M0 -222v444" stroke="#b9924c" stroke-width="26"/><circle r="42" fill="#b9924c"/>`,
    lever:
      '<path d="M-260 60 Q0 -90 250 30 L240 70 Q0 -40 -250 100 Z" fill="#a9abb1"/><circle cx="-236" cy="78" r="40" fill="#8b8d93"/>',
    cock: '<path d="M-160 200 V-40 Q-160 -180 0 -190 Q160 -180 160 -40 V200 H80 V-30 Q80 -100 0 -104 Q-80 -100 -80 -30 V200 Z" fill="#b9924c"/>',
    barrel:
      '<circle r="240" fill="#b9924c"/><circle r="212" fill="#a37f3d"/><circle r="52" fill="#8b8d93"/><rect x="-18" y="-18" width="36" height="36" fill="#333"/>',
  }[kind]
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="900" viewBox="-600 -450 1200 900">
    <defs><radialGradient id="l" cx="45%" cy="35%"><stop offset="0" stop-color="#c9bfa8"/><stop offset="1" stop-color="#7d7159"/></radialGradient></defs>
    <rect x="-600" y="-450" width="1200" height="900" fill="url(#l)"/><ellipse cy="230" rx="380" ry="60" fill="#000" opacity=".18"/>
    <g transform="rotate(${((seed * 37) % 60) - 30}) scale(${1.1 + (seed % 3) * 0.15})">${drawn}</g></svg>`
  return new Uint8Array(await sharp(Buffer.from(svg)).jpeg({ quality: 82 }).toBuffer())
}

/** A drawn stand-in for a photograph of a plate, square on, 10 pixels to the millimetre, its middle at 800, 650. */
export async function platePicture(
  map: Pick<PlateMapChange, 'arbors' | 'fixtures' | 'edge'>,
): Promise<Uint8Array<ArrayBuffer>> {
  const at = (x: number, y: number) => `${800 + 10 * x} ${650 - 10 * y}`
  const hole = (x: number, y: number, mm: number, fill: string) =>
    `<circle cx="${800 + 10 * x}" cy="${650 - 10 * y}" r="${5 * mm}" fill="${fill}" stroke="#6b5220" stroke-width="3"/>`
  const arbors = map.arbors.map((a) => hole(a.xMm ?? 0, a.yMm ?? 0, a.index === 0 ? 2.6 : 1.4, '#241c10')).join('')
  const pillars = map.fixtures.map((f) => hole(f.xMm, f.yMm, f.diameterMm, '#d9b866')).join('')
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1300" viewBox="0 0 1600 1300">
    <defs><linearGradient id="b" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#d8b65f"/><stop offset="0.5" stop-color="#b98f3e"/><stop offset="1" stop-color="#cda851"/></linearGradient></defs>
    <rect width="1600" height="1300" fill="#544a3c"/>
    <path d="M${map.edge.map((p) => at(p.xMm, p.yMm)).join('L')}Z" fill="url(#b)" stroke="#6b5220" stroke-width="6"/>
    ${pillars}${arbors}</svg>`
  return new Uint8Array(await sharp(Buffer.from(svg)).jpeg({ quality: 86 }).toBuffer())
}

/** A drawn stand-in for a photograph of oil sinks, each with its ring of oil. */
export async function sinksPicture(seed: number): Promise<Uint8Array<ArrayBuffer>> {
  const sinks = Array.from({ length: 6 }, (_, i) => {
    const [x, y] = [220 + ((i * 331 + seed * 97) % 780), 170 + ((i * 211 + seed * 53) % 560)]
    const r = 38 + ((i * 13 + seed) % 22)
    return `<circle cx="${x}" cy="${y}" r="${r}" fill="#a88337"/><circle cx="${x}" cy="${y}" r="${r * 0.74}" fill="#8a6526"/><circle cx="${x}" cy="${y}" r="${r * 0.3}" fill="#c9c9cc" stroke="#5f5f63" stroke-width="4"/><path d="M${x - r * 0.5} ${y - r * 0.35}a${r * 0.6} ${r * 0.6} 0 0 1 ${r * 0.5} -${r * 0.3}" stroke="#f4e6bd" stroke-width="5" fill="none" opacity=".8"/>`
  }).join('')
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="900"><defs><linearGradient id="b" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#d8b65f"/><stop offset=".5" stop-color="#b98f3e"/><stop offset="1" stop-color="#cda851"/></linearGradient></defs><rect width="1200" height="900" fill="url(#b)"/>${sinks}</svg>`
  return new Uint8Array(await sharp(Buffer.from(svg)).jpeg({ quality: 84 }).toBuffer())
}
