import type { JobPage, Language, OilRow, Settings } from '@treadle/contract'
import { dayToday } from '../../parts/say.ts'
import { cardFacts, type CardDone, type CardFacts } from './cardFacts.ts'
import { CARD_WORDS, type CardWords } from './cardWords.ts'

export interface CardSection {
  title: string
  lines: string[]
}

export interface OwnerCard {
  sections: CardSection[]
  done: string[]
  due: string
  /** empty: none is given */
  guarantee: string
}

/** The owner's own card, in plain words of a language, from what was measured, done and chosen for this clock. */
export function ownerCard(
  data: JobPage,
  oils: OilRow[],
  settings: Settings,
  language: Language = 'en',
  today = dayToday(),
): OwnerCard {
  const facts = cardFacts(data, oils, settings, today)
  const words = CARD_WORDS[language]
  return {
    sections: sectionsOf(facts, words).filter((s) => s.lines.length > 0),
    done: doneInWords(facts.done, words),
    due: dueInWords(facts, words),
    guarantee:
      facts.guarantee === null
        ? ''
        : words.guarantee(words.day(facts.guarantee.from), words.day(facts.guarantee.until)),
  }
}

function sectionsOf(facts: CardFacts, words: CardWords): CardSection[] {
  const { hangs, tall, weights, springs, strikes, choices, titles } = { ...facts, titles: words.titles }
  const said = (...lines: (string | false | null)[]) => lines.filter((l): l is string => typeof l === 'string')
  const placed = facts.inPlace ? words.setInPlace : facts.set ? words.setHere : words.notSet
  return [
    {
      title: titles.setUp,
      lines: said(
        hangs ? words.hang : tall ? words.standTall : words.stand,
        words.hangPendulum(weights),
        tall && words.twoPeople,
      ),
    },
    { title: titles.beat, lines: said(words.listen, `${words.limps(hangs)} ${placed}`) },
    { title: titles.winding, lines: said(words.wind(facts.days), words.windToStop(facts.trains)) },
    {
      title: titles.hands,
      lines: said(words.minuteHand(strikes), strikes && facts.countWheel && words.outOfStep, words.goingAway),
    },
    {
      title: titles.dial,
      lines: said(
        { none: null, goes: words.moonGoes, stands: words.moonStands }[facts.moon],
        { none: null, goes: words.calendarGoes, stands: words.calendarStands }[facts.calendar],
      ),
    },
    {
      title: titles.rate,
      lines: said(
        facts.season && words.season(facts.season),
        choices.regulates ? words.nut(facts.perTurn) : words.leaveNut,
        choices.regulates && choices.seasons && words.nutBySeason,
        choices.regulates && words.waitAWeek,
      ),
    },
    {
      title: titles.care,
      lines: said(
        facts.mercury && words.mercury,
        weights && words.weights,
        springs && words.spring,
        words.record,
        `${choices.oilsPulleys && weights ? words.oilPulleys : words.neverOil} ${words.moved}`,
      ),
    },
  ]
}

function doneInWords(done: CardDone, words: CardWords): string[] {
  if (done.untouched) return [words.nothingDone]
  return [
    ...(done.parted ? [words.parted(done.cleaned)] : []),
    ...(done.bushed.holes > 0 ? [words.bushed(done.bushed)] : []),
    ...words.mended(done.mended),
    ...(done.beat ? [words.beat(done.beat.before, done.beat.after)] : []),
    ...(done.oiled ? [words.oiled] : []),
    ...(done.drive ? [words.drive(done.drive)] : []),
    ...(done.strikeCounted ? [words.strikeCounted] : []),
    ...(done.rate ? [words.rate(done.rate)] : []),
  ]
}

function dueInWords({ due }: CardFacts, words: CardWords): string {
  if (due === null) return ''
  return `${due.stopGap ? `${words.stopGap} ` : ''}${words.due(words.month(due.checkOn), words.month(due.serviceOn))}`
}
