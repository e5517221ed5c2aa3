import type { Unit } from '../definition';

/** How values are shown: language (BCP 47), currency (ISO 4217), and what the units are called. */
export interface DisplayFormat {
  readonly language: string;
  readonly currency: string;
  readonly units: readonly Unit[];
}

interface Formats {
  readonly money: Intl.NumberFormat;
  readonly number: Intl.NumberFormat;
}

/** Making a format is slow, so each manner keeps its own. */
const formats = new WeakMap<DisplayFormat, Formats>();

/** How the manner writes numbers and money. */
export function formatsOf(manner: DisplayFormat): Formats {
  let found = formats.get(manner);
  if (!found) {
    const { language, currency } = manner;
    found = {
      money: new Intl.NumberFormat(language, { style: 'currency', currency }),
      number: new Intl.NumberFormat(language, { maximumFractionDigits: 15 }),
    };
    formats.set(manner, found);
  }
  return found;
}
