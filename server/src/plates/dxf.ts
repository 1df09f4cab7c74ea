import { DxfWriter, LWPolylineFlags, point2d, point3d, Units } from '@tarikjabiri/dxf'
import type { PlateOutlines } from '@treadle/core'
import { printable } from './printable.ts'

const LAYERS = { edge: 'EDGE', hole: 'HOLES', pillar: 'PILLARS', screw: 'SCREWS', other: 'OTHER', name: 'NAMES' }
const NAME_MM = 2

/** One plate as DXF in mm, y up, as seen from the front: what it is cut or drilled by. */
export function plateDxf({ edge, rounds }: PlateOutlines): string {
  const dxf = new DxfWriter()
  dxf.setUnits(Units.Millimeters)
  Object.values(LAYERS).forEach((layer, i) => dxf.addLayer(layer, i + 1, 'Continuous'))
  if (edge.length >= 3)
    dxf.addLWPolyline(
      edge.map((p) => ({ point: point2d(p.xMm, p.yMm) })),
      { flags: LWPolylineFlags.Closed, layerName: LAYERS.edge },
    )
  for (const { name, kind, xMm, yMm, acrossMm } of rounds) {
    if (acrossMm === null) dxf.addPoint(xMm, yMm, 0, { layerName: LAYERS[kind] })
    else dxf.addCircle(point3d(xMm, yMm), acrossMm / 2, { layerName: LAYERS[kind] })
    // Names are free text: a line break would end the value and begin a code.
    const words = printable(name)
    dxf.addText(point3d(xMm + (acrossMm ?? 1) / 2 + 1, yMm - NAME_MM / 2), NAME_MM, words, { layerName: LAYERS.name })
  }
  return dxf.stringify()
}
