import { timingSafeEqual } from 'node:crypto';
import { CanActivate, ExecutionContext, Inject, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { ROLES, Role } from '@wanderon/contract';
import { CONFIG, Config } from '../config';
import { NotAllowed, NotSignedIn } from '../refusals';
import { actOf, isActive, isSafe } from './activity';
import { EventStore } from '../events/event.store';
import { ALLOW, BEFORE_READY, Caller, SignedRequest } from './allow';
import { tokenOf } from './cookie';
import { SessionService } from './sessions.service';

const KEPT = 'Nothing was changed.';
/** Characters of what was asked for that are on record. */
const ASKED = 200;

/** Origin, session, role and CSRF of every request, in that order. */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly sessions: SessionService,
    private readonly events: EventStore,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const needed = this.reflector.get<Role | 'anybody' | undefined>(ALLOW, context.getHandler());
    const request = context.switchToHttp().getRequest<SignedRequest>();
    const unready = this.reflector.get<boolean | undefined>(BEFORE_READY, context.getHandler()) === true;
    // Known already where a body had to wait for it.
    const caller = needed === 'anybody' ? undefined : (request.caller ?? (await this.sessions.callerOf(tokenOf(request, this.config), isActive(request))));
    try {
      this.check(request, needed, caller, unready);
    } catch (error) {
      if (caller && error instanceof NotAllowed) await this.record(request, caller, error);
      throw error;
    }
    if (!caller) return true;
    const act = actOf(request);
    request.caller = act ? { ...caller, act } : caller;
    return true;
  }

  private check(request: SignedRequest, needed: Role | 'anybody' | undefined, caller: Caller | undefined, unready: boolean): void {
    const changes = !isSafe(request);
    if (changes) this.checkOrigin(request);
    if (needed === 'anybody') return;
    if (needed === undefined) throw new NotAllowed('Nobody may do this.');
    if (!caller) throw new NotSignedIn('Sign in first.', { kept: KEPT });
    if (ROLES.indexOf(caller.role) < ROLES.indexOf(needed))
      throw new NotAllowed(`This needs the role ${needed}; you are signed in as ${caller.role}.`, { kept: KEPT });
    if (changes && !sameText(request.get('x-csrf-token') ?? '', caller.csrf))
      throw new NotAllowed('This page is out of date. Reload it and try again.', { kept: KEPT });
    if (caller.must !== null && !unready)
      throw new NotAllowed(caller.must === 'password' ? 'Choose a password of your own first.' : 'Set up a second factor first.', { kept: KEPT });
  }

  /** What somebody who is signed in was refused is on record. */
  private async record(request: SignedRequest, { id, name }: Caller, { title }: NotAllowed): Promise<void> {
    const asked = `${request.method} ${request.path}`.slice(0, ASKED);
    await this.events.add({ person: id, kind: 'refused', text: `${name} was refused ${asked}: ${title}`, after: { asked } });
  }

  /** A form on another site may send our cookie along; it cannot hide where it comes from. */
  private checkOrigin(request: SignedRequest): void {
    const origin = request.get('origin');
    if (origin === undefined) return;
    if (origin !== new URL(this.config.WANDERON_PUBLIC_ADDRESS).origin)
      throw new NotAllowed('The request comes from another site.', { detail: `Open ${this.config.WANDERON_PUBLIC_ADDRESS}.`, kept: KEPT });
  }
}

function sameText(a: string, b: string): boolean {
  const left = Buffer.from(a);
  const right = Buffer.from(b);
  return left.length === right.length && timingSafeEqual(left, right);
}
