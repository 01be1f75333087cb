import { Request, Response } from 'express';
import { Config } from '../config';

/** Under https with the prefix that no other host, and no page without https, can set (RFC 6265bis §4.1.3.2). */
const PLAIN = 'wanderon_session';
const HOST_ONLY = `__Host-${PLAIN}`;

const isHttps = (config: Pick<Config, 'WANDERON_PUBLIC_ADDRESS'>): boolean => config.WANDERON_PUBLIC_ADDRESS.startsWith('https:');

/** The session's token as a request brings it. */
export function tokenOf(request: Request, config: Pick<Config, 'WANDERON_PUBLIC_ADDRESS'>): string | undefined {
  const cookies = request.cookies as Record<string, string | undefined>;
  return cookies[isHttps(config) ? HOST_ONLY : PLAIN];
}

export function giveToken(response: Response, token: string, config: Pick<Config, 'WANDERON_PUBLIC_ADDRESS'>): void {
  const secure = isHttps(config);
  response.cookie(secure ? HOST_ONLY : PLAIN, token, { httpOnly: true, sameSite: 'strict', secure, path: '/' });
}

export function takeToken(response: Response, config: Pick<Config, 'WANDERON_PUBLIC_ADDRESS'>): void {
  const secure = isHttps(config);
  response.clearCookie(secure ? HOST_ONLY : PLAIN, { path: '/', secure });
}
