import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { accountFault } from '@/core/model';

/** What is behind this is not looked at: it makes no password weaker, and looking takes its time. */
const LOOKED_AT = 32;
/** From here on a password takes more than a million guesses (the package's scale, 0 to 4). */
const HARD_ENOUGH = 2;

let guesses: ZxcvbnFactory | undefined;

/**
 * What is wrong with a password that somebody chooses, in words: too short, or among those that are guessed first.
 * `about`: what is known of whose it is, such as their address and name. There are no rules for its characters (NIST SP
 * 800-63B, section 5.1.1.2).
 */
export function passwordFault(password: string, about: readonly string[]): string | undefined {
  guesses ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  const words = about.flatMap((text) => [text, ...text.split(/[\s@.]+/)]).filter((word) => word.length > 2);
  return (
    accountFault('password', password) ??
    (guesses.check(password.slice(0, LOOKED_AT), words).score < HARD_ENOUGH
      ? 'This password is among the first that are guessed. Choose another one, such as several words that do not belong together.'
      : undefined)
  );
}
