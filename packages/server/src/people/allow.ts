import { createParamDecorator, CustomDecorator, ExecutionContext, SetMetadata } from '@nestjs/common';
import { Must, Role } from '@wanderon/contract';
import { Request } from 'express';

export const ALLOW = 'allow';
export const BEFORE_READY = 'before ready';

/** Who may call a handler. Every handler must say so, or the server does not start. */
export const Allow = (role: Role | 'anybody'): CustomDecorator => SetMetadata(ALLOW, role);

/** Of a handler: also for somebody who has yet to change a password, or to set up a second factor. */
export const EvenUnready = (): CustomDecorator => SetMetadata(BEFORE_READY, true);

/** The signed-in person behind a request. */
export interface Caller {
  readonly id: string;
  readonly login: string;
  readonly name: string;
  readonly role: Role;
  readonly csrf: string;
  /** The session's number, by which it is told without its token. */
  readonly session: string;
  /** What is to be done before anything else. */
  readonly must: Must | null;
  /** There is a second factor; an administrator asks for one. */
  readonly factor: boolean;
  readonly demanded: boolean;
  /** What the page calls the act that it asks for, where it does: asked for again, it is not done twice. */
  readonly act?: NamedAct;
}

/** An act by the name that a page gave it, of 32 hexadecimal digits. */
export interface NamedAct {
  readonly name: string;
  /** It was asked for before, and no answer came. */
  readonly again: boolean;
}

export interface SignedRequest extends Request {
  caller?: Caller;
}

export const Person = createParamDecorator((_data: unknown, context: ExecutionContext): Caller => {
  const { caller } = context.switchToHttp().getRequest<SignedRequest>();
  if (!caller) throw new Error('a handler asks for the caller and lets anybody in');
  return caller;
});
