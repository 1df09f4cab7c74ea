import { step, type WorkStep } from '../steps/step.ts'

/** What becomes of the mercury of a pendulum that is to be moved or mended. */
export const MERCURY_WAYS = ['keep', 'shot', 'hand-over'] as const
export type MercuryWay = (typeof MERCURY_WAYS)[number]
export const MERCURY_WAY_TITLES: Record<MercuryWay, string> = {
  keep: 'Keep it: decant, carry, fill again',
  shot: 'Inert shot in its place',
  'hand-over': 'Hand it over to those licensed',
}

/** What the local authority is asked, and the answers kept: the law is theirs to say. */
export const MERCURY_QUESTIONS = [
  ['hold', 'May this workshop hold and decant mercury that belongs to a clock, and how much?'],
  ['who', 'What training or licence must the person have who does it?'],
  ['carry', 'In what, how much of it, and with which papers may it be carried on the road?'],
  ['waste', 'Where do drops, rags and gloves go, and in what?'],
  ['spill', 'Whom do we call for a spill, and from what amount on?'],
  ['sell', 'May a clock with mercury be sold, or leave the country?'],
] as const

/** What must be so before a cap is opened. */
export const MERCURY_GATE = [
  ['may', 'The authority was asked, and the person who does it may do it'],
  [
    'room',
    'A room with a window open across from another, no carpet, no heater, nobody else and no child or animal in it',
  ],
  ['tray', 'A tray with sides under everything, on a table at elbow height'],
  ['wear', 'Gloves, covered eyes, no gold ring, watch or bracelet; sleeves closed'],
  ['bottles', 'Glass or plastic bottles with screw lids, in a second container with packing; never aluminium'],
  ['kit', 'The spill kit open beside it: cards, dropper, powder, bags. No vacuum cleaner, no broom'],
] as const

const VAPOUR = 'Mercury vapour harms and is not smelt: window open, cap on whenever you do not pour.'
const LAW = 'What the local authority says goes before this.'

/** The steps by which mercury leaves its jar, is carried, and comes back, or does not. */
export function mercurySteps(way: MercuryWay): WorkStep[] {
  const out = [
    step('weigh-before', 'Weigh the jar, full and capped', 'To a tenth of a gram, as it hung. Write it below.'),
    step(
      'decant',
      'Decant, small from large',
      'By a dropper held upright, or over the lip of a small spout, slowly, inside the tray: small mouth from large, never large poured into small.',
      VAPOUR,
    ),
    step('film', 'Close it', 'A film under the cork or lid, so that nothing corrodes; lid tight; the bottle upright.'),
    step(
      'weigh-after',
      'Weigh what is left, and the bottles',
      'The empty jar with its cap, and each bottle less its own weight.',
    ),
    step(
      'label',
      'Label it',
      'MERCURY, how much, of which clock, whose, the day, this workshop’s name and telephone; the danger label that local law asks.',
    ),
  ]
  if (way === 'hand-over')
    return [
      ...out,
      step(
        'handed',
        'Hand it over against a paper',
        'To those licensed, who sign for the weight. The paper goes into the clock’s file.',
        LAW,
      ),
    ]
  if (way === 'shot')
    return [
      ...out,
      step(
        'shot',
        'Shot of the same weight of pendulum',
        'Weigh it in until the pendulum is as heavy as it was, and note what compensation is lost: the pendulum’s own sheet reckons it. The mercury itself is kept, sealed and labelled, with the clock, or handed over.',
        LAW,
      ),
      step('told', 'The owner agreed, in writing', 'Nothing original leaves a clock without its owner’s word.'),
    ]
  return [
    ...out,
    step(
      'carry',
      'Carry it',
      'Upright, second container closed, wedged on the floor of the van, away from people; carriers and aircraft refuse it.',
      LAW,
    ),
    step(
      'fill',
      'Fill it in place',
      'The case fixed to the wall and locked first. Over the tray, slowly, to the old mark; cap on; weigh the bottles empty.',
      VAPOUR,
    ),
    step(
      'hang',
      'Look at what it hangs on',
      'Suspension, hanger and hook bear this weight or they are new. Then the door is locked.',
    ),
  ]
}

/** What is done when it was spilt. */
export const MERCURY_SPILT = [
  'Everybody out of the room; shut its door; open its window; heating off. Shoes that stood in it stay there.',
  'Gather drops with two cards from the outside in, and by the dropper; the small ones with the kit’s powder. Light held low shows them.',
  'Never a vacuum cleaner, a broom or the drain: they spread it as vapour.',
  'Drops, cards, rags and gloves in two bags, labelled, where the local rules say.',
  'More than a few drops, or into carpet, boards or a drain: call the authority or the fire brigade.',
]
