import { FieldError, requireCount } from '../check/require.ts'

export const TURNS = ['clockwise', 'anticlockwise'] as const
export type Turn = (typeof TURNS)[number]

/** Which way each arbor of a train turns, as seen from the front: every mesh turns it about. */
export function trainDirections(meshes: number, first: Turn): Turn[] {
  requireCount('meshes', meshes, 0, 20)
  if (!TURNS.includes(first)) throw new FieldError('first', first, 'it must be clockwise or anticlockwise')
  return Array.from({ length: meshes + 1 }, (_, i) => (i % 2 === 0 ? first : opposite(first)))
}

export function opposite(turn: Turn): Turn {
  return turn === 'clockwise' ? 'anticlockwise' : 'clockwise'
}
