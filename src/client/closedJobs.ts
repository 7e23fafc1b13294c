'use client';
/** The shop's closed jobs, one after the other, newest first. */
import type { Job } from '../core/job/job';
import { fetchBoard, fetchOlder, fetchSnapshot } from './api';

/** Numbers of the closed jobs, so many at the most. */
export async function closedJobs(most: number): Promise<number[]> {
  let page = await fetchBoard();
  const numbers: number[] = [];
  for (;;) {
    numbers.push(...page.tickets.filter((t) => t.status === 'done').map((t) => t.number));
    if (page.olderThan === undefined || numbers.length >= most) return numbers.slice(0, most);
    page = await fetchOlder(page.olderThan);
  }
}

export const jobOf = async (number: number): Promise<Job> => (await fetchSnapshot(number)).job;
