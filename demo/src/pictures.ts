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
