/** A calendar day so many days later. */
export function dayAfter(day: string, days: number): string {
  const at = new Date(`${day}T12:00:00Z`);
  at.setUTCDate(at.getUTCDate() + days);
  return at.toISOString().slice(0, 10);
}

const names = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];

/** Names of the seven days from a day on. */
export const weekdaysFrom = (day: string): string[] =>
  Array.from({ length: 7 }, (_, i) => names[(new Date(`${day}T12:00:00Z`).getUTCDay() + i) % 7]!);
