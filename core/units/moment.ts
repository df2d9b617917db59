/** A moment as it is shown beside a name: day and hour, with the year where it may be long ago; nothing for no moment. */
export function moment(iso: string | undefined, year = false): string {
  if (!iso) return '';
  return new Date(iso).toLocaleString('en-GB', {
    day: '2-digit',
    month: 'short',
    ...(year ? { year: 'numeric' } : {}),
    hour: '2-digit',
    minute: '2-digit',
  });
}

/** A wait as minutes and seconds. @example minutesText(185) // '3:05' */
export const minutesText = (s: number): string =>
  `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`;
