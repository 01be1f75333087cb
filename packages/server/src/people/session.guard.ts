import { timingSafeEqual } from 'node:crypto';
import { CanActivate, ExecutionContext, Inject, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { ROLES, Role } from '@wanderon/contract';
import { CONFIG, Config } from '../config';
import { NotAllowed, NotSignedIn } from '../refusals';
import { ALLOW, SignedRequest } from './allow';
import { PeopleService, SESSION_COOKIE } from './people.service';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Session, role and CSRF of every request, in that order. */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly people: PeopleService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const needed = this.reflector.get<Role | 'anybody' | undefined>(ALLOW, context.getHandler());
    const request = context.switchToHttp().getRequest<SignedRequest>();
    const changes = !SAFE.has(request.method);
    if (changes) this.checkOrigin(request);
    if (needed === 'anybody') return true;
    if (needed === undefined) throw new NotAllowed('Nobody may do this.');
    const cookies = request.cookies as Record<string, string | undefined>;
    // Known already where a body had to wait for it.
    const caller = request.caller ?? (await this.people.callerOf(cookies[SESSION_COOKIE]));
    if (!caller) throw new NotSignedIn('Sign in first.', { kept: 'Nothing was changed.' });
    if (ROLES.indexOf(caller.role) < ROLES.indexOf(needed))
      throw new NotAllowed(`This needs the role ${needed}; you are signed in as ${caller.role}.`, { kept: 'Nothing was changed.' });
    if (changes && !sameText(request.get('x-csrf-token') ?? '', caller.csrf))
      throw new NotAllowed('This page is out of date. Reload it and try again.', { kept: 'Nothing was changed.' });
    request.caller = caller;
    return true;
  }

  /** A form on another site may send our cookie along; it cannot hide where it comes from. */
  private checkOrigin(request: SignedRequest): void {
    const origin = request.get('origin');
    if (origin === undefined) return;
    const own = [new URL(this.config.WANDERON_PUBLIC_ADDRESS).origin, `${request.protocol}://${request.get('host')}`];
    if (!own.includes(origin)) throw new NotAllowed('The request comes from another site.', { kept: 'Nothing was changed.' });
  }
}

function sameText(a: string, b: string): boolean {
  const left = Buffer.from(a);
  const right = Buffer.from(b);
  return left.length === right.length && timingSafeEqual(left, right);
}
