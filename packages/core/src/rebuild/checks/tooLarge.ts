import { Check, remark } from './check';
import { octetsOf } from './largeAnswer';

/** Octets of one message over TCP (RFC 1035 §4.2.2), less what header, question, OPT and signature take. */
const MESSAGE = 65_535 - 700;

/** A set that no message can hold is neither transferred, pushed nor answered. */
export const tooLarge: Check = ({ rulings }) =>
  rulings.flatMap((ruling) => {
    if (!ruling.planned) return [];
    const octets = octetsOf(ruling.planned);
    return octets > MESSAGE
      ? [
          remark(
            ruling,
            'stop',
            'too-large',
            `This set takes ${octets.toLocaleString('en')} octets; a DNS message holds 65,535. Make it smaller, or leave it out.`,
          ),
        ]
      : [];
  });
