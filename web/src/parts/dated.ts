/** Says a day, ISO 8601, in a language: for papers that are not in the workshop’s own. */
export const dated =
  (locale: string, options: Intl.DateTimeFormatOptions) =>
  (day: string): string =>
    new Intl.DateTimeFormat(locale, { ...options, timeZone: 'UTC' }).format(new Date(`${day.slice(0, 10)}T12:00:00Z`))
