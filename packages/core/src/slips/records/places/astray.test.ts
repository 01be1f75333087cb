import { Leg } from '../../../move/leg';
import { astrayKeys, slipSeen } from '../../../move/slipsSeen';
import { NEW, WWW, decision, legOf, planned, rows } from '../../../testing/moving';
import { astray } from './astray';
import { Astray, WrongSet } from '../slip';

const wrong = (more: Partial<WrongSet>): WrongSet => ({
  ...{ zone: 'reed.example.', owner: 'www.reed.example.', type: 'CNAME', planned: ['edge.host.example.'], served: [], found: [] },
  ...{ elsewhere: () => undefined, rows: [], isFront: () => false, ...more },
});
const at = (what: Astray['what'], where: string, ...data: string[]): Astray => ({ what, where, data });

describe('a record that is saved somewhere else', () => {
  it('is asked about where all that is missing stands there', () => {
    const code = (more: Partial<WrongSet>): string | undefined => astray(wrong(more))?.code;
    expect(code({ elsewhereFound: [at('domain', 'www.other.example.', 'EDGE.host.example.')] })).toBe('another domain');
    expect(code({ elsewhereFound: [at('host', 'Some DNS', 'edge.host.example.')] })).toBe('another host');
    expect(code({ elsewhereFound: [at('host', 'Some DNS', 'old.host.example.')] })).toBeUndefined();
    expect(code({ type: 'A', planned: ['192.0.2.1', '192.0.2.2'], elsewhereFound: [at('domain', 'www.other.example.', '192.0.2.1')] })).toBeUndefined();
    expect(code({ served: ['edge.host.example.'], elsewhereFound: [at('host', 'Some DNS', 'edge.host.example.')] })).toBeUndefined();
    expect(code({})).toBeUndefined();
  });

  it('is looked for where somebody says that it is typed, no server has it, and it is typed by hand at all', () => {
    const leg = (typed: readonly string[], www: string[] | undefined, more: Partial<Parameters<typeof legOf>[0]> = {}): Leg =>
      legOf({
        now: 2000,
        zones: NEW.flatMap((server, index) => rows(server, `203.0.113.${index + 1}`, [1000, 2000, planned(www ? { [WWW]: { ttl: 300, data: www } } : {})])),
        decisions: typed.map((row) => decision('typed', row, true)),
        plan: { newHost: { name: 'New DNS', keyed: false, fronts: [] } },
        ...more,
      });
    const row = `${WWW}/ 192.0.2.2`;
    expect(astrayKeys(leg([row], []))).toEqual([WWW]);
    expect(astrayKeys(leg([], []))).toEqual([]);
    expect(astrayKeys(leg(['www.zone.test.extra./A/ 192.0.2.2'], []))).toEqual([]);
    expect(astrayKeys(leg([row], undefined))).toEqual([]);
    expect(astrayKeys(leg([row], [], { plan: {} }))).toEqual([]);
    const found = leg([row], [], { seen: { astray: new Map([[WWW, [at('domain', 'www.other.test.', '192.0.2.2')]]]) } });
    expect(slipSeen(found, '203.0.113.1', WWW, { ttl: 300, data: [] })?.code).toBe('another domain');
  });
});
