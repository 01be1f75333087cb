import { createParamDecorator, CustomDecorator, ExecutionContext, SetMetadata } from '@nestjs/common';
import { Role } from '@wanderon/contract';
import { Request } from 'express';

export const ALLOW = 'allow';

/** Who may call a handler. Every handler must say so, or the server does not start. */
export const Allow = (role: Role | 'anybody'): CustomDecorator => SetMetadata(ALLOW, role);

/** The signed-in person behind a request. */
export interface Caller {
  readonly id: string;
  readonly login: string;
  readonly name: string;
  readonly role: Role;
  readonly csrf: string;
}

export interface SignedRequest extends Request {
  caller?: Caller;
}

export const Person = createParamDecorator((_data: unknown, context: ExecutionContext): Caller => {
  const { caller } = context.switchToHttp().getRequest<SignedRequest>();
  if (!caller) throw new Error('a handler asks for the caller and lets anybody in');
  return caller;
});
