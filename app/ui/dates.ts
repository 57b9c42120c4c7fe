/** Returns a date and time in a zone: "Mon, Nov 23, 9:41 AM". */
export function when(iso: string, timeZone?: string): string {
  return new Intl.DateTimeFormat('en-US', {
    weekday: 'short',
    month: 'short',
    day: 'numeric',
    hour: 'numeric',
    minute: '2-digit',
    timeZone,
  }).format(new Date(iso));
}

/** Returns a day of the calendar: "Fri, Nov 27". */
export function dayWords(day: string): string {
  return new Intl.DateTimeFormat('en-US', { weekday: 'short', month: 'short', day: 'numeric', timeZone: 'utc' }).format(
    new Date(`${day}T12:00:00Z`),
  );
}
