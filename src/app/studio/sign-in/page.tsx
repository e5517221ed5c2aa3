import type { Metadata } from 'next';
import { DEMO_ACCOUNTS } from '@/demo/accounts';
import { theInstallation } from '@/server/security/sessions';
import { SignInForm } from '@/ui/parts/sign-in-form';

export const metadata: Metadata = { title: 'Sign in' };

export default async function StudioSignIn({
  searchParams,
}: {
  searchParams: Promise<{ back?: string | string[] }>;
}) {
  const { back } = await searchParams;
  const { demoPassword } = await theInstallation();
  return (
    <SignInForm
      heading="Sign in to the studio"
      back={typeof back === 'string' ? back : undefined}
      demo={demoPassword === null ? undefined : { password: demoPassword, accounts: DEMO_ACCOUNTS.studio }}
    />
  );
}
