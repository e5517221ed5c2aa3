import { redirect } from 'next/navigation';
import { applicationsOf } from '@/server/studio/builder';
import { signedInBuilder } from '@/server/studio/entry';

/** Signing in to the studio lands on the gates bench. */
export default async function StudioPage() {
  const builder = await signedInBuilder('/studio');
  const [first] = await applicationsOf(builder.id);
  if (first) redirect(`/studio/${first.slug}/gates`);
  return (
    <main className="mx-auto mt-24 max-w-md">
      <h1 className="text-xl font-semibold">There is no application here yet</h1>
      <p className="mt-2">
        This installation was started without the demo. To look at Zinc Gate with it, stop the server and run{' '}
        <code className="font-mono">bin/start --fresh</code>, which deletes all that is here first.
      </p>
    </main>
  );
}
