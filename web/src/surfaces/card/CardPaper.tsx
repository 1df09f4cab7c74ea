import type { JobPage, Language, OilRow, Settings } from '@treadle/contract'
import { USUAL_CARD } from '@treadle/contract'
import { dayThere, secondsOf } from '@treadle/core'
import { ClockGlyph } from '../../parts/ClockGlyph.tsx'
import { qrPath } from '../../parts/qr.ts'
import { dayToday } from '../../parts/say.ts'
import { CARD_WORDS } from './cardWords.ts'
import { ownerCard, type CardSection, type OwnerCard } from './ownerCard.ts'
import styles from './Card.module.css'

/** The owner's card as it is printed: in one language, or in two side by side. */
export function CardPaper({ data, oils, settings }: { data: JobPage; oils: OilRow[]; settings: Settings }) {
  const { job, clock, owner } = data
  const choices = clock.card ?? USUAL_CARD
  const today = dayToday()
  const dayClosed = job.closedAt === null ? today : dayThere(secondsOf(job.closedAt), settings.timeZone)
  const languages: Language[] =
    choices.second === '' || choices.second === choices.language
      ? [choices.language]
      : [choices.language, choices.second]
  const cards = languages.map((language) => ({ language, card: ownerCard(data, oils, settings, language, today) }))
  const words = CARD_WORDS[choices.language]
  const two = cards.length > 1
  const { path, size } = qrPath(`${settings.shopAddress || window.location.origin}/jobs/${job.id}/card`)
  return (
    <article
      className={[
        styles.card,
        styles[choices.paper],
        choices.largePrint ? styles.large : '',
        two ? styles.two : '',
      ].join(' ')}
      aria-label="The owner’s card"
      lang={choices.language}
    >
      <header>
        <div>
          <p className={styles.shop}>{[settings.workshop, settings.phone].filter(Boolean).join(', ')}</p>
          <h1>{clock.name}</h1>
          <p>{words.job(owner.name, job.number, words.day(dayClosed))}</p>
        </div>
        <figure className={styles.scan}>
          <svg viewBox={`0 0 ${size} ${size}`} role="img" aria-label={words.scan}>
            <path d={path} fill="currentColor" />
          </svg>
          <figcaption>{words.scan}</figcaption>
        </figure>
        <ClockGlyph kind={clock.kind} />
      </header>
      {two ? (
        <div className={styles.beside2}>
          {cards[0]!.card.sections.map((section, i) => (
            <div key={section.title} className={styles.pair}>
              {cards.map(({ language, card }) => (
                <Section key={language} language={language} section={card.sections[i]!} />
              ))}
            </div>
          ))}
        </div>
      ) : (
        <div className={styles.sections}>
          {cards[0]!.card.sections.map((section) => (
            <Section key={section.title} language={choices.language} section={section} />
          ))}
        </div>
      )}
      <footer>
        <div className={two ? styles.pair : undefined}>
          {cards.map(({ language, card }) => (
            <Foot key={language} language={language} card={card} />
          ))}
        </div>
      </footer>
    </article>
  )
}

function Section({ language, section }: { language: Language; section: CardSection }) {
  return (
    <section lang={language}>
      <h2>{section.title}</h2>
      {section.lines.map((line) => (
        <p key={line}>{line}</p>
      ))}
    </section>
  )
}

function Foot({ language, card }: { language: Language; card: OwnerCard }) {
  const { titles } = CARD_WORDS[language]
  return (
    <section lang={language}>
      {card.done.length > 0 && (
        <>
          <h2>{titles.done}</h2>
          <ul>
            {card.done.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </>
      )}
      {(card.due !== '' || card.guarantee !== '') && (
        <>
          <h2>{titles.promise}</h2>
          {card.due !== '' && <p className={styles.due}>{card.due}</p>}
          {card.guarantee !== '' && <p>{card.guarantee}</p>}
        </>
      )}
    </section>
  )
}
