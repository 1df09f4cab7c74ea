let zone: string | undefined

/** Days and hours are shown by this time zone (IANA); the device's own until the workshop's settings are here. */
export function workshopZone(): string | undefined {
  return zone
}

/** The time zone of the device that this runs on. */
export function deviceZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone
}

export function setWorkshopZone(timeZone: string): void {
  zone = timeZone
}
