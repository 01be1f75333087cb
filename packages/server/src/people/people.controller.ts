import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { Person as PersonView, editPersonSchema, givenPasswordSchema, newPersonSchema, personListSchema, personSchema } from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { DONE, Done, DoneDto } from '../done';
import { Allow, Caller, Person } from './allow';
import { PeopleService } from './people.service';

class PersonDto extends createZodDto(personSchema) {}
class PersonListDto extends createZodDto(personListSchema) {}
class NewPersonDto extends createZodDto(newPersonSchema) {}
class EditPersonDto extends createZodDto(editPersonSchema) {}
class GivenPasswordDto extends createZodDto(givenPasswordSchema) {}
class EndedDto extends createZodDto(z.object({ ended: z.number().int() })) {}

/** Accounts, for administrators. */
@Controller('api/people')
export class PeopleController {
  constructor(private readonly people: PeopleService) {}

  @Get()
  @Allow('administrator')
  @ZodResponse({ type: PersonListDto, description: 'Everybody with an account.' })
  async list(): Promise<z.infer<typeof personListSchema>> {
    return { people: await this.people.list() };
  }

  @Post()
  @HttpCode(200)
  @Allow('administrator')
  @ZodResponse({ type: PersonDto, description: 'Makes an account.' })
  async add(@Body() input: NewPersonDto, @Person() caller: Caller): Promise<PersonView> {
    return this.people.add(input, caller);
  }

  @Put(':id')
  @Allow('administrator')
  @ZodResponse({ type: PersonDto, description: 'Changes name, role, whether the account is open, and whether a second factor is asked for.' })
  async edit(@Param('id') id: string, @Body() input: EditPersonDto, @Person() caller: Caller): Promise<PersonView> {
    return this.people.edit(id, input, caller);
  }

  @Put(':id/password')
  @Allow('administrator')
  @ZodResponse({ type: DoneDto, description: 'Gives a new password, to be changed at first use.' })
  async password(@Param('id') id: string, @Body() { password }: GivenPasswordDto, @Person() caller: Caller): Promise<Done> {
    await this.people.givePassword(id, password, caller);
    return DONE;
  }

  @Post(':id/sign-out')
  @HttpCode(200)
  @Allow('administrator')
  @ZodResponse({ type: EndedDto, description: 'Ends every session of a person.' })
  async signOut(@Param('id') id: string, @Person() caller: Caller): Promise<{ ended: number }> {
    return { ended: await this.people.signOutEverywhere(id, caller) };
  }

  @Delete(':id/second-factor')
  @Allow('administrator')
  @ZodResponse({ type: DoneDto, description: 'Takes the second factor of a person off, where the app and its codes are lost.' })
  async takeFactor(@Param('id') id: string, @Person() caller: Caller): Promise<Done> {
    await this.people.removeFactor(id, caller);
    return DONE;
  }
}
