import { redirect } from 'next/navigation';
import { jobOfPage } from './jobOfPage';

export default async function JobPage({ params }: { params: Promise<{ number: string }> }) {
  redirect(`/jobs/${await jobOfPage(params)}/readings`);
}
