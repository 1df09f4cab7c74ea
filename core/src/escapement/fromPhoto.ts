import { FieldError } from '../check/require.ts'
import { distanceMm, type Point } from '../plate/point.ts'
import { trued, type Pixel, type Trueing } from '../plate/trueing.ts'

export interface TappedPallets {
  palletEntry: Point[]
  palletExit: Point[]
  centreDistanceMm: number
}

/**
 * Pallets tapped on a photo that was made true: outlines about the pallets’ arbor, mm, turned so that the wheel’s arbor
 * stands straight below, and how far it is.
 *
 * @param arbors - of the pallets, then of the wheel
 * @throws FieldError where the two arbors are in one place
 */
export function palletsFromPhoto(
  trueing: Trueing,
  arbors: [Pixel, Pixel],
  entry: Pixel[],
  exit: Pixel[],
): TappedPallets {
  const [pallets, wheel] = [trued(trueing, arbors[0]), trued(trueing, arbors[1])]
  const centreDistanceMm = distanceMm(pallets, wheel)
  if (centreDistanceMm < 0.1)
    throw new FieldError('arbors', centreDistanceMm, 'the two arbors must stand apart from each other')
  // Turned about the pallets' arbor until the wheel's is straight down.
  const a = Math.atan2(wheel.xMm - pallets.xMm, -(wheel.yMm - pallets.yMm))
  const about = (p: Pixel): Point => {
    const at = trued(trueing, p)
    const [x, y] = [at.xMm - pallets.xMm, at.yMm - pallets.yMm]
    return { xMm: x * Math.cos(a) + y * Math.sin(a), yMm: -x * Math.sin(a) + y * Math.cos(a) }
  }
  return { palletEntry: entry.map(about), palletExit: exit.map(about), centreDistanceMm }
}
