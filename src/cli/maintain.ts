/** Maintenance over core and server, called by the surrik command, as the owner of the data. */
import { eraseCustomer, exportShop, listShops } from './maintenance/data';
import { removeDemo, resetDemoPassword, seedDemo, writeExamples } from './maintenance/demo';
import { tellInventory } from './maintenance/inventory';
import { holds, migrate } from './maintenance/migrations';
import { addPerson, resetPassword } from './maintenance/people';

const TASKS: Record<string, (...words: string[]) => Promise<void> | void> = {
  'person-add': addPerson,
  'person-password': resetPassword,
  'shop-list': listShops,
  'shop-export': exportShop,
  'customer-erase': eraseCustomer,
  'demo-remove': removeDemo,
  'demo-password': resetDemoPassword,
  inventory: tellInventory,
  holds,
  migrate: () => migrate(false),
  pending: () => migrate(true),
  seed: seedDemo,
  examples: writeExamples,
};

const task = TASKS[process.argv[2] ?? ''];
if (!task) {
  console.error(`usage: maintain ${Object.keys(TASKS).join('|')}`);
  process.exit(2);
}
try {
  await task(...process.argv.slice(3));
} catch (e) {
  console.error(`surrik: ${process.argv[2]} failed: ${(e as Error).message}`);
  process.exit(1);
}
