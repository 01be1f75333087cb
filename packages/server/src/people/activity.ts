import { Request } from 'express';
import { NamedAct } from './allow';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** A request that changes nothing. */
export function isSafe(request: Request): boolean {
  return SAFE.has(request.method);
}

/** What the page calls the act that it asks for: `x-act` names it, `x-again` says that no answer came. Undefined where it has no such name. */
export function actOf(request: Request): NamedAct | undefined {
  const name = request.get('x-act');
  return name !== undefined && /^[0-9a-f]{32}$/.test(name) ? { name, again: request.get('x-again') !== undefined } : undefined;
}

/** False for what a page asks by itself while nobody is there: it says so, since a session is to end then. */
export function isActive(request: Request): boolean {
  return request.get('x-unattended') === undefined;
}
