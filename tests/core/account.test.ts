import { describe, expect, it } from 'vitest';
import { accountFault } from '@/core/model/account';

describe('what is written of an account', () => {
  it.each([
    ['name', 'Ines Okafor', undefined],
    ['name', `  ${'n'.repeat(120)}  `, undefined],
    ['name', 'n'.repeat(121), 'Enter a name of at most 120 characters.'],
    ['name', '   ', 'Enter a name of at most 120 characters.'],
    ['email', ' ines@larkfield.example ', undefined],
    ['email', 'ines@larkfield', 'Enter a valid email address.'],
    ['email', 'ines@larkfield.example, bo@larkfield.example', 'Enter a valid email address.'],
    ['email', 'Ines <ines@larkfield.example>', 'Enter a valid email address.'],
    ['email', `${'i'.repeat(200)}@larkfield.example`, 'Enter a valid email address.'],
    ['email', '', 'Enter a valid email address.'],
    ['password', 'ten-or-more', undefined],
    ['password', 'too-short', 'Choose a password of at least 10 characters.'],
    ['password', '', 'Choose a password of at least 10 characters.'],
  ] as const)('%s “%s”', (field, text, fault) => {
    expect(accountFault(field, text)).toBe(fault);
  });
});
