/** One picture of a film, grey: one byte a pixel, row by row from the top left. */
export interface GreyFrame {
  width: number
  height: number
  grey: Uint8Array | Uint8ClampedArray
  /** when it was taken, s */
  atS: number
}

/** A place in the picture, pixels right and down from the top left; fractions count. */
export interface Place {
  x: number
  y: number
}
