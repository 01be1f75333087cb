import { parseTtl } from '../dns/ttl';

const UNITS: readonly (readonly [RegExp, number])[] = [
  [/^(?:s|sec|secs|seconds?|sek|sekunden?|secondes?|segundos?|secondi|secondo|seconden?)$/, 1],
  [/^(?:m|min|mins|minutes?|minuten?|minuut|minutos?|minuti|minuto)$/, 60],
  [/^(?:h|hrs?|hours?|std|stunden?|heures?|horas?|or[ae]|uur|uren|u)$/, 3600],
  [/^(?:d|days?|tage?|jours?|dias?|giorn[io]|dag|dagen|j)$/, 86_400],
  [/^(?:w|weeks?|wochen?|semaines?|semanas?|settiman[ae]|week|weken)$/, 604_800],
];

/** The host decides. */
const BY_HOST = /^(?:auto|automatic|automatisch|automatique|automatico|default|standard|defecto|por defecto|par defaut|predefinito|standaard)$/;
const LONGEST = 30;
/** Seconds below which a number without a unit is no TTL by itself. */
export const LEAST_TTL = 30;

/**
 * A TTL as panels of six languages show it: seconds, `'auto'` where the host decides; undefined where it is none.
 *
 *     ttlText('3600')      // 3600
 *     ttlText('1 Stunde')  // 3600
 *     ttlText('Auto')      // 'auto'
 */
export function ttlText(text: string): number | 'auto' | undefined {
  if (text.length > LONGEST) return undefined;
  const plain = text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replace(/\.$/, '').trim();
  if (BY_HOST.test(plain)) return 'auto';
  const words = /^(\d{1,10})\s*([a-z]+)$/.exec(plain);
  const unit = words === null ? undefined : UNITS.find(([pattern]) => pattern.test(words[2]!))?.[1];
  if (words !== null && unit !== undefined) return Number(words[1]) * unit;
  // Thousands parted as people do: 86.400, 86,400.
  const thousands = /^\d{1,3}(?:[.,]\d{3})+$/.test(plain) ? plain.replace(/[.,]/g, '') : plain;
  return parseTtl(thousands);
}
