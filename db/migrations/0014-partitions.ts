/**
 * The two tables that grow for ever, what was given and what recorders wrote, lie in sixteen parts each, by shop: a part is
 * swept, copied or moved to another disk by itself, and a shop's rows stand together. The parts are in a schema the app
 * does not reach: it asks the whole, which knows whose rows it may see. Who asks names the shop: the parts of others are then
 * left out while the question is planned, not when it is answered, which took 1.5 ms a question.
 */
import type { Knex } from 'knex';

const PARTS = 16;

interface Whole {
  table: string;
  /** What copying the columns does not bring along: keys, what is referred to, other indexes. */
  keys: string;
}
const WHOLES: readonly Whole[] = [
  {
    table: 'commands',
    keys: `
      ALTER TABLE commands ADD PRIMARY KEY (shop_id, job_id, seq);
      ALTER TABLE commands ADD UNIQUE (shop_id, id);
      ALTER TABLE commands ADD FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id);
      ALTER TABLE commands ADD FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id);
      CREATE INDEX commands_by_matter ON commands (shop_id, job_id, matter, seq) WHERE matter IS NOT NULL;`,
  },
  {
    table: 'log_files',
    keys: `
      ALTER TABLE log_files ADD PRIMARY KEY (shop_id, job_id, sha256);
      ALTER TABLE log_files ADD FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id);`,
  },
];

/** Puts a table in the place of another of its name, with all its rows and who may do what with them. */
async function replace(knex: Knex, { table, keys }: Whole, partitioned: boolean): Promise<void> {
  const parts = Array.from(
    { length: PARTS },
    (_, k) =>
      `CREATE TABLE parts.${table}_${k} PARTITION OF ${table}_new FOR VALUES WITH (MODULUS ${PARTS}, REMAINDER ${k});`,
  );
  await knex.raw(`
    CREATE TABLE ${table}_new (LIKE ${table} INCLUDING DEFAULTS INCLUDING CONSTRAINTS INCLUDING STORAGE)
      ${partitioned ? 'PARTITION BY HASH (shop_id)' : ''};
    ${partitioned ? parts.join('\n') : ''}
    INSERT INTO ${table}_new SELECT * FROM ${table};
    DROP TABLE ${table};
    ALTER TABLE ${table}_new RENAME TO ${table};
    ${keys}
    ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
    CREATE POLICY ${table}_of_shop ON ${table} USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());
    GRANT SELECT, INSERT ON ${table} TO surrik_app;
  `);
}

export async function up(knex: Knex): Promise<void> {
  await knex.raw('CREATE SCHEMA parts');
  for (const whole of WHOLES) await replace(knex, whole, true);
}

export async function down(knex: Knex): Promise<void> {
  for (const whole of WHOLES) await replace(knex, whole, false);
  await knex.raw('DROP SCHEMA parts');
}
