/** What a workshop asks of a rate, and how well it wants to know it, s/day: settings with these defaults. */
export const RATE_TOLERANCE = 10
export const RATE_GOAL = 1
