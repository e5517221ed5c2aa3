import { redirect } from 'next/navigation';

export default async function ApplicationPage({ params }: { params: Promise<{ app: string }> }) {
  redirect(`/studio/${encodeURIComponent((await params).app)}/gates`);
}
