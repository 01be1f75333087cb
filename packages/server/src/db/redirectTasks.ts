import { Knex } from 'knex';

/** Until now a task was taken to be for redirects where it spoke of them: those that do are marked so. */
const MARKED = (tasks: string): string => `(
  select jsonb_agg(task || jsonb_build_object('redirects', (task->>'title' || ' ' || coalesce(task->>'note', '')) ~* 'redirect|forward') order by place)
  from jsonb_array_elements(${tasks}) with ordinality as all_tasks(task, place)
)`;
const UNMARKED = (tasks: string): string =>
  `(select jsonb_agg(task - 'redirects' order by place) from jsonb_array_elements(${tasks}) with ordinality as all_tasks(task, place))`;

/** Of a host, and of the web host as a leg that has ended keeps it. */
async function rewrite(knex: Knex, made: (tasks: string) => string): Promise<void> {
  await knex.raw(`update hosts set tasks = ${made('tasks')} where jsonb_array_length(tasks) > 0`);
  await knex.raw(`update legs set web = jsonb_set(web, '{tasks}', ${made("web->'tasks'")}) where jsonb_array_length(coalesce(web->'tasks', '[]')) > 0`);
}

/** A task for redirects is marked as one. */
export const up = (knex: Knex): Promise<void> => rewrite(knex, MARKED);

export const down = (knex: Knex): Promise<void> => rewrite(knex, UNMARKED);
