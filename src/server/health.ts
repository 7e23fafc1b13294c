/** Whether this process has its data: asked by the surrik command, by a balancer, by whoever watches. */
import type { Knex } from 'knex';

/** ms a database has for one row of nothing; one that hangs does not make the question hang. */
const WITHIN_MS = 1500;

export async function hasItsData(db: Knex): Promise<boolean> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<false>((resolve) => (timer = setTimeout(() => resolve(false), WITHIN_MS)));
  const asked = db.raw('SELECT 1').then(
    () => true,
    () => false,
  );
  return Promise.race([asked, late]).finally(() => clearTimeout(timer));
}
