/** A number with its unit, a thin space between; a minus sign and not a hyphen. */
export function withUnit(value: number, unit: string, digits = 1): string {
  const shown = number(value, digits);
  return unit === '°' ? `${shown}°` : `${shown} ${unit}`;
}

export function number(value: number, digits = 1): string {
  const shown = value.toFixed(digits);
  const plain = /^-0(\.0+)?$/.test(shown) ? shown.slice(1) : shown;
  return plain.replace('-', '−');
}

/** A number that was chosen, not measured: a line of 35, not 35.0. */
export function chosen(value: number, unit = ''): string {
  const digits = Number.isInteger(value) ? 0 : 1;
  return unit ? withUnit(value, unit, digits) : number(value, digits);
}

export function signed(value: number, unit: string, digits = 1): string {
  const shown = withUnit(value, unit, digits);
  return shown.startsWith('−') || /^0(\.0+)?(?![.\d])/.test(shown) ? shown : `+${shown}`;
}

const day = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });
const long = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
const isToday = (date: string): boolean => parse(date).toDateString() === new Date().toDateString();

const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

/** The earliest day, said as one does: today, or on or after a day. */
export const fromDay = (date: string): string => (isToday(date) ? 'today' : `on or after ${shortDay(date)}`);

/** A calendar day (`2026-03-04`) or an instant, as a short day. */
export const shortDay = (date: string): string => day.format(parse(date));

export const longDay = (date: string): string => long.format(parse(date));

export const dayAndTime = (instant: string): string =>
  `${shortDay(instant)}, ${clock.format(new Date(instant))}`;

function parse(date: string): Date {
  return date.length === 10 ? new Date(`${date}T12:00:00`) : new Date(date);
}

/** Seconds as minutes and seconds. */
export function minutes(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
