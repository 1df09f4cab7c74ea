import { outlineOfPart, type FlatPoint, type PartDrawing } from '@treadle/core'
import { escaped, mm } from '../plates/svgWords.ts'

const MARGIN_MM = 8
const RULER_MM = 20
const WORDS_MM = 2.4
const LINE_MM = 3.6

/** A turned part as SVG at its true size, from the side, its sizes beneath it and a ruler to check a print by. */
export function partSvg(drawing: PartDrawing, name: string): string {
  return drawing.flat ? flatSvg(drawing, drawing.flat, name) : turnedSvg(drawing, name)
}

/** A flat part from above, with the cross of its middle. */
function flatSvg(drawing: PartDrawing, flat: FlatPoint[], name: string): string {
  const r = drawing.lengthMm / 2
  const [x, y] = [MARGIN_MM + r, MARGIN_MM + r]
  const edge = `M${flat.map((p) => `${mm(x + p.xMm)} ${mm(y - p.yMm)}`).join('L')}Z`
  const bore = (drawing.bore?.diameterMm ?? 0) / 2
  const shapes = `<path d="${edge}"/>
<circle cx="${mm(x)}" cy="${mm(y)}" r="${mm(bore)}"/>
<path class="axis" d="M${mm(x - bore - 3)} ${mm(y)}h${mm(2 * bore + 6)}M${mm(x)} ${mm(y - bore - 3)}v${mm(2 * bore + 6)}"/>`
  return sheetSvg(drawing, name, { wideMm: 2 * r, highMm: 2 * r, shapes })
}

function turnedSvg(drawing: PartDrawing, name: string): string {
  const half = outlineOfPart(drawing)
  const widest = Math.max(...half.map((p) => p.radiusMm))
  const middle = MARGIN_MM + widest
  const upper = half.map((p) => `${mm(MARGIN_MM + p.alongMm)} ${mm(middle - p.radiusMm)}`)
  const lower = half.toReversed().map((p) => `${mm(MARGIN_MM + p.alongMm)} ${mm(middle + p.radiusMm)}`)
  const bore = drawing.bore
    ? [-1, 1]
        .map((side) => {
          const y = mm(middle + (side * (drawing.bore?.diameterMm ?? 0)) / 2)
          const from = mm(MARGIN_MM + drawing.lengthMm - (drawing.bore?.depthMm ?? 0))
          return `<path class="hidden" d="M${from} ${y}H${mm(MARGIN_MM + drawing.lengthMm)}"/>`
        })
        .join('')
    : ''
  const shapes = `<path d="M${[...upper, ...lower].join('L')}Z"/>${bore}
<path class="axis" d="M${MARGIN_MM - 3} ${mm(middle)}H${mm(MARGIN_MM + drawing.lengthMm + 3)}"/>`
  return sheetSvg(drawing, name, { wideMm: drawing.lengthMm, highMm: 2 * widest, shapes })
}

/** A drawing on its sheet: its name above, its sizes and a ruler beneath. */
function sheetSvg(
  drawing: PartDrawing,
  name: string,
  { wideMm, highMm, shapes }: { wideMm: number; highMm: number; shapes: string },
): string {
  const lines = sizesInWords(drawing)
  const width = Math.max(wideMm, RULER_MM + 50) + 2 * MARGIN_MM
  const height = highMm + 3 * MARGIN_MM + (lines.length + 1) * LINE_MM
  const title = `${drawing.part}${name === '' ? '' : `, ${name}`}`
  const words = lines.map(
    (line, i) => `<text x="${MARGIN_MM}" y="${mm(highMm + 2 * MARGIN_MM + (i + 1) * LINE_MM)}">${escaped(line)}</text>`,
  )
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${mm(width)}mm" height="${mm(height)}mm" viewBox="0 0 ${mm(width)} ${mm(height)}">
<title>${escaped(title)}</title>
<style>path,circle{fill:none;stroke:#1b1d22;stroke-width:.15}.hidden{stroke-dasharray:1 .6}.axis{stroke-dasharray:3 .6 .6 .6;stroke-width:.1}text{font:${WORDS_MM}px serif;fill:#1b1d22}</style>
${shapes}
<text x="${MARGIN_MM}" y="5">${escaped(title)}</text>
${words.join('\n')}
<g transform="translate(${MARGIN_MM} ${mm(height - 3)})"><path d="M0 -1V1M0 0H${RULER_MM}M${RULER_MM} -1V1"/><text x="${RULER_MM + 1.5}" y=".8">${RULER_MM} mm; print at full size</text></g>
</svg>
`
}

/** Every size with its tolerance, as a turner reads it. */
export function sizesInWords({ sections, bore, flat, lengthMm, rodMm, material }: PartDrawing): string[] {
  const tolerance = (of: { aboveMm: number; belowMm: number }) => `+${of.aboveMm} −${of.belowMm}`
  if (flat)
    return [
      `across: ${lengthMm.toFixed(2)}; bore: Ø ${bore?.diameterMm.toFixed(2) ?? '?'}, broached to its arbor`,
      `from ${material}, ${rodMm} mm thick; all in mm`,
    ]
  return [
    ...sections.map((s) => `${s.name}: Ø ${s.diameterMm.toFixed(2)} ${tolerance(s)}, ${s.lengthMm.toFixed(2)} long`),
    ...(bore
      ? [`bore: Ø ${bore.diameterMm.toFixed(2)} ${tolerance(bore)}, ${bore.depthMm.toFixed(2)} deep, then broached`]
      : []),
    `from ${material}, ${rodMm} mm; all in mm`,
  ]
}
