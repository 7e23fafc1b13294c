/** Copies of demo jobs, for benches and tests that want a job of their own. */
import type { Job } from '../../src/core/job/jobSchema';
import { demoJobs } from './jobs';
import { demoUuid } from './shop';

/**
 * A demo job under another number, with ids of its own and everything that names one with them.
 * @param like the demo job's number, the open one where not said
 * @param salt two copies under one number have other ids with another salt
 */
export function demoJobAs(number: number, like = 1042, salt = ''): Job {
  const original = { ...demoJobs(new Date()).find((j) => j.number === like)!, number };
  return JSON.parse(
    JSON.stringify(original).replace(/[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, (id) =>
      demoUuid(`${number} ${salt} ${id}`),
    ),
  ) as Job;
}
