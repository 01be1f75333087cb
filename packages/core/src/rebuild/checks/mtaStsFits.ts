import { fitsMtaSts, isMtaSts, readMtaStsPolicy, readMtaStsRecord } from '../../policy/mtaSts';
import { Check, Remark, remark } from './check';
import { rowAt } from '../fix';
import { textsOf } from './textsAt';

/**
 * A policy for mail (RFC 8461) that senders cannot read, or that names none of the planned mail hosts: who insists on it delivers nothing
 * (§5.1). Where the MX set changes with the move and the policy is enforced, that stops the move.
 */
export const mtaStsFits: Check = ({ zone, rulings, outside }) => {
  const announced = rowAt(rulings, zone.child('_mta-sts').toString(), 'TXT');
  const texts = announced ? textsOf(announced).filter(isMtaSts) : [];
  if (!announced || texts.length === 0) return [];
  const said: Remark[] = [];
  const record = readMtaStsRecord(texts[0]!);
  if (texts.length > 1) said.push(remark(announced, 'look', 'mta-sts-unreadable', 'There are several records of it: senders then take none (RFC 8461 §3.1).'));
  else if (!record.ok) said.push(remark(announced, 'look', 'mta-sts-unreadable', `Senders do not take it: ${record.problem}.`));
  const seen = outside?.mtaSts;
  if (!seen) return said;
  if (seen.text === null)
    return [
      ...said,
      remark(announced, 'look', 'mta-sts-unreadable', `It announces a policy whose page was not read: ${seen.problem ?? 'nothing was answered'}.`),
    ];
  const policy = readMtaStsPolicy(seen.text);
  if (!policy.ok) return [...said, remark(announced, 'look', 'mta-sts-unreadable', `Its policy cannot be read by senders: ${policy.problem}.`)];
  const mail = rowAt(rulings, zone.toString(), 'MX');
  if (policy.mode === 'none' || !mail?.planned) return said;
  const hosts = mail.planned.data.flatMap((data) => /^\d+ (\S+)$/.exec(data)?.[1] ?? []).filter((host) => host !== '.');
  const strange = hosts.filter((host) => !fitsMtaSts(policy.mx, host)).map((host) => host.replace(/\.$/, ''));
  if (strange.length === 0) return said;
  const isNew = mail.ruling !== 'carry' && policy.mode === 'enforce';
  const what = `The policy for mail names ${policy.mx.join(', ')}, and not ${strange.join(', ')}`;
  const then = policy.mode === 'testing' ? 'senders only report it, as long as it is in testing' : 'senders that insist on it do not deliver there';
  return [...said, remark(mail, isNew ? 'stop' : 'look', 'mta-sts-unfit', `${what}: ${then}. Change the page first, then the id of _mta-sts.`)];
};
