import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post, Put, Req, Res } from '@nestjs/common';
import {
  FactorOffer,
  Me,
  RecoveryCodes,
  factorBeginSchema,
  factorConfirmSchema,
  factorOfferSchema,
  firstPersonSchema,
  meSchema,
  ownPasswordSchema,
  recoveryCodesSchema,
  sessionListSchema,
  signInSchema,
} from '@wanderon/contract';
import { Request, Response } from 'express';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { DONE, Done, DoneDto } from '../done';
import { CONFIG, Config } from '../config';
import { Allow, Caller, EvenUnready, Person } from './allow';
import { giveToken, takeToken } from './cookie';
import { FirstPerson } from './firstPerson.service';
import { PeopleService } from './people.service';
import { SecondFactor } from './secondFactor.service';
import { SessionService } from './sessions.service';
import { SignInService } from './signIn.service';

class SignInDto extends createZodDto(signInSchema) {}
class FirstPersonDto extends createZodDto(firstPersonSchema) {}
class MeDto extends createZodDto(meSchema) {}
class OwnPasswordDto extends createZodDto(ownPasswordSchema) {}
class SessionListDto extends createZodDto(sessionListSchema) {}
class FactorBeginDto extends createZodDto(factorBeginSchema) {}
class FactorOfferDto extends createZodDto(factorOfferSchema) {}
class FactorConfirmDto extends createZodDto(factorConfirmSchema) {}
class RecoveryCodesDto extends createZodDto(recoveryCodesSchema) {}

/** What each person does about their own account. */
@Controller('api')
export class MeController {
  constructor(
    private readonly signIns: SignInService,
    private readonly sessions: SessionService,
    private readonly people: PeopleService,
    private readonly factor: SecondFactor,
    private readonly first: FirstPerson,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Post('sign-in')
  @HttpCode(200)
  @Allow('anybody')
  @ZodResponse({ type: DoneDto, description: 'Begins a session; the cookie is HttpOnly.' })
  async signIn(@Body() input: SignInDto, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<Done> {
    const where = { address: request.ip ?? '', agent: request.get('user-agent') ?? '' };
    giveToken(response, await this.signIns.signIn(input, where), this.config);
    return DONE;
  }

  @Post('begin')
  @HttpCode(200)
  @Allow('anybody')
  @ZodResponse({ type: DoneDto, description: 'Makes the first account, by the link that the start printed.' })
  async begin(@Body() input: FirstPersonDto): Promise<Done> {
    await this.first.begin(input);
    return DONE;
  }

  @Post('sign-out')
  @HttpCode(200)
  @Allow('viewer')
  @EvenUnready()
  @ZodResponse({ type: DoneDto, description: 'Ends the session.' })
  async signOut(@Person() person: Caller, @Res({ passthrough: true }) response: Response): Promise<Done> {
    await this.signIns.signOut(person);
    takeToken(response, this.config);
    return DONE;
  }

  @Get('me')
  @Allow('viewer')
  @EvenUnready()
  @ZodResponse({ type: MeDto, description: 'Who is signed in.' })
  me(@Person() { id, login, name, role, csrf, must, factor, demanded }: Caller): Me {
    return { id, login, name, role, csrf, must, factor, demanded, lab: this.config.WANDERON_LAB ?? null };
  }

  @Put('me/password')
  @Allow('viewer')
  @EvenUnready()
  @ZodResponse({ type: DoneDto, description: 'Changes one’s own password; one’s other sessions end.' })
  async password(@Body() input: OwnPasswordDto, @Person() person: Caller): Promise<Done> {
    await this.people.changeOwnPassword(input, person);
    return DONE;
  }

  @Get('me/sessions')
  @Allow('viewer')
  @ZodResponse({ type: SessionListDto, description: 'Where one is signed in.' })
  async list(@Person() person: Caller): Promise<z.infer<typeof sessionListSchema>> {
    return { sessions: await this.sessions.list(person) };
  }

  @Delete('me/sessions/:id')
  @Allow('viewer')
  @ZodResponse({ type: DoneDto, description: 'Ends one of one’s own sessions.' })
  async end(@Param('id') id: string, @Person() person: Caller): Promise<Done> {
    await this.people.endOwnSession(id, person);
    return DONE;
  }

  @Post('me/second-factor')
  @HttpCode(200)
  @Allow('viewer')
  @EvenUnready()
  @ZodResponse({ type: FactorOfferDto, description: 'A secret for an app; it counts once a code of it was typed.' })
  async offer(@Body() { password }: FactorBeginDto, @Person() person: Caller): Promise<FactorOffer> {
    await this.people.checkPassword(person, password, 'password');
    return this.factor.offer(person.id);
  }

  @Put('me/second-factor')
  @Allow('viewer')
  @EvenUnready()
  @ZodResponse({ type: RecoveryCodesDto, description: 'From now on codes are asked for; gives the recovery codes, this once.' })
  async confirm(@Body() { code }: FactorConfirmDto, @Person() person: Caller): Promise<RecoveryCodes> {
    return { codes: await this.people.confirmFactor(code, person) };
  }

  @Post('me/second-factor/codes')
  @HttpCode(200)
  @Allow('viewer')
  @ZodResponse({ type: RecoveryCodesDto, description: 'Other recovery codes, shown this once, in the place of the former ones.' })
  async renew(@Body() { password }: FactorBeginDto, @Person() person: Caller): Promise<RecoveryCodes> {
    await this.people.checkPassword(person, password, 'password');
    return { codes: await this.people.renewRecovery(person) };
  }

  @Post('me/second-factor/off')
  @HttpCode(200)
  @Allow('viewer')
  @ZodResponse({ type: DoneDto, description: 'Takes one’s own second factor off.' })
  async off(@Body() { password }: FactorBeginDto, @Person() person: Caller): Promise<Done> {
    await this.people.checkPassword(person, password, 'password');
    await this.people.removeFactor(person.id, person);
    return DONE;
  }
}
