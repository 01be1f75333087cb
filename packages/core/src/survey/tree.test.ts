import fc from 'fast-check';
import { Name } from '../dns/name';
import { TreeNode, treeOf } from './tree';

const ZONE = Name.parse('reed-bank.example.');
const item = (text: string): { name: Name } => ({ name: text === '@' ? ZONE : Name.parse(text, ZONE) });
const drawn = (nodes: readonly TreeNode<{ name: Name }>[], depth = 0): string[] =>
  nodes.flatMap((node) => [`${'  '.repeat(depth)}${node.label} ${node.items.length}/${node.count}`, ...drawn(node.children, depth + 1)]);

describe('the tree of names', () => {
  it('has the domain itself, www, mail and the rest, and puts empty names together with the one below', () => {
    const items = ['@', '@', 'shop', 'www', 'a.www', '_sip._tcp', '_ldap._tcp', '_dmarc', 'k1._domainkey', 'x.y.z', 'odd\\.dot'].map(item);
    const sections = treeOf(ZONE, items, (one) => /_d/.test(one.name.toString()));
    expect(sections.map(({ title, nodes }) => [title, drawn(nodes)])).toEqual([
      ['The domain itself', ['@ 2/2']],
      ['www', ['www 1/2', '  a 1/1']],
      ['Mail', ['_dmarc 1/1', 'k1._domainkey 1/1']],
      ['The rest', ['_tcp 0/2', '  _ldap 1/1', '  _sip 1/1', 'odd\\.dot 1/1', 'shop 1/1', 'x.y.z 1/1']],
    ]);
    expect(treeOf(ZONE, [], () => false)).toEqual([]);
  });

  it('has every item once, wherever it stands', () => {
    const label = fc.constantFrom('a', 'b', 'www', '_tcp', '*');
    const owner = fc.array(label, { minLength: 1, maxLength: 4 }).map((labels) => labels.join('.'));
    fc.assert(
      fc.property(fc.array(owner, { maxLength: 20 }), (owners) => {
        const items = owners.map(item);
        const sections = treeOf(ZONE, items, () => false);
        const all = (nodes: readonly TreeNode<{ name: Name }>[]): { name: Name }[] => nodes.flatMap((node) => [...node.items, ...all(node.children)]);
        const got = sections.flatMap((section) => all(section.nodes));
        expect(new Set(got).size).toBe(items.length);
        expect(sections.flatMap((section) => section.nodes).reduce((sum, node) => sum + node.count, 0)).toBe(items.length);
      }),
    );
  });
});
