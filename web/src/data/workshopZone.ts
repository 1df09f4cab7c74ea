let zone: string | undefined

/** Days and hours are shown by this time zone (IANA); the device's own until the workshop's settings are here. */
export function workshopZone(): string | undefined {
  return zone
}

export function setWorkshopZone(timeZone: string): void {
  zone = timeZone
}
