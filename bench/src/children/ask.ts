import { Name } from '@wanderon/core';
import { DnsClient } from '@wanderon/net';

/** Asks a server COUNT questions, IN_FLIGHT at a time, and prints how many a second: ask.js PORT COUNT IN_FLIGHT. */
async function main(): Promise<void> {
  const [port, count, inFlight] = process.argv.slice(2).map(Number) as [number, number, number];
  const client = new DnsClient(undefined, undefined, { perServer: inFlight, inAll: inFlight });
  const names = Array.from({ length: 1000 }, (_, i) => Name.parse(`n${i + 1}.many.example.`));
  let next = 0;
  let good = 0;
  const asker = async (): Promise<void> => {
    while (next < count) {
      const answer = await client.ask({ address: '127.0.0.1', port }, names[next++ % names.length]!, 1);
      if (answer.answers.length === 1) good += 1;
    }
  };
  const began = performance.now();
  await Promise.all(Array.from({ length: inFlight }, asker));
  if (good !== count) throw new Error(`${count - good} questions were not answered`);
  console.log(String(count / ((performance.now() - began) / 1000)));
}

void main();
