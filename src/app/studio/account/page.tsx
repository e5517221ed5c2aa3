import type { Metadata } from 'next';
import { accountOf } from '@/server/studio/account';
import { signedInBuilder } from '@/server/studio/entry';
import { AccountForms } from '@/ui/studio/home/account-forms';
import { HomeFrame } from '@/ui/studio/home/home-frame';

export const metadata: Metadata = { title: 'Your account' };

/** A builder's own account. */
export default async function AccountPage() {
  const builder = await signedInBuilder('/studio/account');
  return (
    <HomeFrame builder={builder.name}>
      <AccountForms account={await accountOf(builder)} />
    </HomeFrame>
  );
}
