import { describe, expect, it } from 'vitest';
import { accountFault } from '@/core/model/account';

describe('what is written of an account', () => {
  it.each([
    ['name', 'Ines Okafor', undefined],
    ['name', `  ${'n'.repeat(120)}  `, undefined],
    ['name', 'n'.repeat(121), 'Write a name of up to 120 characters.'],
    ['name', '   ', 'Write a name of up to 120 characters.'],
    ['email', ' ines@larkfield.example ', undefined],
    ['email', 'ines@larkfield', 'Write an email address.'],
    ['email', 'ines@larkfield.example, bo@larkfield.example', 'Write an email address.'],
    ['email', 'Ines <ines@larkfield.example>', 'Write an email address.'],
    ['email', `${'i'.repeat(200)}@larkfield.example`, 'Write an email address.'],
    ['email', '', 'Write an email address.'],
    ['password', 'ten-or-more', undefined],
    ['password', 'too-short', 'Choose a password of at least 10 characters.'],
    ['password', '', 'Choose a password of at least 10 characters.'],
  ] as const)('%s “%s”', (field, text, fault) => {
    expect(accountFault(field, text)).toBe(fault);
  });
});
