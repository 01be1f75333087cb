import { Body, Controller, Get, HttpCode, Inject, Post, Req, Res } from '@nestjs/common';
import { Me, meSchema, newPersonSchema, personListSchema, personSchema, signInSchema } from '@wanderon/contract';
import { Request, Response } from 'express';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { CONFIG, Config } from '../config';
import { EventStore } from '../events/event.store';
import { Allow, Caller, Person } from './allow';
import { PeopleService, SESSION_COOKIE } from './people.service';

class SignInDto extends createZodDto(signInSchema) {}
class MeDto extends createZodDto(meSchema) {}
class PersonDto extends createZodDto(personSchema) {}
class PersonListDto extends createZodDto(personListSchema) {}
class NewPersonDto extends createZodDto(newPersonSchema) {}
class DoneDto extends createZodDto(z.object({ done: z.literal(true) })) {}

@Controller('api')
export class PeopleController {
  constructor(
    private readonly people: PeopleService,
    private readonly events: EventStore,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Post('sign-in')
  @HttpCode(200)
  @Allow('anybody')
  @ZodResponse({ type: DoneDto, description: 'Begins a session; the cookie is HttpOnly.' })
  async signIn(@Body() input: SignInDto, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<{ done: true }> {
    const token = await this.people.signIn(input.login, input.password, request.ip ?? '');
    response.cookie(SESSION_COOKIE, token, { httpOnly: true, sameSite: 'strict', secure: this.config.WANDERON_PUBLIC_ADDRESS.startsWith('https:'), path: '/' });
    return { done: true };
  }

  @Post('sign-out')
  @HttpCode(200)
  @Allow('viewer')
  @ZodResponse({ type: DoneDto, description: 'Ends the session.' })
  async signOut(@Req() request: Request, @Person() person: Caller, @Res({ passthrough: true }) response: Response): Promise<{ done: true }> {
    await this.people.signOut((request.cookies as Record<string, string | undefined>)[SESSION_COOKIE], person);
    response.clearCookie(SESSION_COOKIE, { path: '/' });
    return { done: true };
  }

  @Get('me')
  @Allow('viewer')
  @ZodResponse({ type: MeDto, description: 'Who is signed in.' })
  me(@Person() person: Caller): Me {
    return { ...person, lab: this.config.WANDERON_LAB ?? null };
  }

  @Get('people')
  @Allow('administrator')
  @ZodResponse({ type: PersonListDto, description: 'Everybody with an account.' })
  async list(): Promise<z.infer<typeof personListSchema>> {
    return { people: await this.people.list() };
  }

  @Post('people')
  @HttpCode(200)
  @Allow('administrator')
  @ZodResponse({ type: PersonDto, description: 'Makes an account.' })
  async add(@Body() input: NewPersonDto, @Person() caller: Caller): Promise<z.infer<typeof personSchema>> {
    const person = await this.people.add(input);
    await this.events.add({ person: caller.id, kind: 'person', text: `${person.name} (${person.login}) was given the role ${person.role}.`, after: person });
    return person;
  }
}
