import { randomUUID } from 'node:crypto';
import { Knex } from 'knex';

export const SETS = 5000;
export const MOVES = 5000;

/** 5,000 open moves with their summaries, and one of a zone of 5,000 sets, half of which change. Gives the leg of that one. */
export async function fill(database: Knex): Promise<string> {
  await database.schema.createTable('bench', (table) => {
    table.integer('id').primary();
    table.integer('n').notNullable();
  });
  await database('bench').insert(Array.from({ length: 1000 }, (_, id) => ({ id, n: 0 })));
  const scope = JSON.stringify({ kind: 'whole' });
  const made = Array.from({ length: MOVES }, (_, index) => ({ domain: randomUUID(), move: randomUUID(), leg: randomUUID(), name: `client-${index}.example` }));
  const marks = ['begun', 'surveyed', 'pushed', 'lowered', 'earliest switch'].map((label, index) => ({
    at: 1e9 + index * 3600,
    label,
    kind: 'step',
    derived: null,
  }));
  await database.batchInsert(
    'domains',
    made.map(({ domain, name }) => ({ id: domain, name })),
    500,
  );
  await database.batchInsert(
    'moves',
    made.map(({ move, leg, domain, name }, index) => ({
      id: move,
      domain_id: domain,
      scope,
      state: 'open',
      created_at: 1e9 + index,
      wake_at: null,
      desk_group: 1,
      desk_due: 2e9 + index,
      summary: JSON.stringify({
        id: move,
        leg,
        domain: name,
        shown: name,
        scope: { kind: 'whole' },
        client: null,
        state: 'open',
        createdAt: 1e9 + index,
        from: 'Oldquay DNS',
        to: 'Quillmere DNS',
        next: { step: 'switch', text: 'Change the nameservers', chapter: 'switch', who: 'you', dueAt: 2e9 + index, failed: false },
        marks,
        drain: null,
      }),
    })),
    500,
  );
  await database.batchInsert(
    'legs',
    made.map(({ move, leg }) => ({ id: leg, move_id: move, position: 0, kind: 'delegation', scope, old_nameservers: '[]', new_nameservers: '[]' })),
    500,
  );
  const large = made.at(-1)!;
  const host = randomUUID();
  await database('hosts').insert({
    id: host,
    name: 'New DNS',
    role: 'dns',
    nameservers: JSON.stringify(['ns1.new.example.']),
    addresses: '[]',
    requires: '[]',
    note: '',
  });
  const survey = randomUUID();
  await database('surveys').insert({
    id: survey,
    domain_id: large.domain,
    move_id: large.move,
    taken_at: 1e9,
    parent: 'example.',
    coverage: JSON.stringify({ grade: 'whole', reasons: [] }),
    referrals: '[]',
    authorities: '[]',
    hints: '[]',
  });
  const sets = Array.from({ length: SETS }, (_, index) => {
    const found = { owner: `name-${index}.${large.name}.`, type: 'A', ttl: 3600, data: [`192.0.2.${index % 250}`] };
    const planned = index % 2 === 0 ? { ...found, data: [`203.0.113.${index % 250}`] } : found;
    return { found, planned, ruling: index % 2 === 0 ? 'repoint' : 'carry' };
  });
  const rows = sets.map(({ found, planned, ruling }) => ({ id: randomUUID(), owner: found.owner, type: 'A', ruling, found, planned, reason: '' }));
  await database('proposals').insert({ leg_id: large.leg, id: randomUUID(), rows: JSON.stringify(rows) });
  const old = ['198.51.100.1', '198.51.100.2'];
  await database('legs')
    .where({ id: large.leg })
    .update({
      survey_id: survey,
      last_survey: survey,
      new_dns_host: host,
      old_nameservers: JSON.stringify(['ns1.old.example.']),
      new_nameservers: JSON.stringify(['ns1.new.example.']),
      old_servers: JSON.stringify(old.map((address) => ({ server: 'ns1.old.example.', address }))),
      new_servers: JSON.stringify([{ server: 'ns1.new.example.', address: '203.0.113.1' }]),
    });
  const answers = Object.fromEntries(sets.map(({ found }) => [`${found.owner}/A`, { ttl: 3600, data: found.data }]));
  await database.batchInsert(
    'observations',
    old.map((subject) => ({
      leg_id: large.leg,
      kind: 'zone',
      subject,
      server: 'ns1.old.example.',
      value: JSON.stringify({ serial: null, refused: false, sets: answers }),
      digest: 'x',
      first_seen: 1e9,
      last_seen: 1e9,
      every: 60,
      count: 1,
    })),
    10,
  );
  return large.leg;
}
