import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { thisVisit } from '@/server/live/this-visit';
import { SignUpForm } from '@/ui/live/sign-up-form';

export const metadata: Metadata = { title: 'Sign up' };

/** Opening an account, where the application allows it. */
export default async function SignUp({ params }: { params: Promise<{ app: string }> }) {
  const { app } = await params;
  const visit = await thisVisit(app);
  if (!visit?.access.compiled.definition.signUp) notFound();
  return <SignUpForm app={app} />;
}
