import { notFound } from 'next/navigation';
import { jobNumber } from '@/server/http';

/** The job a page’s address names; where it is no number of a job there is no such page. */
export async function jobOfPage(params: Promise<{ number: string }>): Promise<number> {
  const { number } = await params;
  try {
    return jobNumber(number);
  } catch {
    notFound();
  }
}
