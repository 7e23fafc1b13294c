import { redirect } from 'next/navigation';

export default async function JobPage({ params }: { params: Promise<{ number: string }> }) {
  redirect(`/jobs/${encodeURIComponent((await params).number)}/readings`);
}
