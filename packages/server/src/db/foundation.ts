import { Knex } from 'knex';

/** Instants of the job are double precision seconds since 1970 by Wanderon's clock; sessions use the machine's. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('people', (table) => {
    table.uuid('id').primary();
    table.text('login').notNullable().unique();
    table.text('name').notNullable();
    table.text('role').notNullable().checkIn(['viewer', 'technician', 'administrator']);
    table.text('password_hash').notNullable();
    table.boolean('disabled').notNullable().defaultTo(false);
  });
  await knex.schema.createTable('sessions', (table) => {
    table.text('token_hash').primary();
    table.uuid('person_id').notNullable().references('people.id').onDelete('cascade').index();
    table.text('csrf').notNullable();
    table.double('expires_at').notNullable();
  });
  await knex.schema.createTable('sign_in_failures', (table) => {
    table.text('subject').notNullable();
    table.double('at').notNullable();
    table.index(['subject', 'at']);
  });
  await knex.schema.createTable('clients', (table) => {
    table.uuid('id').primary();
    table.text('name').notNullable().unique();
  });
  await knex.schema.createTable('domains', (table) => {
    table.uuid('id').primary();
    table.text('name').notNullable().unique();
    table.uuid('client_id').references('clients.id');
  });
  await knex.schema.createTable('secrets', (table) => {
    table.uuid('id').primary();
    table.text('kind').notNullable();
    table.binary('sealed').notNullable();
  });
  // A company may have several hosts; each has one role.
  await knex.schema.createTable('hosts', (table) => {
    table.uuid('id').primary();
    table.text('name').notNullable();
    table.text('role').notNullable().checkIn(['dns', 'web', 'registrar']);
    table.jsonb('nameservers').notNullable();
    table.jsonb('addresses').notNullable();
    table.text('alias_target');
    table.jsonb('requires').notNullable();
    table.text('update_address');
    table.text('note').notNullable();
    table.text('key_name');
    table.text('key_algorithm');
    table.uuid('key_secret').references('secrets.id');
    table.unique(['name', 'role']);
  });
  await knex.schema.createTable('moves', (table) => {
    table.uuid('id').primary();
    table.uuid('domain_id').notNullable().references('domains.id').index();
    table.jsonb('scope').notNullable();
    table.text('state').notNullable().checkIn(['open', 'closed', 'abandoned']);
    table.double('created_at').notNullable();
    table.uuid('created_by').references('people.id');
    table.double('closed_at');
    table.double('wake_at').index();
  });
  await knex.schema.createTable('surveys', (table) => {
    table.uuid('id').primary();
    table.uuid('domain_id').notNullable().references('domains.id').index();
    table.uuid('move_id').references('moves.id').index();
    table.double('taken_at').notNullable();
    table.text('parent').notNullable();
    table.jsonb('coverage').notNullable();
    table.jsonb('referrals').notNullable();
    table.jsonb('authorities').notNullable();
  });
  await knex.schema.createTable('survey_sets', (table) => {
    table.uuid('survey_id').notNullable().references('surveys.id');
    table.integer('position').notNullable();
    table.text('owner').notNullable();
    table.text('type').notNullable();
    table.bigInteger('ttl').notNullable();
    table.jsonb('data').notNullable();
    table.text('evidence').notNullable();
    table.primary(['survey_id', 'position']);
  });
  await knex.schema.createTable('legs', (table) => {
    table.uuid('id').primary();
    table.uuid('move_id').notNullable().references('moves.id').index();
    table.integer('position').notNullable();
    table.text('kind').notNullable().checkIn(['delegation', 'repoint']);
    table.jsonb('scope').notNullable();
    table.uuid('survey_id').references('surveys.id');
    for (const host of ['old_dns_host', 'old_web_host', 'new_dns_host', 'new_web_host']) table.uuid(host).references('hosts.id');
    table.jsonb('old_nameservers').notNullable();
    table.jsonb('new_nameservers').notNullable();
    table.jsonb('facts').notNullable();
    table.jsonb('served');
    table.unique(['move_id', 'position']);
  });
  await knex.schema.createTable('steps', (table) => {
    table.uuid('leg_id').notNullable().references('legs.id');
    table.text('kind').notNullable();
    table.text('state').notNullable().checkIn(['waiting', 'ready', 'due', 'doing', 'done', 'failed']);
    table.double('due_at');
    table.double('done_at');
    table.uuid('decided_by').references('people.id');
    table.double('decided_at');
    table.text('problem');
    table.primary(['leg_id', 'kind']);
  });
  await createRulings(knex);
  await knex.schema.createTable('ruling_changes', (table) => {
    table.bigIncrements('id');
    table.uuid('leg_id').notNullable().references('legs.id').index();
    table.uuid('ruling_id').notNullable();
    table.jsonb('before');
    table.jsonb('after');
    table.boolean('undone').notNullable().defaultTo(false);
  });
  // Every outward action, before and after; `finished_at` empty: it was begun and its end was not seen.
  await knex.schema.createTable('actions', (table) => {
    table.bigIncrements('id');
    table.uuid('leg_id').notNullable().references('legs.id').index();
    table.text('step').notNullable();
    table.text('server').notNullable();
    table.jsonb('changes').notNullable();
    table.double('started_at').notNullable();
    table.double('finished_at');
    table.text('outcome');
  });
  // Equal answers one after the other are one row.
  await knex.schema.createTable('runs', (table) => {
    table.bigIncrements('id');
    table.uuid('leg_id').notNullable().references('legs.id');
    table.text('subject').notNullable();
    table.text('owner').notNullable();
    table.text('type').notNullable();
    table.text('verdict').notNullable();
    table.text('rcode').notNullable();
    table.jsonb('answer').notNullable();
    table.double('first_seen').notNullable();
    table.double('last_seen').notNullable();
    table.bigInteger('count').notNullable();
    table.integer('remaining_ttl');
    table.boolean('silent').notNullable();
    table.index(['leg_id', 'subject', 'owner', 'type', 'id']);
  });
  await knex.schema.createTable('events', (table) => {
    table.bigIncrements('id');
    table.double('at').notNullable();
    table.uuid('person_id').references('people.id');
    table.text('domain');
    table.uuid('move_id').index();
    table.text('kind').notNullable();
    table.text('text').notNullable();
    table.jsonb('before');
    table.jsonb('after');
  });
  await knex.raw(`
    create function refuse_change() returns trigger language plpgsql as $$ begin raise exception '% is append-only', tg_table_name; end $$;
    create trigger events_append_only before update or delete or truncate on events execute function refuse_change();
    create trigger surveys_append_only before update or delete or truncate on surveys execute function refuse_change();
    create trigger survey_sets_append_only before update or delete or truncate on survey_sets execute function refuse_change();
  `);
}

export async function down(): Promise<void> {
  throw new Error('The first migration is not taken back.');
}

/** Proposed rows, one by one; `proposals.ts` has them as a whole. */
export async function createRulings(knex: Knex): Promise<void> {
  await knex.schema.createTable('rulings', (table) => {
    table.uuid('id').primary();
    table.uuid('leg_id').notNullable().references('legs.id').index();
    table.integer('position').notNullable();
    table.text('owner').notNullable();
    table.text('type').notNullable();
    table.text('ruling').notNullable().checkIn(['carry', 'repoint', 'drop', 'new']);
    table.jsonb('found');
    table.jsonb('planned');
    table.text('reason').notNullable();
    table.uuid('decided_by').references('people.id');
    table.unique(['leg_id', 'owner', 'type']);
  });
}
