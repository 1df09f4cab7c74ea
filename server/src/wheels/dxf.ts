import { DxfWriter, LWPolylineFlags, point2d, point3d, Units } from '@tarikjabiri/dxf'
import { outlineOfPart, type PartDrawing } from '@treadle/core'
import { printable } from '../plates/printable.ts'
import { sizesInWords } from './svg.ts'

const WORDS_MM = 2

/** A part as DXF in mm: a turned one’s outline from the side, its middle on the x axis; a flat one’s from above. */
export function partDxf(drawing: PartDrawing, name: string): string {
  const dxf = new DxfWriter()
  dxf.setUnits(Units.Millimeters)
  for (const [i, layer] of ['OUTLINE', 'BORE', 'NAMES'].entries()) dxf.addLayer(layer, i + 1, 'Continuous')
  const half = outlineOfPart(drawing)
  const around = drawing.flat?.map((p) => point2d(p.xMm, p.yMm)) ?? [
    ...half.map((p) => point2d(p.alongMm, p.radiusMm)),
    ...half.toReversed().map((p) => point2d(p.alongMm, -p.radiusMm)),
  ]
  dxf.addLWPolyline(
    around.map((point) => ({ point })),
    { flags: LWPolylineFlags.Closed, layerName: 'OUTLINE' },
  )
  if (drawing.flat && drawing.bore) dxf.addCircle(point3d(0, 0), drawing.bore.diameterMm / 2, { layerName: 'BORE' })
  else if (drawing.bore) {
    const { diameterMm, depthMm } = drawing.bore
    for (const side of [-1, 1])
      dxf.addLine(
        point3d(drawing.lengthMm - depthMm, (side * diameterMm) / 2),
        point3d(drawing.lengthMm, (side * diameterMm) / 2),
        { layerName: 'BORE' },
      )
  }
  const below = -(drawing.flat ? drawing.lengthMm / 2 : Math.max(...half.map((p) => p.radiusMm))) - 2 * WORDS_MM
  const words = [`${drawing.part}${name === '' ? '' : `, ${name}`}`, ...sizesInWords(drawing)]
  words.forEach((line, i) =>
    dxf.addText(point3d(0, below - i * 1.6 * WORDS_MM), WORDS_MM, printable(line), { layerName: 'NAMES' }),
  )
  return dxf.stringify()
}
