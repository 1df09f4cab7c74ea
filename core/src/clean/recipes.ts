/** What a bath does to what is put in it. */
export const BATH_KINDS = ['ammoniated', 'non-ammoniated', 'spirit', 'chelating'] as const
export type BathKind = (typeof BATH_KINDS)[number]

/** A bath of the workshop: its own recipe, of one of the kinds. */
export interface Bath {
  key: string
  title: string
  kind: BathKind
  minutes: number
  /** to be done at once when it ends, with its minutes */
  then: { title: string; minutes: number }[]
  caution: string
}

/** Rules of thumb; the workshop's own recipes and its makers' sheets go first. */
export const DEFAULT_BATHS: Bath[] = [
  {
    key: 'ammoniated',
    title: 'Ammoniated bath, ultrasonic',
    kind: 'ammoniated',
    minutes: 8,
    then: [
      { title: 'Rinse at once, three changes of water', minutes: 5 },
      { title: 'Dry warm at once', minutes: 20 },
    ],
    caution:
      'Fumes: ventilate, gloves and eye protection. Brass left in it can crack under stress: never longer than the recipe, rinse and dry at once. No fingers in a running ultrasonic tank.',
  },
  {
    key: 'non-ammoniated',
    title: 'Non-ammoniated bath, ultrasonic',
    kind: 'non-ammoniated',
    minutes: 12,
    then: [
      { title: 'Rinse in clean water', minutes: 5 },
      { title: 'Dry warm at once', minutes: 20 },
    ],
    caution: 'Leaves colour and lacquer. No fingers in a running ultrasonic tank.',
  },
  {
    key: 'spirit',
    title: 'Cleaning spirit, by hand',
    kind: 'spirit',
    minutes: 10,
    then: [{ title: 'Air dry, away from flame', minutes: 30 }],
    caution: 'Flammable, with fumes: no flame, no spark, never in an ultrasonic tank. Keep to its safety sheet.',
  },
  {
    key: 'chelating',
    title: 'Rust bath, chelating',
    kind: 'chelating',
    minutes: 120,
    then: [
      { title: 'Rinse and dry warm at once', minutes: 15 },
      { title: 'Oil lightly', minutes: 2 },
    ],
    caution: 'Gloves and eye protection. Look at it every half hour; stop when the rust is gone.',
  },
]
