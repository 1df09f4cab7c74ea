import type { CareListed, Settings } from '@treadle/contract'
import { dayToday } from '../../parts/say.ts'
import { LETTER_WORDS } from './letterWords.ts'
import styles from './Care.module.css'

/** A letter to print for one thing that falls due, in the language of the clock's card. */
export function Letter({ due, settings }: { due: CareListed; settings: Settings }) {
  const language = due.clock.card?.language ?? 'en'
  const words = LETTER_WORDS[language]
  const on = due.kind === 'guarantee' ? words.day(due.dueOn) : words.month(due.dueOn)
  const told = {
    clock: due.clock.name,
    oiled: due.oiledOn === null ? '' : words.month(due.oiledOn),
    due: on,
    late: due.dueOn < dayToday(),
  }
  return (
    <article className={styles.letter} lang={language} aria-label={`Letter to ${due.owner.name}`}>
      <p className={styles.shop}>{[settings.workshop, settings.place, settings.phone].filter(Boolean).join(', ')}</p>
      <p>
        {words.dear(due.owner.name)}
        {due.owner.address !== '' && (
          <>
            <br />
            {due.owner.address}
          </>
        )}
      </p>
      <p className={styles.date}>{words.day(dayToday())}</p>
      <h2>{words.subject(due.clock.name)}</h2>
      {words.body[due.kind](told).map((line) => (
        <p key={line}>{line}</p>
      ))}
      {due.withIt.length > 0 && words.withIt(due.withIt).map((line) => <p key={line}>{line}</p>)}
      {due.kind !== 'guarantee' && <p>{words.answer(settings.phone)}</p>}
      <p className={styles.farewell}>{words.farewell}</p>
      <p>{settings.workshop}</p>
    </article>
  )
}
