import type { Definition } from './definition';
import type { Problem } from './problem';

/**
 * A currency (ISO 4217) or a language (BCP 47) that the platform does not know. It is asked of what comes in, and not of
 * what is stored: an application that has one already must stay editable.
 */
export function unknownSettings({
  currency,
  language,
}: Pick<Definition, 'currency' | 'language'>): Problem[] {
  const problem = (place: string, message: string, mend: string): Problem => ({
    code: 'unknown-setting',
    place,
    message,
    mend,
  });
  return [
    ...(Intl.supportedValuesOf('currency').includes(currency)
      ? []
      : [problem('currency', `${currency} is not a currency.`, 'Use a code of ISO 4217, such as GBP.')]),
    ...(isLanguage(language)
      ? []
      : [problem('language', `${language} is not a known language.`, 'Use a code such as en-GB.')]),
  ];
}

/** Can dates and numbers be written in it? */
function isLanguage(tag: string): boolean {
  try {
    return Intl.NumberFormat.supportedLocalesOf(tag).length > 0;
  } catch {
    return false;
  }
}
