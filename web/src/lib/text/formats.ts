/** The browser's formatters, each made once: making one takes as long as hundreds of uses, and a list of rows uses several a row. */
const made = new Map<string, unknown>();

function once<Options, Format>(kind: string, locale: string, options: Options, make: () => Format): Format {
  const key = `${kind} ${locale} ${JSON.stringify(options)}`;
  if (!made.has(key)) made.set(key, make());
  return made.get(key) as Format;
}

export const dateFormat = (locale: string, options: Intl.DateTimeFormatOptions) =>
  once('date', locale, options, () => new Intl.DateTimeFormat(locale, options));

export const numberFormat = (locale: string, options: Intl.NumberFormatOptions) =>
  once('number', locale, options, () => new Intl.NumberFormat(locale, options));

export const listFormat = (locale: string) => once('list', locale, {}, () => new Intl.ListFormat(locale, { type: 'conjunction' }));
