/** The migrations in order, imported by name so that the same list runs from a bundle, a script and a test. */
import type { Knex } from 'knex';
import * as m0001 from './0001-shop';
import * as m0002 from './0002-seen';
import * as m0003 from './0003-intake-to-report';
import * as m0004 from './0004-usage-and-choices';
import * as m0005 from './0005-waivers';
import * as m0006 from './0006-build';
import * as m0007 from './0007-proof';
import * as m0008 from './0008-log-files';
import * as m0009 from './0009-statements-and-tickets';
import * as m0010 from './0010-people';
import * as m0011 from './0011-second-factor';
import * as m0012 from './0012-runs';
import * as m0013 from './0013-turns';
import * as m0014 from './0014-partitions';

export interface Migration {
  up(knex: Knex): Promise<void>;
  down(knex: Knex): Promise<void>;
}

export const MIGRATIONS: readonly (readonly [name: string, migration: Migration])[] = [
  ['0001-shop', m0001],
  ['0002-seen', m0002],
  ['0003-intake-to-report', m0003],
  ['0004-usage-and-choices', m0004],
  ['0005-waivers', m0005],
  ['0006-build', m0006],
  ['0007-proof', m0007],
  ['0008-log-files', m0008],
  ['0009-statements-and-tickets', m0009],
  ['0010-people', m0010],
  ['0011-second-factor', m0011],
  ['0012-runs', m0012],
  ['0013-turns', m0013],
  ['0014-partitions', m0014],
];

/** Knex's view of the list. */
export const migrationSource: Knex.MigrationSource<readonly [string, Migration]> = {
  getMigrations: () => Promise.resolve([...MIGRATIONS]),
  getMigrationName: ([name]) => name,
  getMigration: ([, migration]) => Promise.resolve(migration),
};
