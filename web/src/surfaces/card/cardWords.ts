import type { Language } from '@treadle/contract'
import { seasonInWords, type SeasonAhead } from '@treadle/core'
import { dayIn } from '../../parts/say.ts'
import type { CardFacts } from './cardFacts.ts'

/** All that a card can say, in one language: a language is whole when it has every one of these. */
export interface CardWords {
  /** of the calendar: month and year, a day */
  month: (day: string) => string
  day: (day: string) => string
  job: (owner: string, number: number, day: string) => string
  titles: Record<'setUp' | 'beat' | 'winding' | 'hands' | 'dial' | 'rate' | 'care' | 'done' | 'promise', string>
  hang: string
  standTall: string
  stand: string
  hangPendulum: (weights: boolean) => string
  twoPeople: string
  listen: string
  limps: (hangs: boolean) => string
  setHere: string
  setInPlace: string
  notSet: string
  wind: (days: number | null) => string
  windToStop: (trains: number) => string
  minuteHand: (strikes: boolean) => string
  outOfStep: string
  goingAway: string
  moonGoes: string
  moonStands: string
  calendarGoes: string
  calendarStands: string
  leaveNut: string
  nut: (perTurn: number | null) => string
  nutBySeason: string
  waitAWeek: string
  season: (season: SeasonAhead) => string | null
  weights: string
  spring: string
  mercury: string
  record: string
  neverOil: string
  oilPulleys: string
  moved: string
  nothingDone: string
  parted: (cleaned: boolean) => string
  bushed: (bushed: CardFacts['done']['bushed']) => string
  mended: (lines: string[]) => string[]
  beat: (before: string, after: string) => string
  oiled: string
  drive: (drive: NonNullable<CardFacts['done']['drive']>) => string
  strikeCounted: string
  rate: (rate: NonNullable<CardFacts['done']['rate']>) => string
  stopGap: string
  due: (checkOn: string, serviceOn: string) => string
  guarantee: (from: string, until: string) => string
  scan: string
}

const MONTH: Intl.DateTimeFormatOptions = { month: 'long', year: 'numeric' }
const DAY: Intl.DateTimeFormatOptions = { day: 'numeric', month: 'long', year: 'numeric' }

const EN: CardWords = {
  month: dayIn('en-GB', MONTH),
  day: dayIn('en-GB', DAY),
  job: (owner, number, day) => `${owner}, job ${number}, ${day}`,
  titles: {
    setUp: 'Setting it up',
    beat: 'Is it in beat?',
    winding: 'Winding',
    hands: 'Setting the hands',
    dial: 'Moon and date',
    rate: 'Fast or slow',
    care: 'Take care',
    done: 'What was done',
    promise: 'Due, and guarantee',
  },
  hang: 'Hang it on a firm hook on a solid wall, plumb, out of sun and draught and away from a radiator.',
  standTall:
    'Stand it on a solid floor, not on deep carpet, and fix the case to the wall with a spacer as thick as the skirting.',
  stand: 'Stand it level on a firm shelf, out of sun and draught; not on a cupboard with drawers.',
  hangPendulum: (weights) =>
    `Hang the pendulum${weights ? ', then each weight on its own line with the line in its pulley, the weight last so that nothing falls' : ''}. The rod goes through the middle of the crutch.`,
  twoPeople: 'Two people move the case: without its movement it is top-heavy.',
  listen: 'Listen: tick and tock must be evenly spaced, like a walking step. If it limps, it will stop.',
  limps: (hangs) =>
    `If it limps, ${hangs ? 'swing the bottom of the case a little to one side' : 'put a card under one side of the case'}, and listen again; whichever way makes it even is right.`,
  setHere: 'It was set even in our shop and needs it once more in its place.',
  setInPlace: 'It was set even where it stands: if it is moved it needs it again.',
  notSet: 'We did not set it.',
  wind: (days) =>
    days === null
      ? 'Wind it on the same day each week.'
      : days === 1
        ? 'Wind it every day at the same hour.'
        : `Wind it every ${days} days, always on the same weekday.`,
  windToStop: (trains) =>
    `${trains > 1 ? 'Wind every square. ' : ''}Wind gently all the way to the stop: a healthy clock can’t be overwound. Hold the case with the other hand.`,
  minuteHand: (strikes) =>
    `Move the minute hand only, and only forward${strikes ? ', and let it finish each strike before you go on' : ''}. If you feel resistance, stop.`,
  outOfStep: 'If it strikes otherwise than the hands show, don’t force it: ring us, it takes a minute to put right.',
  goingAway:
    'If you go away, stop the pendulum; start it again when the true time comes round to what the clock shows.',
  moonGoes: 'Moon: forward only, one click at a time, until it looks like the sky’s; full stands at the top.',
  moonStands: 'Its moon stands still; leave it as it is.',
  calendarGoes: 'Date: after a month of less than 31 days move it on by hand, forward.',
  calendarStands: 'Its calendar stands still; leave it as it is.',
  leaveNut: 'Leave the nut under the bob to us: tell us how much it gains or loses in a week.',
  nut: (perTurn) => {
    const figure =
      perTurn === null
        ? 'A small turn does much.'
        : `On this clock one full turn of the nut to the right gains about ${Math.round(perTurn)} seconds a day${perTurn >= 20 ? `, a quarter turn ${Math.round(perTurn / 4)}` : ''}.`
    return `Under the bob is a nut. To the right raises the bob and the clock goes faster; to the left lowers it: lower is slower. ${figure}`
  },
  nutBySeason:
    'A little slower in winter, a little faster in summer is the warmth’s doing: set it right at each winding.',
  waitAWeek: 'Turn once, then wait a week before you judge it.',
  season: seasonInWords,
  weights: 'Weights are heavy: take them off before the clock is moved, and keep feet and children clear.',
  spring: 'There is a strong spring inside. Leave the movement to somebody trained.',
  mercury:
    'The jar of its pendulum holds mercury, which is poisonous: never tip, open or carry it. Ring us before the clock is moved. If any is spilt leave the room, open a window, and ring us.',
  record:
    'If it stops or limps, hold your telephone against its case, record its sound for a minute and send us that: it often tells us what is wrong before anybody drives out.',
  neverOil: 'Never oil it yourself: household oil ruins it.',
  oilPulleys:
    'Once a year one small drop of clock oil on each pulley’s axle, and none anywhere else: household oil ruins it.',
  moved: 'If you move it, have its beat looked at again.',
  nothingDone: 'Nothing: it goes back as it came.',
  parted: (cleaned) => (cleaned ? 'Taken apart and cleaned.' : 'Taken apart.'),
  bushed: ({ holes, where }) => `${holes} worn ${holes === 1 ? 'hole' : 'holes'} bushed: ${where}.`,
  mended: (lines) => lines,
  beat: (before, after) => `Set in beat: ${before} ms out when it came, ${after} ms when it left.`,
  oiled: 'Oiled where it should be, dry where it should be.',
  drive: ({ before, now, unit }) => `It needed ${before} ${unit} to keep going when it came, and ${now} ${unit} now.`,
  strikeCounted: 'Its strike was counted right round the dial, and every hour is right.',
  rate: ({ nut, secondsPerDay, error, readings }) =>
    `${nut ? 'Regulated' : 'Its rate'}: it ${secondsPerDay >= 0 ? 'gains' : 'loses'} ${Math.abs(secondsPerDay).toFixed(1)} ± ${error.toFixed(1)} seconds a day, from ${readings} readings.`,
  stopGap: 'It was oiled in place, fresh oil on old: a stop-gap.',
  due: (checkOn, serviceOn) =>
    `Its oil should be looked at in ${checkOn}, and the clock serviced in ${serviceOn}, even if it still goes.`,
  guarantee: (from, until) => `Our guarantee is from ${from} to ${until}.`,
  scan: 'This card on our own page',
}

const DE: CardWords = {
  month: dayIn('de-DE', MONTH),
  day: dayIn('de-DE', DAY),
  job: (owner, number, day) => `${owner}, Auftrag ${number}, ${day}`,
  titles: {
    setUp: 'Aufstellen',
    beat: 'Tickt sie gleichmäßig?',
    winding: 'Aufziehen',
    hands: 'Zeiger stellen',
    dial: 'Mond und Datum',
    rate: 'Vor oder nach',
    care: 'Bitte beachten',
    done: 'Was gemacht wurde',
    promise: 'Wartung und Garantie',
  },
  hang: 'Lotrecht an einen festen Haken in einer massiven Wand hängen, ohne Sonne und Zugluft und nicht über eine Heizung.',
  standTall:
    'Auf festen Boden stellen, nicht auf dicken Teppich, und den Kasten an der Wand festschrauben, mit einem Klotz so dick wie die Fußleiste dazwischen.',
  stand: 'Waagerecht auf ein festes Bord stellen, ohne Sonne und Zugluft; nicht auf einen Schrank mit Schubladen.',
  hangPendulum: (weights) =>
    `Das Pendel einhängen${weights ? ', dann jedes Gewicht an seine eigene Saite, die Saite in der Rolle; die Gewichte zuletzt, damit nichts fällt' : ''}. Die Stange gehört mitten in die Gabel.`,
  twoPeople: 'Den Kasten tragen zwei: ohne Werk ist er oben schwer.',
  listen:
    'Hören Sie hin: Tick und Tack müssen gleich weit auseinander liegen, wie Schritte. Hinkt sie, bleibt sie stehen.',
  limps: (hangs) =>
    `Hinkt sie, ${hangs ? 'schieben Sie das untere Ende des Gehäuses ein wenig zur Seite' : 'legen Sie ein Stück Karton unter eine Seite'} und hören Sie wieder hin; richtig ist, was sie gleichmäßig macht.`,
  setHere: 'Bei uns lief sie gleichmäßig; an ihrem Platz muss sie noch einmal eingestellt werden.',
  setInPlace: 'An ihrem Platz läuft sie gleichmäßig; wird sie bewegt, muss sie neu eingestellt werden.',
  notSet: 'Wir haben daran nichts eingestellt.',
  wind: (days) =>
    days === null
      ? 'Jede Woche am selben Tag aufziehen.'
      : days === 1
        ? 'Jeden Tag zur selben Stunde aufziehen.'
        : `Alle ${days} Tage aufziehen, immer am selben Wochentag.`,
  windToStop: (trains) =>
    `${trains > 1 ? 'Jedes Viereck aufziehen. ' : ''}Ruhig bis zum Anschlag: eine gesunde Uhr kann man nicht überdrehen. Mit der anderen Hand das Gehäuse halten.`,
  minuteHand: (strikes) =>
    `Nur den Minutenzeiger bewegen, nur vorwärts${strikes ? ', und jeden Schlag zu Ende schlagen lassen' : ''}. Spüren Sie Widerstand, hören Sie auf.`,
  outOfStep:
    'Schlägt sie anders, als die Zeiger stehen, nichts erzwingen: rufen Sie uns an, es ist in einer Minute behoben.',
  goingAway:
    'Wenn Sie verreisen, halten Sie das Pendel an; setzen Sie es wieder in Gang, wenn es so spät ist, wie die Uhr zeigt.',
  moonGoes: 'Mond: nur vorwärts, Zahn um Zahn, bis er aussieht wie am Himmel; der Vollmond steht oben.',
  moonStands: 'Ihr Mond steht still; lassen Sie ihn, wie er ist.',
  calendarGoes: 'Datum: nach einem Monat mit weniger als 31 Tagen von Hand weiterstellen, vorwärts.',
  calendarStands: 'Ihr Kalender steht still; lassen Sie ihn, wie er ist.',
  leaveNut:
    'Die Mutter unter der Pendellinse überlassen Sie uns: sagen Sie uns, wie viel sie in einer Woche vor- oder nachgeht.',
  nut: (perTurn) => {
    const figure =
      perTurn === null
        ? 'Eine kleine Drehung bewirkt viel.'
        : `Bei dieser Uhr bringt eine ganze Umdrehung nach rechts etwa ${Math.round(perTurn)} Sekunden am Tag${perTurn >= 20 ? `, eine Vierteldrehung ${Math.round(perTurn / 4)}` : ''}.`
    return `Unter der Pendellinse sitzt eine Mutter. Nach rechts hebt sie die Linse, und die Uhr geht schneller; nach links senkt sie sie: tiefer ist langsamer. ${figure}`
  },
  nutBySeason:
    'Dass sie im Winter anders geht als im Sommer, macht die Wärme: stellen Sie sie bei jedem Aufziehen richtig.',
  waitAWeek: 'Einmal drehen, dann eine Woche warten, ehe Sie urteilen.',
  season: ({ months, straysS }) => {
    if (straysS < 10) return null
    const by = (sign: 1 | -1) =>
      months.reduce((a, b) => (sign * b.secondsPerDay > sign * a.secondsPerDay ? b : a), months[0]!)
    const name = (month: number) => dayIn('de-DE', { month: 'long' })(`2026-${String(month).padStart(2, '0')}-01`)
    const [fast, slow] = [by(1), by(-1)]
    return `Durch die Wärme ihres Zimmers geht sie im ${name(fast.month)} bis zu ${Math.abs(fast.secondsPerDay).toFixed(1).replace('.', ',')} s am Tag vor und im ${name(slow.month)} ebenso viel nach: stellen Sie sie bei jedem Aufziehen richtig, nicht an der Mutter.`
  },
  weights: 'Gewichte sind schwer: nehmen Sie sie ab, ehe die Uhr bewegt wird; Füße und Kinder weg.',
  spring: 'Innen sitzt eine starke Feder. Überlassen Sie das Werk jemandem, der es gelernt hat.',
  mercury:
    'Im Gefäß des Pendels ist Quecksilber, das giftig ist: nie kippen, öffnen oder tragen. Rufen Sie uns an, ehe die Uhr bewegt wird. Ist etwas verschüttet, verlassen Sie das Zimmer, öffnen Sie ein Fenster und rufen Sie uns an.',
  record:
    'Bleibt sie stehen oder hinkt sie, halten Sie Ihr Telefon an das Gehäuse, nehmen Sie eine Minute lang auf und schicken Sie uns das: oft hören wir, was ihr fehlt, ehe jemand losfährt.',
  neverOil: 'Nie selbst ölen: Haushaltsöl verdirbt sie.',
  oilPulleys:
    'Einmal im Jahr ein kleiner Tropfen Uhrenöl auf jede Rollenachse und sonst nirgends hin: Haushaltsöl verdirbt sie.',
  moved: 'Wird sie bewegt, lassen Sie nachsehen, ob sie noch gleichmäßig tickt.',
  nothingDone: 'Nichts: sie geht zurück, wie sie kam.',
  parted: (cleaned) => (cleaned ? 'Zerlegt und gereinigt.' : 'Zerlegt.'),
  bushed: ({ holes }) => `${holes} ausgelaufene${holes === 1 ? 's Lagerloch' : ' Lagerlöcher'} neu gebuchst.`,
  mended: (lines) =>
    lines.length === 0 ? [] : [`An ${lines.length} ${lines.length === 1 ? 'Teil' : 'Teilen'} des Werks gearbeitet.`],
  beat: (before, after) =>
    `Gleichmäßig eingestellt: ${before} ms ungleich, als sie kam, ${after.replace('.', ',')} ms, als sie ging.`,
  oiled: 'Geölt, wo Öl hingehört, trocken, wo keines hingehört.',
  drive: ({ before, now, unit }) =>
    `Zum Gehen brauchte sie ${decimal(before)} ${unit}, als sie kam, und ${decimal(now)} ${unit} jetzt.`,
  strikeCounted: 'Der Schlag wurde rund um das Zifferblatt gezählt; jede Stunde stimmt.',
  rate: ({ nut, secondsPerDay, error, readings }) =>
    `${nut ? 'Reguliert' : 'Ihr Gang'}: sie geht ${decimal(Number(Math.abs(secondsPerDay).toFixed(1)))} ± ${decimal(Number(error.toFixed(1)))} Sekunden am Tag ${secondsPerDay >= 0 ? 'vor' : 'nach'}, aus ${readings} Ablesungen.`,
  stopGap: 'Sie wurde im Gehäuse geölt, frisches Öl auf altes: das hilft nur eine Weile.',
  due: (checkOn, serviceOn) =>
    `Ihr Öl sollte im ${checkOn} angesehen und die Uhr im ${serviceOn} überholt werden, auch wenn sie noch geht.`,
  guarantee: (from, until) => `Unsere Garantie gilt vom ${from} bis zum ${until}.`,
  scan: 'Diese Karte auf unserer Seite',
}

function decimal(value: number): string {
  return String(value).replace('.', ',')
}

export const CARD_WORDS: Record<Language, CardWords> = { en: EN, de: DE }
