import { RecordSlip, shown, without } from './slip';

/** The priority was typed into the value of a panel that has a field for it: `0 10\032mail.zone.` */
export const priorityInside: RecordSlip = ({ type, planned, served, zone }) => {
  if (type !== 'MX' && type !== 'SRV') return undefined;
  for (const there of without(served, planned)) {
    // The blank of what was typed is part of the first label, as \032 or with a backslash before it.
    const typed = /^[\d ]+? ((?:\d+(?:\\032|\\ ))+)(.+)$/.exec(there);
    if (!typed) continue;
    const target = typed[2]!.toLowerCase();
    const wanted = planned.find((one) =>
      [target, target.replace(new RegExp(`${escaped(zone.toLowerCase())}$`), '')].includes(one.slice(one.lastIndexOf(' ') + 1).toLowerCase()),
    );
    if (wanted)
      return {
        code: 'priority inside',
        text: `The priority stands inside the value: it has a field of its own. The value is ${shown(wanted.slice(wanted.lastIndexOf(' ') + 1))} alone.`,
      };
  }
  return undefined;
};

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
