import type { ArcScale } from '@treadle/core'

const MARGIN_MM = 8
/** A line of known length stands on the sheet, so that a printer which shrinks it is found out. */
const CHECK_MM = 100

interface ScaleSheet {
  widthMm: number
  heightMm: number
  /** left end of the checking line */
  checkX: number
  checkY: number
}

/** How the sheet is laid out, mm. */
function scaleSheet(scale: ArcScale): ScaleSheet {
  const widthMm = Math.max(scale.widthMm, CHECK_MM) + 2 * MARGIN_MM
  return {
    widthMm,
    heightMm: scale.heightMm + 34 + 2 * MARGIN_MM,
    checkX: (widthMm - CHECK_MM) / 2,
    checkY: scale.heightMm + 26 + MARGIN_MM,
  }
}

/** The arc scale as an SVG at true size: one unit of its drawing is one millimetre of paper. */
export function scaleSvg(scale: ArcScale, title: string): string {
  const sheet = scaleSheet(scale)
  const middle = sheet.widthMm / 2
  const f = (n: number) => n.toFixed(3)
  const ticks = scale.ticks
    .map(
      (t) =>
        `<line x1="${f(middle + t.innerX)}" y1="${f(MARGIN_MM + t.innerY)}" x2="${f(middle + t.outerX)}" y2="${f(MARGIN_MM + t.outerY)}" stroke="#000" stroke-width="${t.size === 'whole' ? 0.35 : 0.2}"/>` +
        (t.size === 'whole'
          ? `<text x="${f(middle + t.outerX)}" y="${f(MARGIN_MM + t.outerY + 4)}" font-size="3.6" text-anchor="middle">${Math.abs(t.deg)}</text>`
          : ''),
    )
    .join('')
  const arc = scale.ticks
    .map((t, i) => `${i === 0 ? 'M' : 'L'}${f(middle + t.innerX)} ${f(MARGIN_MM + t.innerY)}`)
    .join('')
  const ends = [sheet.checkX, sheet.checkX + CHECK_MM]
    .map(
      (x) =>
        `<line x1="${f(x)}" y1="${f(sheet.checkY - 2)}" x2="${f(x)}" y2="${f(sheet.checkY + 2)}" stroke="#000" stroke-width="0.25"/>`,
    )
    .join('')
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${f(sheet.widthMm)}mm" height="${f(sheet.heightMm)}mm" viewBox="0 0 ${f(sheet.widthMm)} ${f(sheet.heightMm)}" font-family="sans-serif" fill="#000"><rect width="100%" height="100%" fill="#fff"/><path d="${arc}" fill="none" stroke="#000" stroke-width="0.25"/>${ticks}<text x="${f(middle)}" y="${f(sheet.checkY - 7)}" font-size="3.4" text-anchor="middle">${escaped(title)}</text><line id="check" x1="${f(sheet.checkX)}" y1="${f(sheet.checkY)}" x2="${f(sheet.checkX + CHECK_MM)}" y2="${f(sheet.checkY)}" stroke="#000" stroke-width="0.25"/>${ends}<text x="${f(middle)}" y="${f(sheet.checkY + 5)}" font-size="3" text-anchor="middle">this line must measure 100 mm</text></svg>`
}

function escaped(text: string): string {
  return text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`)
}
