import knex, { Knex } from 'knex';
import * as accounts from './accounts';
import * as addedResolvers from './addedResolvers';
import * as moveNotes from './moveNotes';
import * as panels from './panels';
import * as registryLists from './registryLists';
import * as backOut from './backOut';
import * as deskByAge from './deskByAge';
import * as deskOrder from './deskOrder';
import * as engine from './engine';
import * as foundation from './foundation';
import * as givenPlaces from './givenPlaces';
import * as holding from './holding';
import * as outside from './outside';
import * as proposals from './proposals';
import * as provisional from './provisional';
import * as issuers from './issuers';
import * as inHand from './inHand';
import * as observationsForward from './observationsForward';
import * as people from './people';
import * as quickValues from './quickValues';
import * as redirectTasks from './redirectTasks';
import * as restless from './restless';
import * as surveyEvidence from './surveyEvidence';
import * as surveyHints from './surveyHints';
import * as hostHabits from './hostHabits';
import * as hostKnowledge from './hostKnowledge';
import * as signInLimits from './signInLimits';
import * as serversInHand from './serversInHand';
import * as sheetLinks from './sheetLinks';
import * as legsInTurn from './legsInTurn';
import * as sweepInHand from './sweepInHand';
import * as sweeps from './sweeps';
import * as trailSeals from './trailSeals';
import * as websiteLooks from './websiteLooks';

export const DATABASE = Symbol('database');
export type Database = Knex;

const MIGRATIONS: readonly { readonly name: string; readonly migration: Knex.Migration }[] = [
  { name: '001_foundation', migration: foundation },
  { name: '002_survey_hints', migration: surveyHints },
  { name: '003_survey_evidence', migration: surveyEvidence },
  { name: '004_sweeps', migration: sweeps },
  { name: '005_website_looks', migration: websiteLooks },
  { name: '006_in_hand', migration: inHand },
  { name: '007_engine', migration: engine },
  { name: '008_restless', migration: restless },
  { name: '009_desk_order', migration: deskOrder },
  { name: '010_sweep_in_hand', migration: sweepInHand },
  { name: '011_legs_in_turn', migration: legsInTurn },
  { name: '012_host_knowledge', migration: hostKnowledge },
  { name: '013_sheet_links', migration: sheetLinks },
  { name: '014_back_out', migration: backOut },
  { name: '015_host_habits', migration: hostHabits },
  { name: '016_accounts', migration: accounts },
  { name: '017_issuers', migration: issuers },
  { name: '018_sign_in_limits', migration: signInLimits },
  { name: '019_people', migration: people },
  { name: '020_trail_seals', migration: trailSeals },
  { name: '021_observations_forward', migration: observationsForward },
  { name: '022_holding', migration: holding },
  { name: '023_provisional', migration: provisional },
  { name: '024_outside', migration: outside },
  { name: '025_quick_values', migration: quickValues },
  { name: '026_redirect_tasks', migration: redirectTasks },
  { name: '027_servers_in_hand', migration: serversInHand },
  { name: '028_proposals', migration: proposals },
  { name: '029_given_places', migration: givenPlaces },
  { name: '030_added_resolvers', migration: addedResolvers },
  { name: '031_panels', migration: panels },
  { name: '032_registry_lists', migration: registryLists },
  { name: '033_move_notes', migration: moveNotes },
  { name: '034_desk_by_age', migration: deskByAge },
];

const SOURCE: Knex.MigratorConfig = {
  migrationSource: {
    getMigrations: () => Promise.resolve([...MIGRATIONS]),
    getMigrationName: (one: (typeof MIGRATIONS)[number]) => one.name,
    getMigration: (one: (typeof MIGRATIONS)[number]) => Promise.resolve(one.migration),
  },
};

/** Connects and brings the schema up to date, under Knex's own migration lock, as a role that owns it. */
export async function migrateAs(address: string): Promise<Database> {
  const database = connect(address);
  await database.migrate.latest(SOURCE);
  return database;
}

/** Connects. Where the role owns the schema it is brought up to date; throws an Error where it does not, and the schema is older. */
export async function openDatabase(address: string): Promise<Database> {
  const database = connect(address);
  try {
    const [, open] = (await database.migrate.list(SOURCE)) as [unknown[], unknown[]];
    if (open.length > 0) await database.migrate.latest(SOURCE);
    return database;
  } catch (error) {
    await database.destroy();
    if ((error as { code?: unknown }).code !== MAY_NOT) throw error;
    throw new Error('The schema of the database is older, and this role does not own it: run ./wanderon migrate first (docs/operations.md).', { cause: error });
  }
}

/** What PostgreSQL says to a role that lacks a privilege. */
const MAY_NOT = '42501';

function connect(address: string): Database {
  return knex({ client: 'pg', connection: address, pool: { min: 0, max: 30 } });
}
