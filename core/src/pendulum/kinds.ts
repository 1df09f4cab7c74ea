export const SHEET_PARTS = ['rod', 'bob', 'nut', 'jar', 'sleeve', 'gridiron', 'tray', 'weight'] as const
export type SheetPartKind = (typeof SHEET_PARTS)[number]
export const BOB_SHAPES = ['disc', 'lens', 'cylinder', 'ball'] as const
export type BobShape = (typeof BOB_SHAPES)[number]
