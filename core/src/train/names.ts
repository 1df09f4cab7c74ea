/** The trains of a clock, in the order in which they are worked. */
export const TRAIN_NAMES = ['going', 'strike', 'chime'] as const
export type TrainName = (typeof TRAIN_NAMES)[number]
