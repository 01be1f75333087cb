import { fixedAsFound } from '../fix';
import { Name } from '../../dns/name';
import { TYPE_CODES } from '../../dns/typeNames';
import { Check, remark } from './check';
import { plannedZone } from './plannedZone';

/** A name loses its MX: mail is then delivered to its address (RFC 5321 §5.1), where often nobody takes it. */
export const mailGone: Check = (input) =>
  input.rulings.flatMap((ruling) => {
    if (ruling.type !== 'MX' || ruling.planned || ruling.found?.data.every((data) => /^\d+ \.$/.test(data))) return [];
    const zone = plannedZone(input);
    const name = Name.parse(ruling.owner);
    const mail = zone.ask(name, TYPE_CODES.MX);
    // Below a cut another zone answers.
    if (mail.answers.length > 0 || mail.referral !== undefined) return [];
    const led = [TYPE_CODES.A, TYPE_CODES.AAAA].some((type) => zone.ask(name, type).answers.length > 0);
    return [
      remark(
        ruling,
        'look',
        'mail-gone',
        `Mail was taken for this name; without its MX ${led ? 'it is delivered to the name’s own address' : 'it comes back'}.`,
        [{ text: 'Keep it.', rows: [fixedAsFound(ruling)!] }],
      ),
    ];
  });
