import { turnFraction, type Compensation, type Needed } from '@treadle/core'
import { count, signed } from '../parts/say.ts'

/** A rate that is as near as this to what is asked is as it should be, s/day. */
const AS_IT_SHOULD = 2

/** What stands above the laboratory: whether it is as long as it should be, and what to do. */
export function headlineOf(needed: Needed): string {
  if (Math.abs(needed.secondsPerDay) < AS_IT_SHOULD) return 'As long as it should be'
  const off = Math.abs(needed.tooLongMm)
  return `${off >= 10 ? off.toFixed(0) : off.toFixed(off >= 1 ? 1 : 2)} mm too ${needed.tooLongMm > 0 ? 'long' : 'short'}`
}

/** "Raise all that rides on the nut by 3.3 mm: 4⅛ turns. The thread reaches." */
export function remedyOf(needed: Needed): string {
  const { lowerMm, turns, reaches, bobG } = needed
  if (Math.abs(needed.secondsPerDay) < AS_IT_SHOULD)
    return `It ${needed.secondsPerDay >= 0 ? 'gains' : 'loses'} ${Math.abs(needed.secondsPerDay).toFixed(2)} s a day as it hangs: the nut does the rest.`
  if (lowerMm === null) return 'No place of the bob on this rod beats so: another rod or bob is needed.'
  const way = lowerMm > 0 ? 'Lower' : 'Raise'
  const size = Math.abs(lowerMm)
  const mm = size >= 10 ? size.toFixed(0) : size.toFixed(1)
  const thread =
    reaches === null
      ? ' Measure the thread that is left, and it says whether the nut reaches.'
      : reaches
        ? ' The thread reaches.'
        : ` The thread does not reach: ${lowerMm > 0 ? 'a longer rod, or one that hangs lower' : 'a shorter rod, or one that hangs higher'}, by ${mm} mm${bobG === null ? '' : `; or a bob of ${Math.round(bobG)} g in this one’s place`}.`
  const turned = turns === null ? '' : `: ${turnFraction(Math.abs(turns))} ${Math.abs(turns) > 1.06 ? 'turns' : 'turn'}`
  return `It ${needed.secondsPerDay > 0 ? 'gains' : 'loses'} ${seconds(needed.secondsPerDay)} a day. ${way} all that rides on the nut by ${mm} mm${turned}.${thread}`
}

function seconds(perDay: number): string {
  const size = Math.abs(perDay)
  return size >= 600 ? count(Math.round(size / 60), 'minute') : `${size.toFixed(size >= 10 ? 0 : 1)} s`
}

const PARTS = { jar: 'column', sleeve: 'sleeve', gridiron: 'rising rods' } as const

/** What holds it from summer to winter, or would. */
export function compensationWords(
  way: Compensation,
  perC: number,
  material: string,
): { title: string; words: string; state: 'sound' | 'watch' | 'none' } {
  const { what, lengthMm, rightMm, index } = way
  const seasons = `As it is, 12 degrees between the seasons move it by ${Math.abs(12 * perC).toFixed(1)} s a day.`
  if (index === null)
    return {
      title:
        rightMm === null
          ? 'No zinc sleeve would hold it from summer to winter'
          : `To hold it from summer to winter: a zinc sleeve ${rightMm.toFixed(0)} mm long under the bob`,
      words: seasons,
      state: 'none',
    }
  const part = `${material} ${PARTS[what]}`
  if (rightMm === null || lengthMm === null)
    return { title: `No length of its ${part} would do`, words: seasons, state: 'watch' }
  const off = lengthMm - rightMm
  if (Math.abs(perC) < 0.01)
    return {
      title: `Its ${part} holds it from summer to winter`,
      words: `${signed(perC, 3)} s a day for a degree. ${seasons}`,
      state: 'sound',
    }
  return {
    title: `${off > 0 ? 'Over' : 'Under'}-compensated: its ${part} ${what === 'gridiron' ? 'are' : 'is'} ${Math.abs(off).toFixed(1)} mm too ${what === 'jar' ? (off > 0 ? 'high' : 'low') : off > 0 ? 'long' : 'short'}`,
    words: `${rightMm.toFixed(1)} mm ${what === 'gridiron' ? 'each ' : ''}would hold it; with ${lengthMm.toFixed(1)} mm it ${perC > 0 ? 'gains' : 'loses'} ${Math.abs(perC).toFixed(3)} s a day for each degree warmer. ${seasons}`,
    state: 'watch',
  }
}
