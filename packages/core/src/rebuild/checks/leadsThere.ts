import { Name } from '../../dns/name';
import { namesIn, printRdata } from '../../dns/rdata';
import { TYPE_CODES } from '../../dns/typeNames';
import { CheckInput } from './check';
import { plannedZone } from './plannedZone';

/** True where a name leads to the new web host by the plan, along its aliases: to an address of it, or to the alias target that it names. */
export function leadsThere(input: CheckInput, name: Name): boolean {
  const { newWeb } = input;
  if (!newWeb) return false;
  const alias = newWeb.aliasTarget ? Name.parse(newWeb.aliasTarget) : undefined;
  return [TYPE_CODES.A, TYPE_CODES.AAAA].some((type) =>
    plannedZone(input)
      .ask(name, type)
      .answers.some((set) =>
        set.type === TYPE_CODES.CNAME
          ? alias !== undefined && set.data.some((data) => namesIn(set.type, data).some((target) => target.isAtOrBelow(alias)))
          : set.data.some((data) => newWeb.addresses.includes(printRdata(set.type, data))),
      ),
  );
}

/** The domain itself or its `www`: the website's own names. */
export function isSpelling(zone: Name, name: Name): boolean {
  return name.equals(zone) || name.equals(zone.child('www'));
}
