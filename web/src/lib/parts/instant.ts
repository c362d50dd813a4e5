/** An instant as it travels: UTC, ISO 8601. */
export const iso = (milliseconds: number): string => new Date(milliseconds).toISOString();
