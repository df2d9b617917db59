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
