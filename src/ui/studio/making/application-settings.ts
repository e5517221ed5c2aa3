/** In what a new application tells values, as this browser tells them. Its currency is chosen. */
export function mannersHere(): { readonly language: string; readonly timeZone: string } {
  const { locale, timeZone } = new Intl.DateTimeFormat().resolvedOptions();
  const language = /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/.test(locale) ? locale : 'en';
  return { language, timeZone };
}

/** The currencies (ISO 4217) that the browser knows, by code. */
export const currencies = (): readonly string[] => Intl.supportedValuesOf('currency');
