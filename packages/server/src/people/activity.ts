import { Request } from 'express';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** A request that changes nothing. */
export function isSafe(request: Request): boolean {
  return SAFE.has(request.method);
}

/** False for what a page asks by itself while nobody is there: it says so, since a session is to end then. */
export function isActive(request: Request): boolean {
  return request.get('x-unattended') === undefined;
}
