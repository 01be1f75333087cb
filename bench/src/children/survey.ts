import { Exploration, Name, printZoneFile, recordsOf, typeMnemonic } from '@wanderon/core';
import { DnsClient, exploreZone, walkZone } from '@wanderon/net';

/** An inventory of a zone: survey.js PORT DOMAIN questions|walk. Prints what came of it as JSON, and the questions that were put. */
async function main(): Promise<void> {
  const [port, domain, means] = process.argv.slice(2) as [string, string, 'questions' | 'walk'];
  const client = new DnsClient();
  const server = { address: '127.0.0.1', port: Number(port) };
  const zone = Name.parse(`${domain}.`);
  const began = performance.now();
  const asked: string[] = [];
  if (means === 'walk') {
    const { sets, names, asked: count, whole } = await walkZone(client, server, zone);
    const seconds = (performance.now() - began) / 1000;
    console.log(
      JSON.stringify({
        sets: sets.length,
        names,
        asked: count,
        whole,
        seconds,
        records: printZoneFile(sets.flatMap(recordsOf)).split('\n').length - 1,
        questions: [],
      }),
    );
    return;
  }
  const exploration = new Exploration(zone, () => 'zq7x-nobody-has-this');
  const { next } = exploration;
  exploration.next = (most) => {
    const batch = next.call(exploration, most);
    for (const { name, type } of batch) asked.push(`${name.toString()} ${typeMnemonic(type)}`);
    return batch;
  };
  await exploreZone(client, server, exploration);
  const { sets, asked: count } = exploration.report();
  const seconds = (performance.now() - began) / 1000;
  console.log(JSON.stringify({ sets: sets.length, names: 0, asked: count, whole: false, seconds, records: 0, questions: asked }));
}

void main();
