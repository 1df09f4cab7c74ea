/** A swing is told from the pictures of so many seconds before. */
export const HELD_S = 6
