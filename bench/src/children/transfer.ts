import { Name } from '@wanderon/core';
import { DnsClient, transferStream, transferZone } from '@wanderon/net';

/** Transfers a zone and counts its records, held in memory or passed on as they come: transfer.js PORT hold|pass. */
async function main(): Promise<void> {
  const [port, how] = process.argv.slice(2);
  const server = { address: '127.0.0.1', port: Number(port) };
  const zone = Name.parse('many.example.');
  const client = new DnsClient();
  const options = { timeout: 60_000 };
  let count = 0;
  if (how === 'hold') count = (await transferZone(client, server, zone, options)).records.length;
  else for await (const part of transferStream(client, server, zone, options)) count += part.length;
  console.log(String(count));
}

void main();
