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

/** Days and times in the studio's zone, wherever the device is; calendar days as they are written. */
function formats(timeZone: string | undefined) {
  const of = (options: Intl.DateTimeFormatOptions, zone = timeZone) =>
    new Intl.DateTimeFormat('en-GB', { ...options, timeZone: zone });
  const short = { weekday: 'short', day: 'numeric', month: 'short' } as const;
  const long = { day: 'numeric', month: 'long', year: 'numeric' } as const;
  return {
    instant: { short: of(short), long: of(long), clock: of({ hour: '2-digit', minute: '2-digit' }) },
    day: { short: of(short, 'UTC'), long: of(long, 'UTC') },
    // The one locale that writes a day as it is kept.
    iso: new Intl.DateTimeFormat('sv-SE', { timeZone }),
  };
}

let shown = formats(undefined);

/** @param timeZone The studio's; one that this browser does not know leaves the device's own. */
export function showIn(timeZone: string | null | undefined): void {
  try {
    shown = formats(timeZone ?? undefined);
  } catch {
    shown = formats(undefined);
  }
}

/** Today, where the studio is, as `2026-03-04`. */
export const today = (): string => shown.iso.format(new Date());

/** The same day, so many years before. */
export const yearsBefore = (date: string, years: number): string =>
  `${Number(date.slice(0, 4)) - years}${date.slice(4)}`;

/** The earliest day, said as one does: today, or on or after a day. */
export const fromDay = (date: string): string =>
  (isDay(date) ? date : shown.iso.format(new Date(date))) === today()
    ? 'today'
    : `on or after ${shortDay(date)}`;

const isDay = (date: string) => date.length === 10;
const noon = (date: string) => new Date(`${date}T12:00:00Z`);

/** A calendar day (`2026-03-04`) or an instant, as a short day. */
export const shortDay = (date: string): string =>
  isDay(date) ? shown.day.short.format(noon(date)) : shown.instant.short.format(new Date(date));

export const longDay = (date: string): string =>
  isDay(date) ? shown.day.long.format(noon(date)) : shown.instant.long.format(new Date(date));

export const timeOf = (instant: string): string => shown.instant.clock.format(new Date(instant));

export const dayAndTime = (instant: string): string => `${shortDay(instant)}, ${timeOf(instant)}`;

/** Seconds as minutes and seconds. */
export function minutes(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
