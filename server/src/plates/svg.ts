import type { PlateOutlines } from '@treadle/core'
import { escaped, mm } from './svgWords.ts'

const MARGIN_MM = 8
const NAME_MM = 2.2
const RULER_MM = 20

/** One plate as SVG at its true size, as seen from the front, with a ruler to check a print by. */
export function plateSvg({ plate, edge, rounds }: PlateOutlines): string {
  const half = (across: number | null) => (across ?? 2) / 2
  const xs = [...edge.map((p) => p.xMm), ...rounds.flatMap((r) => [r.xMm - half(r.acrossMm), r.xMm + half(r.acrossMm)])]
  const ys = [...edge.map((p) => p.yMm), ...rounds.flatMap((r) => [r.yMm - half(r.acrossMm), r.yMm + half(r.acrossMm)])]
  const left = Math.min(0, ...xs) - MARGIN_MM
  const top = Math.max(0, ...ys) + MARGIN_MM
  const width = Math.max(RULER_MM, ...xs) + MARGIN_MM - left
  const height = top - Math.min(0, ...ys) + 2 * MARGIN_MM
  const outline =
    edge.length >= 3 ? `<path class="edge" d="M${edge.map((p) => `${mm(p.xMm)} ${mm(-p.yMm)}`).join('L')}Z"/>` : ''
  const drawn = rounds.map(({ name, kind, xMm, yMm, acrossMm }) => {
    const r = half(acrossMm)
    const round = acrossMm === null ? '' : `<circle r="${mm(r)}"/>`
    const arm = r + 0.6
    return `<g class="${kind}" transform="translate(${mm(xMm)} ${mm(-yMm)})"><title>${escaped(name)}</title>${round}<path d="M${mm(-arm)} 0H${mm(arm)}M0 ${mm(-arm)}V${mm(arm)}"/><text x="${mm(arm + 0.6)}" y="${mm(NAME_MM / 3)}">${escaped(name)}</text></g>`
  })
  const ruler = { x: left + MARGIN_MM, y: height - top - MARGIN_MM }
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${mm(width)}mm" height="${mm(height)}mm" viewBox="${mm(left)} ${mm(-top)} ${mm(width)} ${mm(height)}">
<title>${plate === 'front' ? 'Front' : 'Back'} plate, as seen from the front</title>
<style>path,circle{fill:none;stroke:#1b1d22;stroke-width:.15}.edge{stroke-width:.25}text{font:${NAME_MM}px serif;fill:#1b1d22}</style>
${[outline, ...drawn].filter((part) => part !== '').join('\n')}
<g transform="translate(${mm(ruler.x)} ${mm(ruler.y)})"><path d="M0 -1V1M0 0H${RULER_MM}M${RULER_MM} -1V1"/><text x="${RULER_MM + 1.5}" y=".8">${RULER_MM} mm; print at full size. ${plate === 'front' ? 'Front' : 'Back'} plate, as seen from the front.</text></g>
</svg>
`
}
