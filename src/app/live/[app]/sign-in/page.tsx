import type { Metadata } from 'next';
import { ledOn } from '@/server/former-address';
import { thisVisit } from '@/server/live/this-visit';
import { theInstallation } from '@/server/security/sessions';
import { DEMO_ACCOUNTS, DEMO_SLUG } from '@/demo/accounts';
import { SignInForm } from '@/ui/parts/sign-in-form';

export const metadata: Metadata = { title: 'Sign in' };

interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<{ back?: string | string[] }>;
}

/** Signing in to a released application. Not even the application's name is on it. */
export default async function LiveSignIn({ params, searchParams }: Props) {
  const { app } = await params;
  const { back } = await searchParams;
  const visit = await thisVisit(app);
  if (!visit) return ledOn(app, ['sign-in']);
  const { signUp } = visit.access.compiled.definition;
  const { demoPassword } = await theInstallation();
  return (
    <SignInForm
      app={app}
      heading="Sign in"
      back={typeof back === 'string' ? back : undefined}
      signUp={signUp ? `/live/${app}/sign-up` : undefined}
      demo={
        // Other applications have people of their own.
        demoPassword === null || app !== DEMO_SLUG
          ? undefined
          : { password: demoPassword, accounts: DEMO_ACCOUNTS.live }
      }
    />
  );
}
