import { Name, decodeMessage, encodeMessage, parseRdata, reply, query, typeCode } from '@wanderon/core';
import * as reference from 'dns-packet';

/** Decodes and encodes everyday answers beside dns-packet, in turns, and prints the ratio of the medians. */
const ROUNDS = 9;
const PER_ROUND = 20_000;

function sample(): Uint8Array {
  const record = (owner: string, type: string, data: string) => ({
    owner: Name.parse(owner),
    type: typeCode(type)!,
    cls: 1,
    ttl: 3600,
    data: parseRdata(typeCode(type)!, data),
  });
  const asked = query(Name.parse('www.lighthouse-museum.example.'), 1, { id: 4711 });
  return encodeMessage(
    reply(asked, {
      answers: [
        record('www.lighthouse-museum.example.', 'CNAME', 'edge.thornwick.example.'),
        record('edge.thornwick.example.', 'A', '203.0.113.80'),
        record('edge.thornwick.example.', 'A', '203.0.113.81'),
      ],
      authorities: [record('thornwick.example.', 'NS', 'ns1.quillmere.example.'), record('thornwick.example.', 'NS', 'ns2.quillmere.example.')],
      additionals: [record('ns1.quillmere.example.', 'A', '203.0.113.51')],
    }),
  );
}

function seconds(work: () => void): number {
  const began = performance.now();
  for (let i = 0; i < PER_ROUND; i++) work();
  return (performance.now() - began) / 1000;
}

function compare(title: string, ours: () => void, theirs: () => void): void {
  const ratios: number[] = [];
  for (let round = 0; round < ROUNDS; round++) ratios.push(seconds(theirs) / seconds(ours));
  ratios.sort((a, b) => a - b);
  console.log(
    `${title}: ${ratios[ROUNDS >> 1]!.toFixed(2)} times as fast as dns-packet (${ratios[0]!.toFixed(2)} to ${ratios.at(-1)!.toFixed(2)}, ${ROUNDS} rounds of ${PER_ROUND})`,
  );
}

const wire = sample();
const buffer = Buffer.from(wire);
const ours = decodeMessage(wire);
const theirs = reference.decode(buffer);
compare(
  'message decode',
  () => void decodeMessage(wire),
  () => void reference.decode(buffer),
);
compare(
  'message encode',
  () => void encodeMessage(ours),
  () => void reference.encode(theirs),
);
